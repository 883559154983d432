/** A tray of a trial from above: which way lies where. */
import type { Trial } from "../../api/ledger";

export const LETTERS = ["A", "B", "C", "D"] as const;
const TONES = ["fill-raised", "fill-butter", "fill-ice", "fill-blush"] as const;

export function TrialTray({ trial, tray }: { trial: Trial; tray: number }) {
  const [w = 1, h = 1] = trial.tray_mm;
  const laid = trial.trays[tray] ?? [];
  const near = trial.places_mm.flatMap(([x = 0, y = 0], i) =>
    trial.places_mm.slice(0, i).map(([u = 0, v = 0]) => Math.hypot(x - u, y - v)),
  );
  const r = Math.min(34, 0.44 * Math.min(200, ...near));
  return (
    // Lying down, as it is carried to the oven.
    <svg
      viewBox={`-4 -4 ${h + 8} ${w + 8}`}
      className="w-full max-w-lg"
      role="img"
      aria-label={`Tray ${tray + 1}: ${trial.ways.map((name, way) => `${laid.filter((l) => l === way).length} of ${LETTERS[way]}, ${name}`).join("; ")}`}
    >
      <rect width={h} height={w} rx="10" className="fill-stone stroke-edge" strokeWidth="2" />
      {trial.places_mm.map(([x = 0, y = 0], i) => {
        const way = laid[i];
        return (
          <g key={i} opacity={way == null ? 0.45 : 1}>
            <circle
              cx={y}
              cy={x}
              r={r}
              className={`${way == null ? "fill-none" : TONES[way]} stroke-ink`}
              strokeWidth={way == null ? 1 : 1.8}
              strokeDasharray={way == null ? "5 5" : undefined}
            />
            {way == null ? null : (
              <text
                x={y}
                y={x + 0.36 * r}
                textAnchor="middle"
                fontSize={1.05 * r}
                fontWeight="700"
                className="fill-ink"
              >
                {LETTERS[way]}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
