/** What came out of the oven, against what was expected. */
import { useRef, useState } from "react";
import type { BakeRecord } from "../../api/client";
import { api, settled } from "../../api/client";
import { useAddRecord, useDeleteRecord, useRecords } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { BakesTeach } from "./BakesTeach";
import { SpreadChart } from "./SpreadChart";

const EDGES = [
  { value: "pale", label: "Pale" },
  { value: "just_golden", label: "Just golden" },
  { value: "golden", label: "Golden" },
  { value: "brown", label: "Brown" },
] as const;
type Edge = (typeof EDGES)[number]["value"];

export function Ledger() {
  const { job, plan, dim } = useJobContext();
  const records = useRecords(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const all = records.data ?? [];
  return (
    <>
      <Work dim={dim}>
        <StationHead title={all.length === 0 ? "Nothing baked yet" : all.length === 1 ? "One bake" : `${all.length} bakes`} sub={`expected: ${number(plan.oven.spread_least_percent, 0)}–${number(plan.oven.spread_most_percent, 0)} % spread, ${number(plan.oven.bake_least_min, 0)}–${number(plan.oven.bake_most_min, 0)} min`}>
          {all.length > 0 ? <SaveSvg picture={picture} name={`${job.name} bakes`} /> : null}
        </StationHead>
        {all.length === 0 ? (
          <p className="max-w-xl text-lg text-soft">
            Measure a few pieces of the first tray when they are cold: across, where the cutter is widest, and how thick. What you record
            here stands beside what was expected, and stays with the job.
          </p>
        ) : (
          <>
            <SpreadChart picture={picture} records={all} plan={plan} />
            <ul className="mt-4">
              {all.map((r) => (
                <Entry key={r.id} record={r} />
              ))}
            </ul>
          </>
        )}
      </Work>
      <TicketBox>
        <NewRecord jobId={job.id} width={plan.oven.cut_width_mm} />
        <BakesTeach records={all.length} />
      </TicketBox>
    </>
  );
}

function Entry({ record: r }: { record: BakeRecord }) {
  const format = useFormat();
  const remove = useDeleteRecord();
  const within = r.spread_percent >= r.expected_spread_least_percent && r.spread_percent <= r.expected_spread_most_percent;
  const verdict = within ? "as expected" : r.spread_percent < r.expected_spread_least_percent ? "less than expected" : "more than expected";
  return (
    <li className="border-t border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="h-part">
          {longDay(r.recorded_at)}, {clock(r.recorded_at)}
        </h3>
        <button type="button" className="btn btn-quiet btn-small" aria-label={`Take away the bake of ${longDay(r.recorded_at)}`} onClick={() => remove.mutate(r.id)}>
          Take away
        </button>
      </div>
      <p>
        <strong>Spread {number(r.spread_percent, 1, 1)} %</strong>, {verdict} ({number(r.expected_spread_least_percent, 0)}–{number(r.expected_spread_most_percent, 0)} %). Across{" "}
        {format.length(r.mean_width_mm)} on average, {format.length(r.width_range_mm)} between widest and narrowest
        {r.mean_thickness_mm == null ? "" : `; ${format.length(r.mean_thickness_mm)} thick`}
        {r.spread_factor == null ? "" : `, spread factor ${number(r.spread_factor, 1, 1)}`}.
      </p>
      <p className="text-soft">
        {r.baked_min == null ? "" : `${number(r.baked_min, 1)} min in the oven, expected ${number(r.expected_bake_least_min, 0)}–${number(r.expected_bake_most_min, 0)}. `}
        Edge {EDGES.find((e) => e.value === r.edge_colour)?.label.toLowerCase()}.
      </p>
      {r.notes ? <p className="mt-1">{r.notes}</p> : null}
    </li>
  );
}

function NewRecord({ jobId, width }: { jobId: number; width: number }) {
  const format = useFormat();
  const add = useAddRecord(jobId);
  const empty = { widths: "", thicknesses: "", minutes: "", notes: "" };
  const [draft, setDraft] = useState(empty);
  const [edge, setEdge] = useState<Edge>("just_golden");
  const [unread, setUnread] = useState<{ field: string; text: string }>();
  const set = (field: keyof typeof empty) => (e: { target: { value: string } }) => setDraft({ ...draft, [field]: e.target.value });

  const readAll = async (field: string, text: string, quantity: "length" | "duration"): Promise<number[]> => {
    const parts = text.split(/[;\s]+(?=[\d.¼½¾⅛⅜⅝⅞])|;/).map((p) => p.trim()).filter(Boolean);
    const values: number[] = [];
    for (const part of parts) {
      try {
        const default_symbol = quantity === "length" ? format.symbol("length") : "min";
        values.push((await settled(api.POST("/api/units/parse", { body: { quantity, text: part, default_symbol } }))).value);
      } catch (error) {
        setUnread({ field, text: faultOf(error, "text") ?? otherFault(error, []) ?? "That does not read." });
        throw error;
      }
    }
    return values;
  };
  const save = async () => {
    setUnread(undefined);
    add.reset();
    try {
      const widths_mm = await readAll("widths_mm", draft.widths, "length");
      const thicknesses_mm = await readAll("thicknesses_mm", draft.thicknesses, "length");
      const minutes = await readAll("baked_min", draft.minutes, "duration");
      // The fields are free for the next bake at once.
      setDraft(empty);
      await add.mutateAsync({ widths_mm, thicknesses_mm, baked_min: minutes[0] ?? null, edge_colour: edge, notes: draft.notes });
    } catch {
      // The fault stands by its field; what was typed comes back, unless something else was typed meanwhile.
      setDraft((now) => (Object.values(now).every((v) => v === "") ? draft : now));
    }
  };
  const fault = (field: string) => (unread?.field === field ? unread.text : faultOf(add.error, field));
  return (
    <Part title="Record a bake">
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <div>
          <label htmlFor="widths" className="mb-1 block text-fine text-soft">
            Widths of some pieces, cut at {format.length(width)}
          </label>
          <input id="widths" className="field num" value={draft.widths} onChange={set("widths")} placeholder={format.system === "us" ? "4; 4 1/16; 4" : "101.5 102 100.8"} autoComplete="off" aria-invalid={fault("widths_mm") ? true : undefined} />
          <Fault text={fault("widths_mm")} />
        </div>
        <div>
          <label htmlFor="thicknesses" className="mb-1 block text-fine text-soft">
            Thicknesses, if measured
          </label>
          <input id="thicknesses" className="field num" value={draft.thicknesses} onChange={set("thicknesses")} placeholder={format.system === "us" ? "1/4" : "6.5 6.4"} autoComplete="off" aria-invalid={fault("thicknesses_mm") ? true : undefined} />
          <Fault text={fault("thicknesses_mm")} />
        </div>
        <div>
          <label htmlFor="minutes" className="mb-1 block text-fine text-soft">
            Minutes in the oven
          </label>
          <input id="minutes" className="field num" value={draft.minutes} onChange={set("minutes")} placeholder="11" autoComplete="off" aria-invalid={fault("baked_min") ? true : undefined} />
          <Fault text={fault("baked_min")} />
        </div>
        <div>
          <p className="mb-1 text-fine text-soft">Edge</p>
          <Choice label="Edge" value={edge} options={EDGES} onChange={(v) => setEdge(v)} />
        </div>
        <div>
          <label htmlFor="notes" className="mb-1 block text-fine text-soft">
            Notes
          </label>
          <textarea id="notes" className="field min-h-24 py-2" value={draft.notes} onChange={set("notes")} maxLength={2000} />
          <Fault text={fault("notes")} />
        </div>
        <Fault text={otherFault(add.error, ["widths_mm", "thicknesses_mm", "baked_min", "notes"])} />
        <button type="submit" className="btn btn-main w-full" disabled={add.isPending}>
          Keep it
        </button>
      </form>
    </Part>
  );
}
