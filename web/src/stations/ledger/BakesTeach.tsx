/** What the recorded bakes have taught of the oven and of this dough, by themselves; each can be left out, and put back. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, settled, type Schemas } from "../../api/client";
import { useLeaveRecordOut } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Says } from "../../kit/Says";
import { Part, Row, Rows } from "../../kit/Ticket";

type Band = Schemas["BandView"];
type RestsOn = Schemas["RestsOnView"];

export function BakesTeach({ records }: { records: number }) {
  const { job } = useJobContext();
  const asked = useQuery({
    queryKey: ["bakes-teach", job.id, records],
    queryFn: () => settled(api.GET("/api/jobs/{id}/bakes-teach", { params: { path: { id: job.id } } })),
    enabled: records > 0,
    retry: false,
  });
  const found = asked.data;
  if (records === 0) return null;
  const { taught } = found ?? {};
  return (
    <Part title="What your bakes taught">
      <Fault text={otherFault(asked.error, [])} />
      {asked.isPending ? (
        <p className="text-soft" role="status">
          Reading your bakes…
        </p>
      ) : null}
      {taught && found ? (
        <>
          <div className="say space-y-1">
            {taught.says.map((l) => (
              <p key={l.text}>
                <Says of={l} />
              </p>
            ))}
          </div>
          <div className="mt-3">
            <Rows>
              <Row name="From">{`${bakes(taught.oven_records)}, ${taught.records} of this dough`}</Row>
              <Row name="Forecast alone">{bandWords(found.before)}</Row>
              {found.after ? <Row name="With your bakes">{bandWords(found.after)}</Row> : null}
            </Rows>
          </div>
          {found.says.map((l) => (
            <p key={l.text} className="mt-2 text-fine text-soft">
              <Says of={l} />
            </p>
          ))}
        </>
      ) : found && found.rests_on.length === 0 ? (
        <p className="text-fine text-soft">
          {found.incomplete.length > 0
            ? "These records don’t say how they were baked. They teach nothing."
            : "No bake is close enough to compare."}
        </p>
      ) : null}
      {found && found.rests_on.length > 0 ? (
        <details className="mt-2 text-fine" open={found.rests_on.some((r) => r.left_out)}>
          <summary className="cursor-pointer py-1 text-soft">Which bakes</summary>
          <ul>
            {found.rests_on.map((r) => (
              <One key={r.record_id} bake={r} />
            ))}
          </ul>
        </details>
      ) : null}
      {found && found.beyond.length > 0 ? (
        <p className="mt-2 text-fine text-soft">
          {bakes(found.beyond.length)} can’t teach: the forecast doesn’t reach that far.
        </p>
      ) : null}
    </Part>
  );
}

const bakes = (n: number): string => (n === 1 ? "1 bake" : `${n} bakes`);

/** A bake, and one press that leaves it out or puts it back. */
function One({ bake: r }: { bake: RestsOn }) {
  const when = `${longDay(r.recorded_at)}, ${clock(r.recorded_at)}`;
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-3 py-0.5">
      <span>
        <Link to={`/jobs/${r.job_id}/ledger`}>{when}</Link>
        {r.left_out
          ? ", left out"
          : `${r.own ? "" : ", another dough: teaches the oven only"}${r.counts_little ? ", far from the others, so it counts less" : ""}`}
      </span>
      <LeaveOut record={r.record_id} leftOut={r.left_out} when={when} />
    </li>
  );
}

export function LeaveOut({ record, leftOut, when }: { record: number; leftOut: boolean; when: string }) {
  const leave = useLeaveRecordOut();
  const word = leftOut ? "Put back" : "Leave out";
  return (
    <>
      <button
        type="button"
        className="btn btn-quiet btn-small"
        disabled={leave.isPending}
        aria-label={`${word} the bake of ${when}`}
        onClick={() => leave.mutate({ id: record, left_out: !leftOut })}
      >
        {word}
      </button>
      <Fault text={otherFault(leave.error, [])} />
    </>
  );
}

const whole = (minutes: number): string => number(minutes, 0);
const range = (low: number, high: number): string => `${whole(low)}–${whole(high)}`;

/** What a bake moved: `10 to 11 min; range 8–14 to 9–13`. */
export function movedWords(m: Schemas["MovedView"]): string {
  const [was, is] = [whole(m.about_before_min), whole(m.about_min)];
  const [before, after] = [range(m.least_before_min, m.most_before_min), range(m.least_min, m.most_min)];
  if (was === is && before === after) return `Moved nothing: about ${is}\u00a0min, range ${after}.`;
  return `Moved your forecast: ${was === is ? `still about ${is}` : `${was} to ${is}`}\u00a0min; range ${before === after ? after : `${before} to ${after}`}.`;
}

const bandWords = (b: Band): string =>
  `about ${number(b.bake_about_min, 0)}\u00a0min (${number(b.bake_least_min, 0)}–${number(b.bake_most_min, 0)}), spread ${number(b.spread_least_percent, 1)}–${number(b.spread_most_percent, 1)}%`;
