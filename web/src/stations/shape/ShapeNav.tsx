/** The views of the shape station, each with its own address; a lot that is not cut has no sheets. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { cutWith, useFamily } from "../../app/lots";
import { SubNav } from "../../kit/SubNav";

const NEST = { path: "/nest", name: "Tighter layout" };
const MIXED = { path: "/mixed", name: "Shared sheets" };
const TRAYS = { path: "/trays", name: "Trays" };
/** Sums for doughs that this job does not have. */
const OTHERS = [
  { path: "/log", name: "Log", rare: true },
  { path: "/pattern", name: "Patterned log", rare: true },
  { path: "/portion", name: "Portions", rare: true },
] as const;

export function ShapeStation() {
  return <Outlet context={useJobContext()} />;
}

export function ShapeNav({ jobId }: { jobId: number }) {
  const { job, plan } = useJobContext();
  const family = useFamily(job);
  const kind = job.making?.kind ?? "cut";
  const views =
    kind === "cut"
      ? [
          { path: "", name: "Sheet and cutter" },
          NEST,
          ...(cutWith(job, family).length > 1 ? [MIXED] : []),
          ...(plan.cut_in_place ? [] : [TRAYS]),
          { path: "/even", name: "Evenness", rare: true },
          { path: "/marbled", name: "Marbled", rare: true },
          ...OTHERS,
        ]
      : [{ path: "", name: kind === "sliced" ? "This log" : "This portion" }, TRAYS, ...OTHERS];
  return <SubNav label="Shape views" base={`/jobs/${jobId}/shape`} views={views} />;
}
