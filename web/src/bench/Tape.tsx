/** The day as a tape under a line for now: what is done is hatched. */
import { rowsOf, stacked } from "../drawing/lanes";
import { CLOCK_STEPS, stepFor } from "../drawing/scale";
import { clock, minutesPast, shifted } from "../drawing/time";
import { useNarrow } from "../kit/narrow";
import type { Run } from "./run";

type Bar = Run["bars"][number];

const LANES = [
  { key: "hands", name: "Hands-on", fill: "fill-spruce", text: "fill-on-spruce" },
  { key: "cold", name: "Cold", fill: "fill-cold-pale", text: "" },
  { key: "oven", name: "Oven", fill: "fill-butter", text: "on-butter" },
  { key: "cooling", name: "Cooling", fill: "fill-stone-2", text: "" },
] as const;
const WORD: Partial<Record<Bar["step"], string>> = {
  mix: "mix",
  form: "shape",
  cut: "cut",
  finish: "finish",
  pack: "pack",
  preheat: "preheat",
  rest: "rest",
  dry: "dry",
};
const ROW = 24;

function word(bar: Bar): string {
  const tray = bar.tray == null ? "" : ` ${bar.tray}`;
  const what = WORD[bar.step];
  return what ? `${what}${tray}` : bar.tray == null ? "dough" : `tray${tray}`;
}

export function Tape({ run, now }: { run: Run; now: number }) {
  const narrow = useNarrow();
  const width = narrow ? 430 : 1180;
  const left = 78;
  const span = narrow ? 60 : 110;
  const from = now - span * 0.36;
  const x = (min: number) => left + ((min - from) / span) * (width - left - 8);
  const shown = run.bars.filter(
    (b) => b.end_min > from && b.start_min < from + span && b.end_min > b.start_min,
  );
  const lanes = LANES.map((lane) => ({ ...lane, rows: rowsOf(shown.filter((b) => b.lane === lane.key)) }));
  const step = stepFor(span, narrow ? 4 : 8, CLOCK_STEPS);
  const zero = run.zero_at;
  const first = Math.ceil((from + minutesPast(zero)) / step) * step - minutesPast(zero);
  const ticks = Array.from(
    { length: Math.floor((from + span - first) / step) + 1 },
    (_, i) => first + i * step,
  );
  const { lanes: placed, bottom: y } = stacked(lanes, 5, ROW, 5);
  return (
    <svg
      viewBox={`0 0 ${width} ${y + 24}`}
      className="block w-full"
      role="img"
      aria-label="Timeline around now; finished steps are hatched"
    >
      <defs>
        <pattern id="done" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" className="fill-stone" />
          <path d="M0 0V7" className="stroke-edge" strokeWidth="1.6" />
        </pattern>
        <clipPath id="tape">
          <rect x={left} y="0" width={width - left} height={y + 24} />
        </clipPath>
      </defs>
      {placed.map((lane) => (
        <text key={lane.key} x="0" y={lane.top + ROW / 2 + 5} fontSize="15" fontWeight="600">
          {lane.name}
        </text>
      ))}
      <g clipPath="url(#tape)">
        {ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} 4V${y}`} className="stroke-rule" strokeWidth="0.8" />
            <text x={x(t)} y={y + 18} textAnchor="middle" fontSize="14" className="num soft">
              {clock(shifted(zero, t))}
            </text>
          </g>
        ))}
        {placed.flatMap((lane) =>
          lane.rows.flatMap((row, r) =>
            row.map((bar) => {
              const start = Math.max(bar.start_min, from - 5);
              const w = Math.max(3, x(Math.min(bar.end_min, from + span + 5)) - x(start) - 1.5);
              const says = word(bar);
              const at = lane.top + r * ROW;
              const done = bar.state === "done";
              return (
                <g key={bar.task}>
                  <title>{bar.does}</title>
                  <rect
                    x={x(start)}
                    y={at}
                    width={w}
                    height={ROW - 4}
                    rx="5"
                    fill={done ? "url(#done)" : undefined}
                    className={
                      done
                        ? "stroke-edge"
                        : `${lane.fill} ${bar.state === "on" ? "stroke-ink" : "stroke-worktop"}`
                    }
                    strokeWidth={bar.state === "on" ? 1.8 : 1}
                  />
                  {w > says.length * 7.4 + 10 ? (
                    <text
                      x={Math.max(x(start), left) + 8}
                      y={at + ROW / 2 + 3}
                      fontSize="14"
                      className={done ? "" : lane.text}
                    >
                      {says}
                    </text>
                  ) : null}
                </g>
              );
            }),
          ),
        )}
        <path d={`M${x(now)} 0V${y + 2}`} className="stroke-warm" strokeWidth="3" />
      </g>
    </svg>
  );
}
