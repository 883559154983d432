/** How the pieces are made: cut, sliced or portioned; the sizes of logs and portions are changed where they are drawn. */
import { Link } from "react-router";
import type { Job } from "../../api/client";
import { useChangeJob } from "../../api/queries";
import type { Making } from "../../app/lots";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";

type Way = "cut" | "sliced" | "portioned";

/** Sizes that are left out are the usual ones, which the server fills in. */
const START: Record<Way, Making> = {
  cut: { kind: "cut" },
  sliced: { kind: "sliced", form: "round" },
  portioned: { kind: "ball" },
};

export const wayOf = (making: Making | undefined): Way =>
  making === undefined || making.kind === "cut" ? "cut" : making.kind === "sliced" ? "sliced" : "portioned";

export function MadeHow({ job }: { job: Job }) {
  const change = useChangeJob(job.id);
  const way = wayOf(job.making);
  return (
    <div>
      <span className="mb-1 block text-fine text-soft">How they’re made</span>
      <Choice
        label="How they’re made"
        value={way}
        options={[
          { value: "cut", label: "Cut out" },
          { value: "sliced", label: "Sliced" },
          { value: "portioned", label: "Portioned" },
        ]}
        onChange={(next) => change.mutate({ making: START[next] })}
      />
      {way === "cut" ? null : (
        <p className="mt-1 text-fine text-soft">
          <Link to={`/jobs/${job.id}/shape`}>
            {way === "sliced" ? "Set the log size at Shape" : "Set the portion size at Shape"}
          </Link>
        </p>
      )}
      <Fault text={otherFault(change.error, [])} />
    </div>
  );
}
