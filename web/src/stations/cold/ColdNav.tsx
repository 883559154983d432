/** The views of the cold station, each with its own address. */
import { Outlet } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { useLive } from "../../app/live";
import { SubNav } from "../../kit/SubNav";

const VIEWS = [
  { path: "", name: "When it’s ready" },
  { path: "/ways", name: "Other ways to chill" },
  { path: "/now", name: "Chilling now" },
  { path: "/trouble", name: "If it goes wrong", rare: true },
  { path: "/learnt", name: "What we’ve learned", rare: true },
] as const;

export function ColdStation() {
  return <Outlet context={useJobContext()} />;
}

export function ColdNav({ jobId }: { jobId: number }) {
  const here = useLive().pieces?.filter((p) => p.job_id === jobId).length ?? 0;
  const mark =
    here > 0 ? (
      <span className="num ml-1.5 rounded-full bg-butter px-2 text-[0.8125rem] text-[#14302c]">{here}</span>
    ) : null;
  return (
    <SubNav
      label="Cold views"
      base={`/jobs/${jobId}/cold`}
      views={VIEWS.map((v) => (v.path === "/now" ? { ...v, mark } : v))}
    />
  );
}
