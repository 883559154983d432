/** The views of the shape station, each with its own address; a lot that is not cut has no sheets. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { cutWith, useFamily } from "../../app/lots";
import { SubNav } from "../../kit/SubNav";

const NEST = { path: "/nest", name: "Tighter layout" };
const MIXED = { path: "/mixed", name: "Several lots" };
const OTHERS = [
  { path: "/log", name: "Log or bar" },
  { path: "/pattern", name: "Patterned bar" },
  { path: "/portion", name: "Portions" },
  { path: "/trays", name: "Trays" },
] as const;

export function ShapeStation() {
  return <Outlet context={useJobContext()} />;
}

export function ShapeNav({ jobId }: { jobId: number }) {
  const { job } = useJobContext();
  const family = useFamily(job);
  const kind = job.making?.kind ?? "cut";
  const views =
    kind === "cut"
      ? [{ path: "", name: "Sheet and cutter" }, NEST, ...(cutWith(job, family).length > 1 ? [MIXED] : []), { path: "/even", name: "Evenness" }, ...OTHERS]
      : [{ path: "", name: kind === "sliced" ? "This log" : "This portion" }, ...OTHERS];
  return <SubNav label="Views of the shape" base={`/jobs/${jobId}/shape`} views={views} />;
}
