/** The same dough chilled another way, each as a ribbon over time. */
import type { Plan } from "../../api/client";
import { duration } from "../../drawing/time";
import { useFormat } from "../../kit/settings";

type Way = Plan["cold"]["alternatives"][number];

export function Ways({ cold, onChoose }: { cold: Plan["cold"]; onChoose(way: Way): void }) {
  const format = useFormat();
  const ready = cold.alternatives.map((w) => w.ready_after_min ?? 0);
  const past = cold.alternatives.map((w) => w.past_after_min ?? 0);
  const span = Math.max(...ready.map((r) => r * 1.25), Math.min(Math.max(...past), 3 * Math.max(...ready, 1)), 1);
  return (
    <section className="mt-5" aria-labelledby="ways-head">
      <h3 id="ways-head" className="h-part mb-1">
        The same dough, chilled another way
      </h3>
      <ul>
        {cold.alternatives.map((w) => {
          const choosable = w.piece.kind === "disc" || w.piece.kind === "sheet";
          const r = w.ready_after_min;
          const p = w.past_after_min ?? span * 2;
          const share = (m: number) => `${(100 * Math.min(m, span)) / span}%`;
          return (
            <li key={`${w.name} ${w.place}`} className={`grid grid-cols-[1fr_auto] items-center gap-x-3 gap-y-1 rounded-xl border-2 px-3 py-2 sm:grid-cols-[11.5rem_1fr_8.5rem] ${w.chosen ? "border-ink" : "border-transparent"}`}>
              <span>
                <span className="block font-semibold leading-tight">{w.name}</span>
                <span className="text-fine text-soft">
                  {w.place}
                  {w.piece.kind === "ball" ? `, ${format.length(w.piece.diameter_mm)} across` : w.chosen ? ", as planned" : ""}
                </span>
              </span>
              <span className="order-3 col-span-2 sm:order-none sm:col-span-1">
                {r == null ? (
                  <span className="text-fine text-warm">{w.never}</span>
                ) : (
                  <span className="relative block h-8 overflow-hidden rounded-md bg-cold-pale" aria-hidden="true">
                    <Band from="0%" width={share(r)} className="bg-warm-pale text-warm" word={r / span > 0.14 ? "tacky" : ""} />
                    <Band from={share(r)} width={`${(100 * Math.max(0, Math.min(p, span) - Math.min(r, span))) / span}%`} className="bg-butter text-[#46370b]" word={(Math.min(p, span) - r) / span > 0.2 ? "rolls clean" : ""} />
                    <Band from={share(p)} width={`${100 - (100 * Math.min(p, span)) / span}%`} className="text-cold" word={(span - p) / span > 0.25 ? "rest it first" : ""} />
                  </span>
                )}
              </span>
              <span className="text-right">
                <span className="num font-semibold">{r == null ? "never" : duration(r)}</span>
                {choosable && !w.chosen ? (
                  <button type="button" className="btn btn-small ml-2" onClick={() => onChoose(w)} aria-label={`Take ${w.name}, ${w.place}`}>
                    Take
                  </button>
                ) : null}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Band({ from, width, className, word }: { from: string; width: string; className: string; word: string }) {
  return (
    <span className={`absolute inset-y-0 flex items-center overflow-hidden whitespace-nowrap pl-2 text-fine ${className}`} style={{ left: from, width }}>
      {word}
    </span>
  );
}
