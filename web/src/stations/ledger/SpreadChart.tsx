/** Each piece's spread as a dot, bake by bake, over the range that was expected. */
import type { RefObject } from "react";
import type { BakeRecord, Plan } from "../../api/client";
import { stepFor, stepped } from "../../drawing/scale";
import { longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { usePictureWidth } from "../../kit/narrow";

export function SpreadChart({
  picture,
  records,
  plan,
}: {
  picture: RefObject<SVGSVGElement | null>;
  records: readonly BakeRecord[];
  plan: Plan;
}) {
  const width = usePictureWidth();
  const [LEFT, RIGHT] = [width > 500 ? 130 : 96, width - 30];
  const shown = records.slice(0, 12);
  const all = [
    plan.oven.spread_least_percent,
    plan.oven.spread_most_percent,
    0,
    ...shown.flatMap((r) => r.spreads_percent),
  ];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const x = stepped(
    low,
    high,
    [LEFT, RIGHT],
    stepFor(high - low, width > 500 ? 9 : 5, [1, 2, 5, 10, 20, 50]),
  );
  const bottom = 16 + shown.length * 46;
  return (
    <div>
      <svg
        ref={picture}
        viewBox={`0 0 ${width} ${bottom + 34}`}
        className="w-full"
        role="img"
        aria-labelledby="spread-title spread-desc"
      >
        <title id="spread-title">Spread of each cookie measured</title>
        <desc id="spread-desc">
          {shown
            .map(
              (r) =>
                `${longDay(r.recorded_at)}: average ${number(r.spread_percent, 1)}, ${r.widths_mm.length} cookies`,
            )
            .join("; ")}
        </desc>
        {x.ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} 10V${bottom}`} className="stroke-rule" strokeWidth="0.8" />
            <text
              x={x(t)}
              y={bottom + 20}
              textAnchor="middle"
              fontSize="14.5"
              className="num soft"
            >{`${number(t, 0)}%`}</text>
          </g>
        ))}
        {shown.map((r, i) => {
          const y = 16 + i * 46 + 20;
          return (
            <g key={r.id}>
              <text x={LEFT - 12} y={y + 5} textAnchor="end" fontSize="15" fontWeight="600">
                {longDay(r.recorded_at).replace(/^(\w{3})\w*/, "$1")}
              </text>
              <rect
                x={x(r.expected_spread_least_percent)}
                y={y - 15}
                width={x(r.expected_spread_most_percent) - x(r.expected_spread_least_percent)}
                height="30"
                rx="5"
                className="fill-pale"
              />
              {r.spreads_percent.map((s, j) => (
                <circle
                  key={j}
                  cx={x(s)}
                  cy={y}
                  r="5"
                  className="fill-spruce stroke-worktop"
                  strokeWidth="1.2"
                  opacity="0.85"
                />
              ))}
              <path d={`M${x(r.spread_percent)} ${y - 16}v32`} className="stroke-warm" strokeWidth="2.6" />
            </g>
          );
        })}
      </svg>
      <p className="text-fine text-soft">Band: forecast then. Dot: one cookie. Line: average.</p>
    </div>
  );
}
