/** What the ways of a trial came to against the first, each with what it lies within. */
import type { Schemas } from "../../api/client";
import type { Try } from "../../api/ledger";
import { stepFor, stepped } from "../../drawing/scale";
import { number } from "../../drawing/units";
import { useFine } from "../../kit/fine";
import { usePictureWidth } from "../../kit/narrow";
import { LETTERS } from "./TrialTray";

export function WaysChart({ ways, measure }: { ways: Try["ways"]; measure: Schemas["EvenMeasure"] }) {
  const unit = useFine();
  const width = Math.min(usePictureWidth(), 640);
  const against = ways.flatMap((w, i) =>
    w.between_mm == null || w.more_mm == null
      ? []
      : [
          {
            name: w.name,
            way: i,
            more: w.more_mm / unit.mm,
            from: (w.between_mm[0] ?? 0) / unit.mm,
            to: (w.between_mm[1] ?? 0) / unit.mm,
          },
        ],
  );
  const [low, high] = [Math.min(0, ...against.map((w) => w.from)), Math.max(0, ...against.map((w) => w.to))];
  const [LEFT, RIGHT] = [44, width - 24];
  const x = stepped(low, high, [LEFT, RIGHT], stepFor(high - low, 5, unit.steps));
  const bottom = 14 + against.length * 44;
  const word = measure === "width" ? "width" : "thickness";
  return (
    <figure className="mt-3">
      <svg
        viewBox={`0 0 ${width} ${bottom + 50}`}
        className="w-full max-w-2xl"
        role="img"
        aria-label={against
          .map(
            (w) =>
              `${LETTERS[w.way]}, ${w.name}: ${number(w.more, unit.places)} ${unit.symbol} more than A, likely ${number(w.from, unit.places)} to ${number(w.to, unit.places)}`,
          )
          .join("; ")}
      >
        {x.ticks.map((t) => (
          <g key={t}>
            <path
              d={`M${x(t)} 8V${bottom}`}
              className={t === 0 ? "stroke-ink" : "stroke-rule"}
              strokeWidth={t === 0 ? 1.6 : 0.8}
            />
            <text x={x(t)} y={bottom + 20} textAnchor="middle" fontSize="14" className="num soft">
              {t > 0 ? "+" : ""}
              {number(t, unit.places)}
            </text>
          </g>
        ))}
        {against.map((w, i) => {
          const y = 14 + i * 44 + 20;
          return (
            <g key={w.name}>
              <text x={LEFT - 12} y={y + 5} textAnchor="end" fontSize="15" fontWeight="700">
                {LETTERS[w.way]}
              </text>
              <rect
                x={x(w.from)}
                y={y - 9}
                width={Math.max(2, x(w.to) - x(w.from))}
                height="18"
                rx="9"
                className="fill-pale stroke-spruce"
                strokeWidth="1.2"
              />
              <circle cx={x(w.more)} cy={y} r="6.5" className="fill-spruce" />
            </g>
          );
        })}
        <text
          x={(LEFT + RIGHT) / 2}
          y={bottom + 42}
          textAnchor="middle"
          fontSize="14"
          className="soft"
        >{`${word} vs. A, ${unit.symbol}`}</text>
      </svg>
      <figcaption className="text-fine text-soft">
        {ways.map((w, i) => `${LETTERS[i]}: average ${unit.text(w.mean_mm)}, ${w.pieces} cookies`).join("; ")}
        . Dot: measured. Bar: likely, 19 times in 20.
      </figcaption>
    </figure>
  );
}
