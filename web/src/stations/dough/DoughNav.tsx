/** The views of the dough station, each with its own address. */
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "What it is" },
  { path: "/mix", name: "Mix it" },
  { path: "/change", name: "Change it" },
  { path: "/size", name: "Size it", rare: true },
  { path: "/label", name: "Cost and label", rare: true },
  { path: "/versions", name: "Versions", rare: true },
] as const;

export function DoughNav({ jobId }: { jobId: number }) {
  return <SubNav label="Views of the dough" base={`/jobs/${jobId}/dough`} views={VIEWS} />;
}
