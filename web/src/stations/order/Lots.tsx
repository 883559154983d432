/** The lots of a job: what else is made for the same time, and what all of them come to. */
import { Link, useNavigate } from "react-router";
import type { Job } from "../../api/client";
import { useAddLot, useChangeJob } from "../../api/queries";
import { leadOf, useFamily, useTogether } from "../../app/lots";
import { dayClock } from "../../drawing/time";
import { Fault, otherFault } from "../../kit/Fault";
import { Part, Row, Rows } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";

export function Lots({ job }: { job: Job }) {
  const format = useFormat();
  const family = useFamily(job);
  const together = useTogether(job, family.length);
  const add = useAddLot(leadOf(job));
  const change = useChangeJob(job.id);
  const navigate = useNavigate();
  const all = together.data;
  // Dough that one lot mixes for another is weighed there.
  const dough = all?.lots.filter((l) => l.mixed_by == null).reduce((sum, l) => sum + l.plan.dough.dough_g, 0);
  return (
    <Part title={"Items in this job"}>
      {family.length > 1 ? (
        <ol className="mb-3">
          {family.map((lot) => {
            const planned = all?.lots.find((l) => l.job_id === lot.id);
            return (
              <li key={lot.id} className="row items-baseline">
                <span className="min-w-0">
                  {lot.id === job.id ? (
                    <strong>{lot.name}</strong>
                  ) : (
                    <Link to={`/jobs/${lot.id}/order`}>{lot.name}</Link>
                  )}
                  {planned ? (
                    <span className="block text-fine text-soft">{`${planned.plan.cutter.name}, ${planned.formula}${planned.mixed_by == null ? "" : ", mixed with the first"}`}</span>
                  ) : null}
                </span>
                <span className="num">{lot.pieces}</span>
              </li>
            );
          })}
        </ol>
      ) : (
        <p className="mb-3 text-fine text-soft">Another shape or dough for the same time? Add an item.</p>
      )}
      {all && dough !== undefined ? (
        <Rows>
          <Row name="Start">{dayClock(all.clock.start_at)}</Row>
          <Row name="Total dough">{format.bigMass(dough)}</Row>
          <Row name="Total trays">{String(all.trays)}</Row>
        </Rows>
      ) : null}
      <Fault
        text={otherFault(together.error, []) ?? otherFault(add.error, []) ?? otherFault(change.error, [])}
      />
      <div className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-small"
          disabled={add.isPending}
          onClick={() =>
            add.mutate(
              { name: `Item ${family.length + 1}`, pieces: 12 },
              { onSuccess: (lot) => void navigate(`/jobs/${lot.id}/order`) },
            )
          }
        >
          Add an item
        </button>
        {job.lot_of == null ? null : (
          <button
            type="button"
            className="btn btn-small"
            onClick={() => change.mutate({ lot_of: null, dough_with: null })}
          >
            Make it a separate job
          </button>
        )}
      </div>
    </Part>
  );
}
