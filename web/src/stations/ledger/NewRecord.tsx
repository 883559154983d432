/** A bake is recorded: what was measured, and what it was baked with where that was not as planned. */
import { type Said } from "../../drawing/sentence";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, settled, type Job, type Plan, type Schemas } from "../../api/client";
import { readCallipers } from "../../api/ledger";
import { useAddRecord, useDeleteRecord, useKeepPhoto, useKitchen } from "../../api/queries";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { FileButton } from "../../kit/FileButton";
import { Part } from "../../kit/Ticket";
import { useFine } from "../../kit/fine";
import { didFact } from "../../kit/said";
import { useFormat } from "../../kit/settings";
import { ENDS, LINERS, TRAYS } from "../oven/words";
import { EMPTY, approved, useDraft, type Conditions, type Draft } from "./draft";
import { listed } from "./listed";

export const EDGES = [
  { value: "pale", label: "Pale" },
  { value: "just_golden", label: "Just golden" },
  { value: "golden", label: "Golden" },
  { value: "brown", label: "Brown" },
] as const;
const TYPED = ["widths", "thicknesses", "minutes", "notes"] as const;

export function NewRecord({ job, plan }: { job: Job; plan: Plan }) {
  const format = useFormat();
  const fine = useFine();
  const { mutateAsync: add, error, reset, isPending } = useAddRecord(job.id);
  const { mutateAsync: takeAway } = useDeleteRecord();
  const { mutateAsync: keepPhoto, error: photoError, reset: resetPhoto } = useKeepPhoto();
  const [draft, setDraft] = useDraft(job.id);
  const [unread, setUnread] = useState<{ field: string; text: Said }>();
  useFromTheBench(setDraft);
  const set = (field: (typeof TYPED)[number]) => (e: { target: { value: string } }) => {
    const { value } = e.target;
    setDraft((now) => ({ ...now, [field]: value }));
  };
  const read = async (field: string, text: string, quantity: "length" | "duration"): Promise<number> => {
    try {
      const default_symbol = quantity === "length" ? format.symbol("length") : "min";
      return (await settled(api.POST("/api/units/parse", { body: { quantity, text, default_symbol } })))
        .value;
    } catch (fault) {
      setUnread({
        field,
        text: faultOf(fault, "text") ?? otherFault(fault, []) ?? "Can’t read that. Type a number.",
      });
      throw fault;
    }
  };
  const readAll = async (field: string, text: string): Promise<number[]> => {
    const values: number[] = [];
    for (const part of listed(text)) values.push(await read(field, part, "length"));
    return values;
  };
  const save = async () => {
    setUnread(undefined);
    reset();
    resetPhoto();
    const photo = draft.measured_mm ? approved.get(job.id) : undefined;
    try {
      const widths_mm = draft.measured_mm ? [...draft.measured_mm] : await readAll("widths_mm", draft.widths);
      const thicknesses_mm = await readAll("thicknesses_mm", draft.thicknesses);
      const baked_min =
        draft.minutes.trim() === "" ? null : await read("baked_min", draft.minutes, "duration");
      // The fields are free for the next bake at once.
      setDraft({ ...EMPTY, other: draft.other });
      const asPlanned: Conditions = {
        oven_c: null,
        oven_fan: null,
        tray_kind: null,
        liner: null,
        bake_end: null,
        start_c: null,
      };
      const made = await add({
        widths_mm,
        thicknesses_mm,
        baked_min,
        edge_colour: draft.edge,
        notes: draft.notes,
        conditions: { ...asPlanned, ...draft.other },
        ...(draft.of_tray ? { of_tray: draft.of_tray } : {}),
      });
      didFact("Bake saved", () => takeAway(made.id));
      if (photo) {
        approved.delete(job.id);
        // What was measured is kept whatever becomes of the picture; the fault is told below.
        await keepPhoto({ record: made.id, ...photo }).catch(() => undefined);
      }
    } catch {
      // The fault stands by its field; what was typed comes back, unless something else was typed meanwhile.
      setDraft((now) => (TYPED.every((f) => now[f] === "") ? draft : now));
    }
  };
  const fromCalliper = async (file: File) => {
    setUnread(undefined);
    try {
      const found = await readCallipers(file);
      const typed = (of: readonly number[]) =>
        of.map((mm) => String(Number((mm / fine.mm).toFixed(fine.places + 1)))).join("; ");
      setDraft((now) => ({
        ...now,
        widths: typed(found.widths_mm),
        ...(found.thicknesses_mm.length > 0 ? { thicknesses: typed(found.thicknesses_mm) } : {}),
      }));
    } catch (error_) {
      setUnread({ field: "file", text: otherFault(error_, []) ?? "Couldn’t read that file." });
    }
  };
  const fault = (field: string) => (unread?.field === field ? unread.text : faultOf(error, field));
  const us = format.units.length === "in";
  return (
    <Part title="Record a bake">
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        {draft.of_tray ? (
          <p className="flex items-center justify-between gap-3">
            <span>
              <strong>Tray {draft.of_tray.tray}</strong> of the day at the bench
            </span>
            <button
              type="button"
              className="btn btn-quiet btn-small"
              onClick={() => setDraft((now) => ({ ...now, of_tray: undefined }))}
            >
              Remove
            </button>
          </p>
        ) : null}
        {draft.measured_mm ? (
          <Measured
            job={job.id}
            widths_mm={draft.measured_mm}
            onTyped={() => {
              approved.delete(job.id);
              setDraft((now) => ({ ...now, measured_mm: undefined }));
            }}
          />
        ) : (
          <>
            <div className="flex flex-wrap gap-2">
              <Link to={`/jobs/${job.id}/ledger/photo`} className="btn grow">
                Measure with a photo
              </Link>
              <FileButton
                label="From a caliper file (CSV)"
                accept=".csv,.txt,text/csv,text/plain"
                className="btn grow"
                onFile={(file) => void fromCalliper(file)}
              >
                From a caliper file
              </FileButton>
            </div>
            <Fault text={unread?.field === "file" ? unread.text : undefined} />
            <Typed
              id="widths"
              label={`Widths of a few cookies (cut at ${format.length(plan.oven.cut_width_mm)})`}
              value={draft.widths}
              onChange={set("widths")}
              placeholder={us ? "3 13/16; 3 7/8" : "96.8 97.1 96.5"}
              fault={fault("widths_mm")}
            />
          </>
        )}
        <Typed
          id="thicknesses"
          label="Thicknesses, if measured"
          value={draft.thicknesses}
          onChange={set("thicknesses")}
          placeholder={us ? "1/4" : "6.5 6.4"}
          fault={fault("thicknesses_mm")}
        />
        <Typed
          id="minutes"
          label="Time in the oven"
          value={draft.minutes}
          onChange={set("minutes")}
          placeholder="11 or 10 min 30 s"
          fault={fault("baked_min")}
        />
        <div>
          <p className="mb-1 text-fine text-soft">Edge</p>
          <Choice
            label="Edge"
            value={draft.edge}
            options={EDGES}
            onChange={(edge) => setDraft((now) => ({ ...now, edge }))}
          />
        </div>
        <NotAsPlanned
          job={job}
          plan={plan}
          other={draft.other}
          onChange={(changed) => setDraft((now) => ({ ...now, other: { ...now.other, ...changed } }))}
          onClear={() => setDraft((now) => ({ ...now, other: {} }))}
        />
        <div>
          <label htmlFor="notes" className="mb-1 block text-fine text-soft">
            Notes
          </label>
          <textarea
            id="notes"
            className="field min-h-24 py-2"
            value={draft.notes}
            onChange={set("notes")}
            maxLength={2000}
          />
          <Fault text={fault("notes")} />
        </div>
        <Fault text={photoError ? "Bake saved, but its photo couldn’t be." : undefined} />
        <Fault text={otherFault(error, ["widths_mm", "thicknesses_mm", "baked_min", "notes"])} />
        <button type="submit" className="btn btn-main w-full" disabled={isPending}>
          Save
        </button>
      </form>
    </Part>
  );
}

