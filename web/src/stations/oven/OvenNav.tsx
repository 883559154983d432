/** The views of the oven station. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Forecast" },
  { path: "/levers", name: "What would change it" },
  { path: "/tray", name: "On the tray" },
  { path: "/sheet", name: "Bake sheet" },
  { path: "/finish", name: "Finish and keep" },
] as const;

export function OvenStation() {
  return <Outlet context={useJobContext()} />;
}

export function OvenNav({ jobId }: { jobId: number }) {
  return <SubNav label="Views of the oven" base={`/jobs/${jobId}/oven`} views={VIEWS} />;
}
