/** A forecast's range and that of common practice on one axis. */
import { number } from "../../drawing/units";

export interface Range {
  least: number;
  most: number;
}

const [WIDTH, LEFT] = [320, 8];

export function BesidePractice({
  name,
  unit,
  own,
  at,
  practice,
}: {
  name: string;
  unit: string;
  own: Range;
  at: number | null;
  practice: Range;
}) {
  const most = Math.max(own.most, practice.most, at ?? 0) * 1.08;
  const least = Math.min(own.least, practice.least, at ?? own.least);
  const from = Math.max(0, least - (most - least) * 0.12);
  const x = (v: number) => LEFT + ((v - from) / (most - from)) * (WIDTH - 2 * LEFT);
  const told = (r: Range) =>
    `${number(r.least, r.most < 10 ? 1 : 0)}–${number(r.most, r.most < 10 ? 1 : 0)}${unit === "%" ? "" : " "}${unit}`;
  return (
    <figure className="my-2">
      <svg
        viewBox={`0 0 ${WIDTH} 30`}
        className="w-full"
        role="img"
        aria-label={`${name}: ${told(own)} forecast, usual ${told(practice)}`}
      >
        <path d={`M${LEFT} 11H${WIDTH - LEFT}`} className="stroke-rule" strokeWidth="1" />
        <rect
          x={x(own.least)}
          y="4"
          width={Math.max(2, x(own.most) - x(own.least))}
          height="14"
          rx="4"
          className="fill-butter"
        />
        {at == null ? null : <path d={`M${x(at)} 1V21`} className="stroke-ink" strokeWidth="2.4" />}
        <path
          d={`M${x(practice.least)} 21V27H${x(practice.most)}V21`}
          fill="none"
          className="stroke-spruce"
          strokeWidth="2.2"
        />
      </svg>
      <figcaption className="flex flex-wrap justify-between gap-x-3 text-fine text-soft">
        <span>
          {name}: <span className="num text-ink">{told(own)}</span>
        </span>
        <span className="text-spruce">usual {told(practice)}</span>
      </figcaption>
    </figure>
  );
}
