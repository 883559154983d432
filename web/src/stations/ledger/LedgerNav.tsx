/** The views of the ledger. */
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Bakes" },
  { path: "/photo", name: "Measure with a photo" },
  { path: "/evenness", name: "Evenness over time" },
  { path: "/trials", name: "Tried on purpose" },
  { path: "/all", name: "All bakes" },
] as const;

export function LedgerNav({ jobId }: { jobId: number }) {
  return <SubNav label="Views of the ledger" base={`/jobs/${jobId}/ledger`} views={VIEWS} />;
}