/** Widths that a photo gave. */
function Measured({
  job,
  widths_mm,
  onTyped,
}: {
  job: number;
  widths_mm: readonly number[];
  onTyped(): void;
}) {
  const format = useFormat();
  return (
    <div className="rounded-xl border border-rule p-3">
      <p className="text-fine text-soft">
        {widths_mm.length === 1 ? "1 width" : `${widths_mm.length} widths`} from the photo
        {approved.has(job) ? "" : " (the photo was lost when the page reloaded)"}
      </p>
      <p className="num">{widths_mm.map((mm) => format.length(mm)).join(", ")}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Link to={`/jobs/${job}/ledger/photo`} className="btn btn-small">
          Measure again
        </Link>
        <button type="button" className="btn btn-small" onClick={onTyped}>
          Type widths instead
        </button>
      </div>
    </div>
  );
}

/** What the bench knows of a tray comes filled in: how long it was in the oven, how cold it went in. The address holds it, once. */
function useFromTheBench(setDraft: (change: (now: Draft) => Draft) => void): void {
  const [query, setQuery] = useSearchParams();
  // The address is cleared a moment later: what it held is taken once.
  const taken = useRef("");
  useEffect(() => {
    if (taken.current === query.toString()) return;
    taken.current = query.toString();
    const minutes = Number(query.get("baked_min"));
    if (!(minutes > 0)) return;
    const start_c = query.has("start_c") ? Number(query.get("start_c")) : undefined;
    const tray = Number(query.get("tray"));
    const run = Number(query.get("run"));
    setDraft((now) => ({
      ...now,
      minutes: `${minutes} min`,
      ...(tray > 0 && run > 0 ? { of_tray: { run_id: run, tray } } : {}),
      other: start_c !== undefined && Number.isFinite(start_c) ? { ...now.other, start_c } : now.other,
    }));
    setQuery({}, { replace: true });
  }, [query, setQuery, setDraft]);
}

