/** The views of the oven station. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Forecast" },
  { path: "/levers", name: "What changes it" },
  { path: "/tray", name: "On the tray" },
  { path: "/sheet", name: "Oven card" },
  { path: "/finish", name: "Finish and store" },
] as const;

export function OvenStation() {
  return <Outlet context={useJobContext()} />;
}

export function OvenNav({ jobId }: { jobId: number }) {
  return <SubNav label="Oven views" base={`/jobs/${jobId}/oven`} views={VIEWS} />;
}
