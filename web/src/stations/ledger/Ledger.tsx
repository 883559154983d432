/** What came out of the oven, against what was expected. */
import { useRef } from "react";
import { Link } from "react-router";
import { at } from "../../api/base";
import type { BakeRecord, Plan } from "../../api/client";
import { useWorth } from "../../api/ledger";
import { useDeleteRecord, usePutBackRecord, useRecords, useRemovePhoto } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Says } from "../../kit/Says";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFine } from "../../kit/fine";
import { didFact } from "../../kit/said";
import { useFormat } from "../../kit/settings";
import { END_WORDS, LINER_WORDS, TRAY_WORDS } from "../oven/words";
import { BakesTeach, LeaveOut, movedWords } from "./BakesTeach";
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
        <div className="no-print">
          <StationHead
            title={
              records.isPending
                ? "Loading…"
                : records.error
                  ? "Couldn’t load your bakes"
                  : all.length === 0
                    ? "No bakes recorded yet"
                    : all.length === 1
                      ? "1 bake"
                      : `${all.length} bakes`
            }
            sub={`forecast: spread ${number(plan.oven.spread_least_percent, 1)}–${number(plan.oven.spread_most_percent, 1)}%, about ${number(plan.oven.bake_about_min, 0)}\u00a0min`}
          >
            <SaveMenu>
              <button type="button" className="btn btn-small" onClick={() => globalThis.print()}>
                Print a blank record
              </button>
              {all.length > 0 ? <SaveSvg picture={picture} name={`${job.name} bakes`} /> : null}
            </SaveMenu>
          </StationHead>
        </div>
        <Fault text={otherFault(records.error, [])} />
        {records.isPending || records.error ? null : all.length === 0 ? (
          <p className="max-w-xl text-lg text-soft">
            Measure a few cookies from your first tray once they’re cold. Take the width at its widest, and
            the thickness.
          </p>
        ) : (
          <div className="no-print">
            <LastBake record={all[0] as BakeRecord} />
            <SpreadChart picture={picture} records={all} plan={plan} />
            <ul className="mt-4">
              {all.map((r) => (
                <Entry key={r.id} record={r} job={job.id} />
              ))}
            </ul>
          </div>
        )}
        <RecordSheet name={job.name} plan={plan} />
      </Work>
      <TicketBox>
        <WorthMeasuring job={job.id} />
        <NewRecord key={job.id} job={job} plan={plan} />
        <BakesTeach records={all.length} />
      </TicketBox>
    </>
  );
}

const AGAINST = { less: "less than forecast", within: "as forecast", more: "more than forecast" } as const;

/** The last bake against what was expected, at a glance: where it fell in each range. */
function LastBake({ record: r }: { record: BakeRecord }) {
  const lines = [
    {
      name: "Spread",
      from: r.expected_spread_least_percent,
      to: r.expected_spread_most_percent,
      at: r.spread_percent,
      against: r.spread_against,
      unit: "%",
      places: 1,
    },
    ...(r.baked_min == null
      ? []
      : [
          {
            name: "Time",
            from: r.expected_bake_least_min,
            to: r.expected_bake_most_min,
            at: r.baked_min,
            against: r.baked_against ?? "within",
            unit: "\u00a0min",
            places: 1,
          },
        ]),
  ];
  return (
    <section aria-label="Last bake" className="mb-6 grid gap-x-8 gap-y-3 sm:grid-cols-2">
      {lines.map((l) => (
        <Gauge key={l.name} {...l} />
      ))}
    </section>
  );
}

function Gauge({
  name,
  from,
  to,
  at: seen,
  against,
  unit,
  places,
}: {
  name: string;
  from: number;
  to: number;
  at: number;
  against: keyof typeof AGAINST;
  unit: string;
  places: number;
}) {
  const [low, high] = [Math.min(from, seen), Math.max(to, seen)];
  const reach = (high - low) * 0.15 || 1;
  const x = (v: number) => 8 + (384 * (v - low + reach)) / (high - low + 2 * reach);
  const word = AGAINST[against];
  return (
    <div>
      <p className="flex items-baseline justify-between gap-3">
        <span className="text-soft">{name}, last bake</span>
        <span className="num text-2xl font-semibold">
          {number(seen, places, places)}
          {unit}
        </span>
      </p>
      <svg
        viewBox="0 0 400 30"
        className="w-full"
        role="img"
        aria-label={`${name}: ${number(seen, places)}${unit}, forecast ${number(from, places)} to ${number(to, places)}: ${word}`}
      >
        <path d="M8 15H392" className="stroke-rule" strokeWidth="2" />
        <rect
          x={x(from)}
          y="6"
          width={Math.max(3, x(to) - x(from))}
          height="18"
          rx="5"
          className="fill-pale"
        />
        <path d={`M${x(seen)} 2v26`} className="stroke-warm" strokeWidth="4" strokeLinecap="round" />
      </svg>
      <p className="text-fine text-soft">
        <span className="first-letter:uppercase inline-block">{word}</span>, {number(from, places)}–
        {number(to, places)}
        {unit}.
      </p>
    </div>
  );
}

function WorthMeasuring({ job }: { job: number }) {
  const worth = useWorth(job);
  return worth.data ? (
    <Part title="What to measure next">
      <p>
        <Says of={worth.data} />
      </p>
    </Part>
  ) : null;
}

const BLANK = 10;

