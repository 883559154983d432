/** The views of the shape station, each with its own address. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Sheet and cutter" },
  { path: "/nest", name: "Nest" },
  { path: "/even", name: "Evenness" },
  { path: "/log", name: "Log or bar" },
  { path: "/pattern", name: "Patterned bar" },
  { path: "/portion", name: "Portions" },
  { path: "/trays", name: "Trays" },
] as const;

export function ShapeStation() {
  return <Outlet context={useJobContext()} />;
}

export function ShapeNav({ jobId }: { jobId: number }) {
  return <SubNav label="Views of the shape" base={`/jobs/${jobId}/shape`} views={VIEWS} />;
}
