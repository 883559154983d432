/** What came out of the oven, against what was expected. */
import { useRef } from "react";
import { at } from "../../api/base";
import type { BakeRecord } from "../../api/client";
import { useDeleteRecord, usePutBackRecord, useRecords, useRemovePhoto } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { SaveSvg } from "../../kit/SaveSvg";
import { StationHead, TicketBox, Work } from "../../kit/Ticket";
import { didFact } from "../../kit/said";
import { useFormat } from "../../kit/settings";
import { END_WORDS, LINER_WORDS, TRAY_WORDS } from "../oven/words";
import { BakesTeach } from "./BakesTeach";
import { LedgerNav } from "./LedgerNav";
import { EDGES, NewRecord } from "./NewRecord";
import { SpreadChart } from "./SpreadChart";

export function Ledger() {
  const { job, plan, dim } = useJobContext();
  const records = useRecords(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const all = records.data ?? [];
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        <StationHead title={records.isPending ? "Reading the ledger…" : records.error ? "The ledger is not to be had" : all.length === 0 ? "Nothing baked yet" : all.length === 1 ? "One bake" : `${all.length} bakes`} sub={`expected: ${number(plan.oven.spread_least_percent, 1)}–${number(plan.oven.spread_most_percent, 1)}\u00a0% across, ${number(plan.oven.bake_least_min, 0)}–${number(plan.oven.bake_most_min, 0)}\u00a0min`}>
          {all.length > 0 ? <SaveSvg picture={picture} name={`${job.name} bakes`} /> : null}
        </StationHead>
        <Fault text={otherFault(records.error, [])} />
        {records.isPending || records.error ? null : all.length === 0 ? (
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
        <NewRecord key={job.id} job={job} plan={plan} />
        <BakesTeach records={all.length} />
      </TicketBox>
    </>
  );
}

const AGAINST = { less: "less than expected", within: "as expected", more: "more than expected" } as const;

function Entry({ record: r }: { record: BakeRecord }) {
  const format = useFormat();
  const { mutateAsync: takeAway, error } = useDeleteRecord();
  const { mutateAsync: putBack } = usePutBackRecord();
  const remove = async () => {
    try {
      await takeAway(r.id);
      didFact(`The bake of ${longDay(r.recorded_at)} was taken away`, () => putBack(r.id));
    } catch {
      // Said below the record.
    }
  };
  return (
    <li className="border-t border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="h-part">
          {longDay(r.recorded_at)}, {clock(r.recorded_at)}
        </h3>
        <button type="button" className="btn btn-quiet btn-small" aria-label={`Remove the bake of ${longDay(r.recorded_at)}`} onClick={() => void remove()}>
          Remove
        </button>
      </div>
      <p>
        <strong>Spread {number(r.spread_percent, 1, 1)}&nbsp;%</strong>, {AGAINST[r.spread_against]} ({number(r.expected_spread_least_percent, 1)}–{number(r.expected_spread_most_percent, 1)}&nbsp;%). Across{" "}
        {format.length(r.mean_width_mm)} on average, {format.length(r.width_range_mm)} between widest and narrowest
        {r.mean_thickness_mm == null ? "" : `; ${format.length(r.mean_thickness_mm)} thick`}
        {r.spread_factor == null ? "" : `, spread factor ${number(r.spread_factor, 1, 1)}`}.
      </p>
      <p className="text-soft">
        {r.baked_min == null ? "" : `${number(r.baked_min, 1)}\u00a0min in the oven, expected ${number(r.expected_bake_least_min, 0)}–${number(r.expected_bake_most_min, 0)}. `}
        Edge {EDGES.find((e) => e.value === r.edge_colour)?.label.toLowerCase()}.
      </p>
      <BakedWith record={r} />
      {r.notes ? <p className="mt-1">{r.notes}</p> : null}
      {r.has_photo ? <Photo record={r.id} day={longDay(r.recorded_at)} /> : null}
      <Fault text={otherFault(error, [])} />
    </li>
  );
}

/** The photo that it was measured by, as large as a stamp. */
function Photo({ record, day }: { record: number; day: string }) {
  const remove = useRemovePhoto();
  const href = at(`/api/records/${record}/photo.jpg`);
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      <a href={href} target="_blank" rel="noreferrer"><img src={href} alt={`The pieces of ${day} on paper`} loading="lazy" className="h-28 rounded-md border border-edge" /></a>
      <button type="button" className="btn btn-quiet btn-small" onClick={() => remove.mutate(record)}>Remove the photo</button>
      <Fault text={otherFault(remove.error, [])} />
    </div>
  );
}

/** The conditions it was baked in; without them it teaches nothing, and it says so. */
function BakedWith({ record: r }: { record: BakeRecord }) {
  const format = useFormat();
  const conditions = r.conditions;
  if (!r.complete || !conditions) return <p className="text-fine text-soft">What it was baked with was not kept yet at the time, so nothing is learnt from it.</p>;
  const words = [
    conditions.oven_c == null ? null : `${format.oven(conditions.oven_c)}${conditions.oven_fan ? " with the fan" : ""}`,
    conditions.tray_kind == null ? null : `on ${TRAY_WORDS[conditions.tray_kind]}`,
    conditions.liner == null ? null : conditions.liner === "bare" ? "nothing under the pieces" : `${LINER_WORDS[conditions.liner]} under the pieces`,
    conditions.bake_end == null ? null : `until ${END_WORDS[conditions.bake_end]}`,
    conditions.start_c == null ? null : `pieces at ${format.temperature(conditions.start_c, 0)}`,
  ].filter((w) => w !== null);
  return <p className="text-fine text-soft">{`Baked at ${words.join(", ")}${r.formula_version == null ? "" : `; version ${r.formula_version} of the dough`}${r.kitchen ? `, at ${r.kitchen}` : ""}.`}</p>;
}