/** For the clipboard beside the oven: a line for each tray. */
function RecordSheet({ name, plan }: { name: string; plan: Plan }) {
  const format = useFormat();
  const heads = ["Tray", "In", "Out", "Widths", "Thickness", "Edge", "Notes"];
  return (
    <section className="only-print" aria-hidden="true">
      <h2 className="h-station">{name}: bake record</h2>
      <p>
        Cut {format.length(plan.oven.cut_width_mm)} across, {format.length(plan.oven.thickness_mm)} thick.
        Expected about {number(plan.oven.bake_about_min, 0)}&nbsp;min ({number(plan.oven.bake_least_min, 0)}–
        {number(plan.oven.bake_most_min, 0)}), spread {number(plan.oven.spread_least_percent, 1)}–
        {number(plan.oven.spread_most_percent, 1)}%.
      </p>
      <table className="mt-3 w-full table-fixed">
        <colgroup>
          <col className="w-[7%]" />
          <col className="w-[9%]" />
          <col className="w-[9%]" />
          <col className="w-[32%]" />
          <col className="w-[12%]" />
          <col className="w-[11%]" />
          <col />
        </colgroup>
        <thead>
          <tr>
            {heads.map((h) => (
              <th key={h} className="border border-edge p-1 text-left font-semibold">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: BLANK }, (_, i) => (
            <tr key={i}>
              {heads.map((h) => (
                <td key={h} className="h-10 border border-edge p-1">
                  {h === "Tray" ? i + 1 : ""}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Entry({ record: r, job }: { record: BakeRecord; job: number }) {
  const fine = useFine();
  const { mutateAsync: takeAway, error } = useDeleteRecord();
  const { mutateAsync: putBack } = usePutBackRecord();
  const remove = async () => {
    try {
      await takeAway(r.id);
      didFact(`Bake of ${longDay(r.recorded_at)} removed`, () => putBack(r.id));
    } catch {
      // Said below the record.
    }
  };
  return (
    <li className="border-t border-rule py-3">
      <div className="mb-1.5 flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5">
        <h3 className="h-part">
          {longDay(r.recorded_at)}, {clock(r.recorded_at)}
          {r.of_tray ? (
            <Link className="ml-2 font-normal" to={`/bench/${r.of_tray.run_id}`}>
              tray {r.of_tray.tray}
            </Link>
          ) : null}
        </h3>
        <span className="no-print flex gap-1">
          <Link
            className="btn btn-small"
            aria-label={`Why? Bake of ${longDay(r.recorded_at)}`}
            to={`/jobs/${job}/ledger/why/${r.id}`}
          >
            Why?
          </Link>
          {r.complete ? <LeaveOut record={r.id} leftOut={r.left_out} when={longDay(r.recorded_at)} /> : null}
          <button
            type="button"
            className="btn btn-quiet btn-small"
            aria-label={`Remove bake of ${longDay(r.recorded_at)}`}
            onClick={() => void remove()}
          >
            Remove
          </button>
        </span>
      </div>
      <p>
        <strong>Spread {number(r.spread_percent, 1, 1)}%</strong>, {AGAINST[r.spread_against]} (
        {number(r.expected_spread_least_percent, 1)}–{number(r.expected_spread_most_percent, 1)}%).{" "}
        {fine.text(r.mean_width_mm)} wide on average, {fine.text(r.width_range_mm)} from narrowest to widest
        {r.mean_thickness_mm == null ? "" : `; ${fine.text(r.mean_thickness_mm)} thick`}.
      </p>
      <p className="text-soft">
        {r.baked_min == null
          ? ""
          : `${number(r.baked_min, 1)}\u00a0min in the oven (forecast ${number(r.expected_bake_least_min, 0)}–${number(r.expected_bake_most_min, 0)}). `}
        Edge: {EDGES.find((e) => e.value === r.edge_colour)?.label.toLowerCase()}.
      </p>
      {r.left_out ? (
        <p className="text-soft">Left out: the forecast doesn’t use it.</p>
      ) : r.moved ? (
        <p className="font-semibold">{movedWords(r.moved)}</p>
      ) : null}
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
      <a href={href} target="_blank" rel="noreferrer">
        <img
          src={href}
          alt={`Cookies of ${day} on paper`}
          loading="lazy"
          className="h-28 rounded-md border border-edge"
        />
      </a>
      <button type="button" className="btn btn-quiet btn-small" onClick={() => remove.mutate(record)}>
        Remove photo
      </button>
      <Fault text={otherFault(remove.error, [])} />
    </div>
  );
}

/** The conditions it was baked in; without them it teaches nothing, and it says so. */
function BakedWith({ record: r }: { record: BakeRecord }) {
  const format = useFormat();
  const conditions = r.conditions;
  if (!r.complete || !conditions)
    return (
      <p className="text-fine text-soft">
        Settings weren’t saved with this bake, so the forecast can’t use it.
      </p>
    );
  const words = [
    conditions.oven_c == null
      ? null
      : `${format.oven(conditions.oven_c)}${conditions.oven_fan ? " convection" : ""}`,
    conditions.tray_kind == null ? null : TRAY_WORDS[conditions.tray_kind],
    conditions.liner == null
      ? null
      : conditions.liner === "bare"
        ? "bare tray"
        : LINER_WORDS[conditions.liner],
    conditions.bake_end == null ? null : `until ${END_WORDS[conditions.bake_end]}`,
    conditions.start_c == null ? null : `cookies in at ${format.temperature(conditions.start_c, 0)}`,
  ].filter((w) => w !== null);
  return (
    <p className="text-fine text-soft">{`${words.join(" · ")}${r.formula_version == null ? "" : ` · recipe version ${r.formula_version}`}${r.kitchen ? ` · ${r.kitchen}` : ""}`}</p>
  );
}
