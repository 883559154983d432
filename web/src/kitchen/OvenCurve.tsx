/** What a thermometer in the oven showed over its test: where it holds, how it swings, what the door cost. */
import type { OvenRead, OvenTest } from "../api/oven";
import { curvePath } from "../drawing/curve";
import { stepFor, stepped } from "../drawing/scale";
import { number } from "../drawing/units";
import { usePictureWidth } from "../kit/narrow";
import { useFormat } from "../kit/settings";

const [LEFT, TOP, HIGH] = [50, 14, 240];

export function OvenCurve({
  set_c,
  readings,
  found,
}: {
  set_c: number;
  readings: readonly OvenRead[];
  found?: OvenTest | undefined;
}) {
  const format = useFormat();
  const width = usePictureWidth();
  const right = width - 16;
  const shown = (c: number) => format.shown("temperature", c);
  const last = Math.max(20, readings.at(-1)?.after_min ?? 0);
  const x = stepped(0, last, [LEFT, right], stepFor(last, width < 500 ? 4 : 8, [5, 10, 15, 20, 30, 60]));
  const hottest = Math.max(shown(set_c) + 8, ...readings.map((r) => shown(r.shows_c)));
  const y = stepped(0, hottest, [TOP + HIGH, TOP], stepFor(hottest, 6, [20, 25, 40, 50, 100]));
  const [from, to] = x.domain;
  const words = found
    ? `averages ${format.temperature(found.holds_c, 0)}, swings ± ${format.difference(found.swing_k)}`
    : `${readings.length} readings so far`;
  return (
    <svg
      viewBox={`0 0 ${width} ${TOP + HIGH + 30}`}
      className="w-full"
      role="img"
      aria-label={`Thermometer in the oven, set to ${format.temperature(set_c, 0)}: ${words}`}
    >
      {found ? (
        <rect
          x={x(found.preheat_min ?? 0)}
          y={y(shown(found.holds_c + found.swing_k))}
          width={right - x(found.preheat_min ?? 0)}
          height={Math.max(
            2,
            y(shown(found.holds_c - found.swing_k)) - y(shown(found.holds_c + found.swing_k)),
          )}
          className="fill-pale"
        />
      ) : null}
      {y.ticks.map((t) => (
        <g key={t}>
          <path d={`M${LEFT} ${y(t)}H${right}`} className="stroke-rule" strokeWidth="0.8" />
          <text x={LEFT - 7} y={y(t) + 5} textAnchor="end" fontSize="14" className="num soft">
            {number(t, 0)}°
          </text>
        </g>
      ))}
      {x.ticks.map((t) => (
        <text
          key={t}
          x={x(t)}
          y={TOP + HIGH + 21}
          textAnchor={t === from ? "start" : t === to ? "end" : "middle"}
          fontSize="14"
          className="num soft"
        >
          {t === to ? `${number(t, 0)}\u00a0min` : number(t, 0)}
        </text>
      ))}
      <path
        d={`M${LEFT} ${y(shown(set_c))}H${right}`}
        className="stroke-ink"
        strokeWidth="1.4"
        strokeDasharray="6 5"
      />
      <text
        x={right}
        y={y(shown(set_c)) - 6}
        textAnchor="end"
        fontSize="14"
      >{`set to ${format.temperature(set_c, 0)}`}</text>
      <path
        d={curvePath(readings.map((r) => [x(r.after_min), y(shown(r.shows_c))] as const))}
        fill="none"
        className="stroke-warm"
        strokeWidth="2.4"
      />
      {found?.preheat_min == null ? null : (
        <g>
          <path
            d={`M${x(found.preheat_min)} ${TOP + HIGH}V${y(shown(found.holds_c))}`}
            className="stroke-ink"
            strokeWidth="1.2"
            strokeDasharray="3 4"
          />
          <text
            x={x(found.preheat_min) + 6}
            y={TOP + HIGH - 8}
            fontSize="14"
          >{`preheated, ${number(found.preheat_min, 0)}\u00a0min`}</text>
        </g>
      )}
    </svg>
  );
}
