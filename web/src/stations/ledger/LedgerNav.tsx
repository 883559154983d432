/** The views of the ledger. */
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "Bakes" },
  { path: "/photo", name: "Measure with a photo" },
  { path: "/evenness", name: "How even they are" },
  { path: "/trials", name: "Tests" },
  { path: "/all", name: "All bakes" },
] as const;

export function LedgerNav({ jobId }: { jobId: number }) {
  return <SubNav label="Ledger views" base={`/jobs/${jobId}/ledger`} views={VIEWS} />;
}
