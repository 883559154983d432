/** The lots of a job, above its stations: which one is worked on, and one more. */
import { Link, useLocation } from "react-router";
import type { Job } from "../api/client";
import { useFamily } from "./lots";

export function LotTabs({ job }: { job: Job }) {
  const family = useFamily(job);
  const { pathname } = useLocation();
  if (family.length < 2) return null;
  // The same station of another lot, without the view within it: not every lot has them all.
  const station = pathname.split("/")[3] ?? "order";
  return (
    <nav
      aria-label="Items in this job"
      className="no-print -mb-1 flex flex-wrap items-center gap-x-1 gap-y-1 pt-1"
    >
      <span className="mr-1 text-fine text-soft">Items</span>
      {family.map((lot) => (
        <Link
          key={lot.id}
          to={`/jobs/${lot.id}/${station}`}
          aria-current={lot.id === job.id ? "page" : undefined}
          className={`tab ${lot.id === job.id ? "tab-on" : ""}`}
        >
          {lot.name} <span className="num ml-1 opacity-75">{lot.pieces}</span>
        </Link>
      ))}
    </nav>
  );
}