interface TypedProps {
  id: string;
  label: string;
  value: string;
  placeholder: string;
  fault: Said | undefined;
  onChange(e: { target: { value: string } }): void;
}

function Typed({ id, label, value, placeholder, fault, onChange }: TypedProps) {
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        value={value}
        onChange={onChange}
        placeholder={placeholder}
        autoComplete="off"
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
      />
      <div id={`${id}-fault`}>
        <Fault text={fault} />
      </div>
    </div>
  );
}

/** What it was baked with. It stands as planned until somebody says otherwise; what is learnt is learnt against this. */
function NotAsPlanned({
  job,
  plan,
  other,
  onChange,
  onClear,
}: {
  job: Job;
  plan: Plan;
  other: Partial<Conditions>;
  onChange(changed: Partial<Conditions>): void;
  onClear(): void;
}) {
  const kitchen = useKitchen().data;
  if (!kitchen) return null;
  const told = Object.keys(other).length > 0;
  const keep = (field: "oven_c" | "start_c") => (value: number) => {
    onChange({ [field]: value });
    return Promise.resolve();
  };
  return (
    <details open={told ? true : undefined}>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">Baked differently than planned</summary>
      <div className="space-y-3 pb-2">
        <div className="grid grid-cols-2 gap-3">
          <Amount
            label="Oven set to"
            kind="oven"
            step={5}
            value={other.oven_c ?? job.oven_c}
            field="oven_c"
            onSave={keep("oven_c")}
          />
          <Amount
            label="Cookies went in at"
            kind="temperature"
            value={other.start_c ?? job.goes_in_c ?? plan.oven.forecast?.start_c ?? 20}
            field="start_c"
            onSave={keep("start_c")}
          />
        </div>
        <Choice
          label="Oven mode"
          value={(other.oven_fan ?? kitchen.oven_fan) ? "fan" : "still"}
          options={[
            { value: "still", label: "Conventional" },
            { value: "fan", label: "Fan (convection)" },
          ]}
          onChange={(v) => onChange({ oven_fan: v === "fan" })}
        />
        <Choice
          label="Tray"
          value={other.tray_kind ?? kitchen.tray_kind}
          options={TRAYS}
          onChange={(tray_kind: Schemas["TrayKind"]) => onChange({ tray_kind })}
        />
        <Choice
          label="Under the cookies"
          value={other.liner ?? job.liner ?? "parchment"}
          options={LINERS}
          onChange={(liner: Schemas["TrayLiner"]) => onChange({ liner })}
        />
        <Choice
          label="Baked until"
          value={other.bake_end ?? job.bake_end ?? "just_golden"}
          options={ENDS}
          onChange={(bake_end: Schemas["BakeEnd"]) => onChange({ bake_end })}
        />
        {told ? (
          <button type="button" className="btn btn-small" onClick={onClear}>
            Use the plan
          </button>
        ) : null}
      </div>
    </details>
  );
}
