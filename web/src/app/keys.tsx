/** Keys for everything, and the sheet that lists them. */
import { after } from "../drawing/sentence";
import { lazy, Suspense, useCallback, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useRedo, useUndo } from "../api/queries";
import { faultOf, otherFault } from "../kit/Fault";
import { lastDeed, say } from "../kit/said";
import { useSettings } from "../kit/settings";
import { STATIONS } from "./stations";

type Step = Schemas["StepView"];

const OPEN_SHEET = "ready-slab-keys";

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

export function useKeys(jobId: string | undefined): void {
  const navigate = useNavigate();
  const takeBack = useTakeBack();
  const { singleKeys } = useSettings();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.defaultPrevented || document.querySelector("[role=dialog], [role=alertdialog]")) return;
      const command = e.ctrlKey || e.metaKey;
      const key = e.key.toLowerCase();
      if (command && key === "z") {
        // In a field that holds something not kept yet, the field's own undo comes first.
        if (typing(e.target) && unkept(e.target)) return;
        e.preventDefault();
        takeBack(e.shiftKey);
        return;
      }
      if (command || e.altKey || typing(e.target) || !singleKeys) return;
      const station = STATIONS[Number(e.key) - 1];
      if (station && jobId) void navigate(`/jobs/${jobId}/${station.key}`);
      else if (key === "s") void navigate("/");
      else if (key === "l") void navigate("/live");
      else if (key === "k") void navigate("/kitchen");
      else if (key === "p") void navigate("/pantry");
      else if (key === "r") void navigate(jobId ? `/read?job=${jobId}` : "/read");
      else if (e.key === "?") document.getElementById(OPEN_SHEET)?.click();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [jobId, navigate, takeBack, singleKeys]);
}

/** A field whose text is not what is kept. */
function unkept(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.dataset.unkept === "true" || target.tagName === "TEXTAREA" || target.isContentEditable)
  );
}

/** Undo and redo: of a fact of the day that was noted here last, else of the latest edit; either says what it was. */
export function useTakeBack(): (again?: boolean) => void {
  const undo = useUndo();
  const redo = useRedo();
  const { mutate: undoNow } = undo;
  const { mutate: redoNow } = redo;
  return useCallback(
    (again = false) => {
      const fact = again ? undefined : lastDeed();
      if (fact) {
        void fact().catch(() => say("Couldn’t undo that."));
        return;
      }
      const done = {
        onSuccess: (step: Step) =>
          say(step.edit ? after(`${again ? "Redone" : "Undone"}: `, step.edit.label) : "Nothing to undo."),
        onError: (error: unknown) =>
          say(otherFault(error, []) ?? faultOf(error, "edit") ?? "Couldn’t undo that."),
      };
      if (again) redoNow(undefined, done);
      else undoNow(undefined, done);
    },
    [undoNow, redoNow],
  );
}

const keyWindow = () => import("./KeyWindow");
const KeyWindow = lazy(async () => ({ default: (await keyWindow()).KeyWindow }));

/** Opens the sheet of keys, which comes when it is asked for. */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(false);
  return (
    <>
      <button
        type="button"
        id={OPEN_SHEET}
        className="btn btn-quiet btn-small"
        aria-label="Keys"
        aria-haspopup="dialog"
        aria-keyshortcuts="?"
        onClick={() => {
          setWanted(true);
          setOpen(true);
        }}
      >
        ?
      </button>
      {wanted ? (
        <Suspense>
          <KeyWindow open={open} onOpen={setOpen} />
        </Suspense>
      ) : null}
    </>
  );
}
