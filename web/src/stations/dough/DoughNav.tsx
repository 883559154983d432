/** The views of the dough station, each with its own address. */
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Recipe" },
  { path: "/mix", name: "Mixing card" },
  { path: "/change", name: "Change" },
  { path: "/size", name: "Batch size", rare: true },
  { path: "/label", name: "Cost and label", rare: true },
  { path: "/versions", name: "Versions", rare: true },
] as const;

export function DoughNav({ jobId }: { jobId: number }) {
  return <SubNav label="Dough views" base={`/jobs/${jobId}/dough`} views={VIEWS} />;
}
