/** When the pieces of one tray are done, along a line of minutes: as they lie, turned half way, and other sizes of the job beside them. */
import type { Schemas } from "../../api/client";
import { stepFor, stepped } from "../../drawing/scale";
import { number } from "../../drawing/units";
import { usePictureWidth } from "../../kit/narrow";

type Times = Schemas["TrayTimesView"];

/** Another lot in the same heat. */
export interface OtherSize {
  name: string;
  bake_min: number;
  shares: boolean;
}

const [LINE, LABEL, DOT] = [30, 17, 4.2];

/** Dots of one row, stacked where they would cover each other. */
export function stacked(
  minutes: readonly number[],
  x: (min: number) => number,
  apart: number,
): { x: number; up: number }[] {
  const taken: { x: number; up: number }[] = [];
  return minutes
    .toSorted((a, b) => a - b)
    .map((m) => {
      const at = x(m);
      let up = 0;
      while (taken.some((t) => t.up === up && Math.abs(t.x - at) < apart)) up += 1;
      const dot = { x: at, up };
      taken.push(dot);
      return dot;
    });
}

export function TimesStrip({ times, others }: { times: Times; others: readonly OtherSize[] }) {
  const width = usePictureWidth();
  const rows = [
    { name: "not turned", minutes: times.pieces.map((p) => p.done_min) },
    ...(times.mapped
      ? [{ name: "turned halfway", minutes: times.pieces.map((p) => p.done_turned_min) }]
      : []),
  ];
  const all = [
    ...rows.flatMap((r) => r.minutes),
    ...others.map((o) => o.bake_min),
    times.first_min,
    times.one_time_to_min,
  ];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const [left, right] = [12, width - 40];
  const x = stepped(
    Math.max(0, least - 0.3),
    most + 0.3,
    [left, right],
    stepFor(most - least + 0.6, 8, [0.5, 1, 2, 5]),
  );
  const laid = rows.map((r) => ({ ...r, dots: stacked(r.minutes, x, 2 * DOT + 1) }));
  let y = 30;
  const drawn = laid.map((r) => {
    const high = Math.max(1, ...r.dots.map((d) => d.up + 1)) * (2 * DOT + 1);
    y += LABEL + high + 8;
    return { ...r, base: y };
  });
  const othersFrom = y;
  const bottom = othersFrom + others.length * LINE + 6;
  const words = rows
    .map(
      (r) => `${r.name} ${number(Math.min(...r.minutes), 1)} to ${number(Math.max(...r.minutes), 1)} minutes`,
    )
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${width} ${bottom + 26}`}
      className="w-full"
      role="img"
      aria-label={`Done after: ${words}. One time will do up to ${number(times.one_time_to_min, 1)} minutes.`}
    >
      <rect
        x={x(times.first_min)}
        y={8}
        width={x(times.one_time_to_min) - x(times.first_min)}
        height={bottom - 8}
        className="fill-pale"
      />
      <text x={x(times.first_min) + 6} y={24} fontSize="14" className="fill-on-pale">
        one timer is enough
      </text>
      {x.ticks.map((m) => (
        <g key={m}>
          <path d={`M${x(m)} 8V${bottom}`} className="stroke-rule" strokeWidth="0.8" />
          <text x={x(m)} y={bottom + 18} textAnchor="middle" fontSize="14" className="num soft">
            {m === x.domain[1] ? `${number(m, 1)}\u00a0min` : number(m, 1)}
          </text>
        </g>
      ))}
      {drawn.map((r) => (
        <g key={r.name}>
          <text
            x={left}
            y={r.base - 3 - Math.max(1, ...r.dots.map((d) => d.up + 1)) * (2 * DOT + 1) - 4}
            fontSize="14"
            className="soft"
          >
            {r.name}
          </text>
          <path d={`M${left} ${r.base}H${right}`} className="stroke-rule" strokeWidth="1" />
          {r.dots.map((d, i) => (
            <circle
              key={i}
              cx={d.x}
              cy={r.base - DOT - 1 - d.up * (2 * DOT + 1)}
              r={DOT}
              className="fill-butter stroke-cut-line"
              strokeWidth="1"
            />
          ))}
        </g>
      ))}
      {others.map((o, i) => {
        const at = othersFrom + (i + 0.5) * LINE + 8;
        const onRight = x(o.bake_min) > width * 0.55;
        return (
          <g key={o.name}>
            <path
              d={`M${x(o.bake_min)} ${at - 6}l6 6l-6 6l-6 -6Z`}
              className={o.shares ? "fill-butter stroke-cut-line" : "fill-worktop stroke-ink"}
              strokeWidth="1.2"
            />
            <text
              x={x(o.bake_min) + (onRight ? -11 : 11)}
              y={at + 5}
              textAnchor={onRight ? "end" : "start"}
              fontSize="14"
            >{`${o.name}, ${number(o.bake_min, 1)}${o.shares ? "" : ": own tray"}`}</text>
          </g>
        );
      })}
    </svg>
  );
}
