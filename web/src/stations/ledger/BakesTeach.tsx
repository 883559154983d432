/** What the recorded bakes teach of the oven and of this dough: shown before and after, taken over or forgotten. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, settled, type Schemas } from "../../api/client";
import { useAction } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Says } from "../../kit/Says";
import { Part, Row, Rows } from "../../kit/Ticket";

type Band = Schemas["BandView"];

const at = (id: number) => ({ params: { path: { id } } });

export function BakesTeach({ records }: { records: number }) {
  const { job } = useJobContext();
  const asked = useQuery({
    queryKey: ["bakes-teach", job.id, records],
    queryFn: () => settled(api.GET("/api/jobs/{id}/bakes-teach", at(job.id))),
    enabled: records > 0,
    retry: false,
  });
  const take = useAction(() => settled(api.POST("/api/jobs/{id}/bakes-teach", at(job.id))));
  const forget = useAction(() => settled(api.DELETE("/api/jobs/{id}/bakes-teach", at(job.id))));
  const found = asked.data;
  if (records === 0 && !found?.taken) return null;
  return (
    <Part title="What your bakes teach">
      <Fault text={otherFault(asked.error, []) ?? otherFault(take.error, []) ?? otherFault(forget.error, [])} />
      {asked.isPending ? <p className="text-soft" role="status">Reading the records of this kitchen…</p> : null}
      {found?.would ? (
        <>
          <div className="say space-y-1">{found.would.says.map((l) => <p key={l.text}><Says of={l} /></p>)}</div>
          <div className="mt-3">
            <Rows>
              <Row name="Bakes it rests on">{`${found.would.oven_records} of ${found.records}, ${found.would.records} of this dough`}</Row>
              <Row name="Without them">{bandWords(found.before)}</Row>
              {found.after ? <Row name="With them">{bandWords(found.after)}</Row> : null}
            </Rows>
          </div>
          <details className="mt-2 text-fine">
            <summary className="cursor-pointer py-1 text-soft">Those bakes</summary>
            <ul>
              {found.rests_on.map((r) => (
                <li key={r.record_id} className="py-0.5"><Link to={`/jobs/${r.job_id}/ledger`}>{longDay(r.recorded_at)}, {clock(r.recorded_at)}</Link>{r.own ? "" : ", another dough: for the oven"}{r.counts_little ? "; counts for little" : ""}</li>
              ))}
            </ul>
          </details>
          {found.says.map((l) => <p key={l.text} className="mt-2 text-fine text-soft"><Says of={l} /></p>)}
          {found.odd.length > 0 ? <p className="mt-2 text-fine text-soft">{found.odd.length === 1 ? "One bake lies far from the others and counts" : `${found.odd.length} bakes lie far from the others and count`} for little.</p> : null}
          {found.incomplete.length > 0 ? <p className="mt-2 text-fine text-soft">{found.incomplete.length === 1 ? "One record does" : `${found.incomplete.length} records do`} not say what it was baked with, and {found.incomplete.length === 1 ? "teaches" : "teach"} nothing.</p> : null}
          {found.beyond.length > 0 ? <p className="mt-2 text-fine text-soft">{found.beyond.length} lie beyond what the forecast knows.</p> : null}
        </>
      ) : found && !asked.isPending ? (
        <p className="text-fine text-soft">{found.incomplete.length > 0 ? "The records here do not say what they were baked with: nothing is learnt from them." : "No bake close enough to compare."}</p>
      ) : null}
      {found?.taken ? (
        <details className="mt-3 text-fine text-soft">
          <summary className="cursor-pointer py-1">The forecast has learnt</summary>
          {found.taken.says.map((l) => <p key={l.text} className="mt-1"><Says of={l} /></p>)}
        </details>
      ) : null}
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" disabled={!found?.would || take.isPending} onClick={() => take.mutate(undefined)}>
          Let the forecast learn it
        </button>
        {found?.taken ? (
          <button type="button" className="btn" disabled={forget.isPending} onClick={() => forget.mutate(undefined)}>
            Forget it
          </button>
        ) : null}
      </div>
    </Part>
  );
}

const bandWords = (b: Band): string => `${number(b.bake_least_min, 0)}–${number(b.bake_most_min, 0)}\u00a0min, ${number(b.spread_least_percent, 1)}–${number(b.spread_most_percent, 1)}\u00a0%`;
