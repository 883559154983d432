/** Why a chill lasts as long as it does, as one bar: until it is ready, what is added to be sure, and how long it stays good. */
import type { Plan } from "../../api/client";
import { duration } from "../../drawing/time";

export function ChillBar({ told }: { told: NonNullable<Plan["cold"]["told"]> }) {
  const parts = [
    { name: "to chill", min: told.ready_min, tone: "bg-ice" },
    { name: "to be sure", min: told.latest_min - told.ready_min, tone: "bg-cold" },
    { name: "good", min: (told.past_min ?? told.latest_min) - told.latest_min, tone: "bg-butter" },
  ].filter((p) => p.min > 0);
  return (
    <div className="mb-3">
      <div className="flex h-3 gap-px overflow-hidden rounded-full" aria-hidden="true">
        {parts.map((p) => (
          <span key={p.name} className={p.tone} style={{ flexGrow: p.min, flexBasis: "0.375rem" }} />
        ))}
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-4 text-fine" aria-label="How long it chills">
        {parts.map((p) => (
          <li key={p.name} className="flex items-center gap-1.5">
            <span className={`size-2.5 rounded-full ${p.tone}`} aria-hidden="true" />
            <span className="num">{duration(p.min)}</span> <span className="text-soft">{p.name}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
