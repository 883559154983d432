/** Keys for everything, and the sheet that lists them. */
import { Dialog } from "radix-ui";
import { useEffect } from "react";
import { useNavigate } from "react-router";
import { useRedo, useUndo } from "../api/queries";
import { STATIONS } from "./stations";

const OPEN_SHEET = "ready-slab-keys";

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
}

export function useKeys(jobId: string | undefined): void {
  const navigate = useNavigate();
  const undo = useUndo();
  const redo = useRedo();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.defaultPrevented || typing(e.target) || document.querySelector("[role=dialog]")) return;
      const command = e.ctrlKey || e.metaKey;
      const key = e.key.toLowerCase();
      if (command && key === "z") {
        e.preventDefault();
        (e.shiftKey ? redo : undo).mutate(undefined);
        return;
      }
      if (command || e.altKey) return;
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
  }, [jobId, navigate, undo, redo]);
}

const OTHERS: [string, string][] = [
  ["S", "the shelf"],
  ["L", "in the cold, live"],
  ["K", "the kitchen"],
  ["P", "the pantry"],
  ["R", "read a recipe"],
  ["Ctrl Enter", "keep what was read"],
  ["Ctrl Z", "undo"],
  ["Ctrl Shift Z", "redo"],
  ["↑ ↓ in a value", "a little more or less"],
  ["Enter in a value", "keep it"],
  ["Esc in a value", "leave it as it was"],
  ["?", "this sheet"],
];

export function KeySheet() {
  return (
    <Dialog.Root>
      <Dialog.Trigger id={OPEN_SHEET} className="btn btn-quiet btn-small" aria-label="Keys" aria-keyshortcuts="?">
        ?
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-50 max-h-[90dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-worktop p-6 text-ink"
        >
          <Dialog.Title className="h-station mb-4">Keys</Dialog.Title>
          <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2 sm:grid-cols-[auto_1fr_auto_1fr]">
            {STATIONS.map((s, i) => (
              <Key key={s.key} name={String(i + 1)} does={s.name} />
            ))}
            {OTHERS.map(([name, does]) => (
              <Key key={name} name={name} does={does} />
            ))}
          </dl>
          <p className="mt-5 text-fine text-soft">
            Values take their unit as you type it: 1/4 in, 6mm, 350F, 4 dozen. Keys rest while you type in a value.
          </p>
          <Dialog.Close className="btn btn-main mt-5">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Key({ name, does }: { name: string; does: string }) {
  return (
    <>
      <dt className="num whitespace-nowrap font-semibold">{name}</dt>
      <dd className="text-soft">{does}</dd>
    </>
  );
}
