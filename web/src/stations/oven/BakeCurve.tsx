/** The bake over its time: the middle's temperature, the spread, and when what happens. */
import type { Schemas } from "../../api/client";
import { curvePath } from "../../drawing/curve";
import { number } from "../../drawing/units";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

const [LEFT, TOP, HIGH] = [46, 12, 150];

export function BakeCurve({ forecast, oven }: { forecast: Schemas["BakeView"]; oven: Schemas["OvenView"] }) {
  const {
    bake_least_min: least_min,
    bake_most_min: most_min,
    practice_bake_least_min: soon,
    practice_bake_most_min: late,
  } = oven;
  const format = useFormat();
  const width = usePictureWidth();
  const last = Math.max(most_min * 1.06, forecast.bake_min * 1.2, late * 1.04);
  const curve = forecast.curve.filter((p) => p.after_min >= 0 && p.after_min <= last);
  const right = width - 52;
  const x = (min: number) => LEFT + (min / last) * (right - LEFT);
  const hottest = 160;
  const warm = (c: number) => TOP + HIGH - (Math.max(0, c) / hottest) * HIGH;
  const widest = Math.max(5, ...curve.map((p) => p.spread_percent)) * 1.15;
  const wide = (s: number) => TOP + HIGH - (Math.max(0, s) / widest) * HIGH;
  const marks = [
    { at: forecast.fat_after_min, word: "starts to spread" },
    { at: forecast.set_after_min, word: "set" },
    { at: forecast.dull_after_min, word: "loses its shine" },
  ]
    .filter((m): m is { at: number; word: string } => m.at != null && m.at < last)
    .toSorted((a, b) => a.at - b.at);
  const step = last > 16 ? 5 : 2;
  // The two names keep apart where their lines end near each other.
  const [a, b] = [warm(curve.at(-1)?.core_c ?? 0), wide(curve.at(-1)?.spread_percent ?? 0)];
  const ends: readonly [number, number] =
    Math.abs(a - b) >= 15
      ? [a, b]
      : a <= b
        ? [(a + b) / 2 - 8, (a + b) / 2 + 8]
        : [(a + b) / 2 + 8, (a + b) / 2 - 8];
  return (
    <svg
      viewBox={`0 0 ${width} ${TOP + HIGH + 78}`}
      className="w-full"
      role="img"
      aria-labelledby="curve-title"
    >
      <title id="curve-title">{`Over ${number(last, 0)} minutes: ${marks.map((m) => `${m.word} after ${number(m.at, 1)}`).join(", ")}; done after ${number(forecast.bake_min, 1)}`}</title>
      <rect
        x={x(least_min)}
        y={TOP}
        width={x(Math.min(most_min, last)) - x(least_min)}
        height={HIGH}
        className="fill-pale"
      />
      {Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step).map((m) => (
        <g key={m}>
          <path d={`M${x(m)} ${TOP}V${TOP + HIGH}`} className="stroke-rule" strokeWidth="0.8" />
          {x(m) > right - 34 ? null : (
            <text x={x(m)} y={TOP + HIGH + 20} textAnchor="middle" fontSize="14" className="num soft">
              {m}
            </text>
          )}
        </g>
      ))}
      <text x={right} y={TOP + HIGH + 20} textAnchor="end" fontSize="14" className="soft">
        min
      </text>
      <path
        d={`M${x(soon)} ${TOP + 8}V${TOP}H${x(late)}V${TOP + 8}`}
        fill="none"
        className="stroke-spruce"
        strokeWidth="2"
      />
      <text x={x(late) - 4} y={TOP + 16} textAnchor="end" fontSize="12.5" className="fill-spruce">
        usual
      </text>
      {(format.units.temperature === "f" ? [100, 200, 300] : [50, 100, 150])
        .map((t) => format.base("temperature", t))
        .map((c) => (
          <g key={c}>
            <path
              d={`M${LEFT} ${warm(c)}H${right}`}
              className="stroke-rule"
              strokeWidth="0.6"
              strokeDasharray="2 5"
            />
            <text x={LEFT - 6} y={warm(c) + 5} textAnchor="end" fontSize="13" className="num soft">
              {format.temperature(c, 0)}
            </text>
          </g>
        ))}
      <path
        d={curvePath(curve.map((p) => [x(p.after_min), warm(p.core_c)] as const))}
        fill="none"
        className="stroke-warm"
        strokeWidth="2.4"
      />
      <path
        d={curvePath(curve.map((p) => [x(p.after_min), wide(p.spread_percent)] as const))}
        fill="none"
        className="stroke-spruce"
        strokeWidth="2.4"
        strokeDasharray="7 4"
      />
      <text x={right + 5} y={ends[0] + 5} fontSize="13" className="fill-warm">
        middle
      </text>
      <text x={right + 5} y={ends[1] + 5} fontSize="13" className="fill-spruce">
        spread
      </text>
      {curve.slice(0, -1).map((p, i) => (
        <rect
          key={i}
          x={x(p.after_min)}
          y={TOP + HIGH + 28}
          width={x(curve[i + 1]?.after_min ?? 0) - x(p.after_min) + 0.5}
          height="14"
          fill={p.rim_screen}
        />
      ))}
      <text x={LEFT - 6} y={TOP + HIGH + 40} textAnchor="end" fontSize="13" className="soft">
        edge
      </text>
      {marks.map((m, i) => (
        <g key={m.word}>
          <path
            d={`M${x(m.at)} ${TOP}V${TOP + HIGH}`}
            className="stroke-ink"
            strokeWidth="1.2"
            strokeDasharray="3 4"
          />
          <text x={x(m.at) + 4} y={TOP + 14 + i * 17} fontSize="13.5" className="halo">
            {m.word}
          </text>
        </g>
      ))}
      <path
        d={`M${x(forecast.bake_min)} ${TOP - 6}V${TOP + HIGH + 46}`}
        className="stroke-ink"
        strokeWidth="2.2"
      />
      <text
        x={x(forecast.bake_min)}
        y={TOP + HIGH + 64}
        textAnchor="middle"
        fontSize="14.5"
        fontWeight="600"
      >{`done, ${number(forecast.bake_min, 1)}\u00a0min`}</text>
    </svg>
  );
}
