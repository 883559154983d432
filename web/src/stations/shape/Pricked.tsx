/** Whether pieces are pricked with a fork before the bake. */
import { useState } from "react";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";

export function Pricked() {
  const { job } = useJobContext();
  const change = useChangeJob(job.id);
  const [asked, setAsked] = useState<boolean>();
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="h-5 w-5 accent-[var(--c-spruce)]"
        checked={asked ?? job.pricked ?? false}
        onChange={(e) => {
          setAsked(e.target.checked);
          change.mutate({ pricked: e.target.checked }, { onSettled: () => setAsked(undefined) });
        }}
      />
      Prick with a fork before baking
    </label>
  );
}
