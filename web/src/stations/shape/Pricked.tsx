/** Whether pieces are pricked with a fork before the bake. */
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";

export function Pricked() {
  const { job } = useJobContext();
  const change = useChangeJob(job.id);
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input type="checkbox" className="h-5 w-5 accent-[var(--c-spruce)]" checked={job.pricked ?? false} onChange={(e) => change.mutate({ pricked: e.target.checked })} />
      Pricked with a fork before the bake
    </label>
  );
}
