/** The relay as bars over the clock: one line a mix, one a tray, and one for the hands. */
import type { RefObject } from "react";
import type { Plan } from "../../api/client";
import { CLOCK_STEPS, stepFor } from "../../drawing/scale";
import { clock, minutesPast, shifted } from "../../drawing/time";
import { usePictureWidth } from "../../kit/narrow";

type Task = Plan["clock"]["tasks"][number];

const FILL: Record<Task["step"], string> = {
  mix: "fill-spruce",
  form: "fill-spruce",
  cut: "fill-spruce",
  bulk_chill: "fill-cold-pale",
  thaw: "fill-cold-pale",
  chill: "fill-cold-pale",
  tray_chill: "fill-cold-pale",
  rest: "fill-warm-pale",
  preheat: "fill-stone-2",
  bake: "fill-butter",
  cool: "fill-stone-2",
  cool_on_rack: "fill-stone",
  finish: "fill-spruce",
  dry: "fill-stone",
  pack: "fill-spruce",
};
const WORD: Record<Task["step"], string> = {
  mix: "mix",
  form: "shape",
  cut: "cut",
  bulk_chill: "chill",
  thaw: "thaw",
  chill: "chill",
  tray_chill: "chill",
  rest: "rest",
  preheat: "preheat",
  bake: "bake",
  cool: "cool",
  cool_on_rack: "cool",
  finish: "finish",
  dry: "dry",
  pack: "pack",
};
const LIGHT: Task["step"][] = ["mix", "form", "cut", "finish", "pack"];

/** A lot and its plan. */
export interface Lot {
  name: string;
  plan: Plan;
}

/** The bars of one lot: its mixes, then its trays. */
function linesOf(lot: Lot, number: number, all: readonly Task[], several: boolean): Line[] {
  const tasks = all.filter((t) => t.lot === number);
  const mixes = Math.max(1, ...tasks.map((t) => t.mix ?? 0));
  const line = (name: string, of: Task[], first: boolean): Line => ({
    name,
    tasks: of,
    ...(several && first ? { lot: lot.name } : {}),
  });
  return [
    ...Array.from({ length: mixes }, (_, i) =>
      line(
        mixes > 1 ? `Batch ${i + 1}` : "Dough",
        tasks.filter((t) => t.mix === i + 1),
        i === 0,
      ),
    ),
    ...lot.plan.shape.trays.fill.map((_, i) =>
      line(
        `Tray ${i + 1}`,
        tasks.filter((t) => t.tray === i + 1),
        false,
      ),
    ),
  ];
}

interface Line {
  name: string;
  tasks: Task[];
  /** The lot that begins here, where there are several. */
  lot?: string;
}

export function Timeline({
  picture,
  lots,
  day,
  ready_by,
}: {
  picture: RefObject<SVGSVGElement | null>;
  lots: readonly Lot[];
  day: Plan["clock"];
  ready_by: string;
}) {
  const width = usePictureWidth();
  const end = width - 36;
  const { tasks, total_min, start_at } = day;
  const ovens = Math.max(1, ...tasks.map((t) => t.oven ?? 1));
  const several = lots.length > 1;
  const lines: Line[] = [
    ...lots.flatMap((lot, i) => linesOf(lot, i, tasks, several)),
    ...Array.from({ length: ovens }, (_, i) => ({
      name: ovens > 1 ? `Oven ${i + 1}` : "Oven",
      tasks: tasks.filter((t) => t.lane === "oven" && t.oven === i + 1),
    })),
    { name: "Hands-on", tasks: tasks.filter((t) => t.lane === "hands") },
  ];
  const step = stepFor(total_min, width > 500 ? 8 : 4, CLOCK_STEPS);
  const offset = minutesPast(start_at) % step;
  const from = -total_min - offset;
  // What is wanted warm cools after the wanted time.
  const last = Math.max(0, ...tasks.map((t) => t.end_min));
  const span = Math.ceil((total_min + offset + last) / step) * step;
  const row = lines.length > 14 ? 26 : 34;
  const left = several && width > 500 ? 210 : 80;
  const x = (minute: number) => left + ((minute - from) / span) * (end - left);
  const bottom = 10 + lines.length * row;
  const ticks = Array.from({ length: span / step + 1 }, (_, i) => from + i * step);
  return (
    <div>
      <svg
        ref={picture}
        viewBox={`0 0 ${width} ${bottom + 48}`}
        className="w-full"
        role="img"
        aria-labelledby="day-title day-desc"
      >
        <title id="day-title">
          The day from {clock(start_at)} to {clock(ready_by)}
        </title>
        <desc id="day-desc">The same steps are listed in the schedule below.</desc>
        {ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} 6V${bottom + 4}`} className="stroke-rule" strokeWidth="0.8" />
            <text x={x(t)} y={bottom + 22} textAnchor="middle" fontSize="14.5" className="num soft">
              {clock(shifted(ready_by, t))}
            </text>
          </g>
        ))}
        {lines.map((l, i) => (
          <g key={i} transform={`translate(0 ${10 + i * row})`}>
            {i > 0 ? <path d={`M0 -1.5H${end}`} className="stroke-rule" strokeWidth="0.6" /> : null}
            {l.lot ? <path d={`M0 -1.5H${end}`} className="stroke-edge" strokeWidth="1.6" /> : null}
            <text x={left - 80} y={row / 2 + 4} fontSize="15" fontWeight="600">
              {l.name}
            </text>
            {l.lot && left > 80 ? (
              <text x="0" y={row / 2 + 4} fontSize="13.5" className="soft">
                {l.lot.length > 19 ? `${l.lot.slice(0, 18)}…` : l.lot}
              </text>
            ) : null}
            {l.tasks.map((t, j) => {
              const w = Math.max(2, x(t.end_min) - x(t.start_min));
              const light = LIGHT.includes(t.step);
              const word =
                l.name.startsWith("Oven") && t.tray
                  ? `tray ${t.tray}`
                  : l.name === "Hands-on" && t.tray
                    ? `${t.tray}`
                    : WORD[t.step];
              return (
                <g key={j}>
                  <rect
                    x={x(t.start_min)}
                    y="3"
                    width={w}
                    height={row - 9}
                    rx="4"
                    className={`${FILL[t.step]} stroke-worktop`}
                    strokeWidth="1.2"
                  />
                  {w > word.length * 7.6 + 6 ? (
                    <text
                      x={x(t.start_min) + w / 2}
                      y={row / 2 + 3}
                      textAnchor="middle"
                      fontSize="13.5"
                      className={light ? "fill-on-spruce" : t.step === "bake" ? "fill-[#14302c]" : ""}
                    >
                      {word}
                    </text>
                  ) : null}
                </g>
              );
            })}
          </g>
        ))}
        <path d={`M${x(0)} 4V${bottom + 4}`} className="stroke-warm" strokeWidth="2" />
        <text
          x={x(0) + 22}
          y={bottom + 42}
          textAnchor="end"
          fontSize="14"
          fontWeight="600"
          className="fill-warm"
        >
          {`ready by ${clock(ready_by)}`}
        </text>
      </svg>
    </div>
  );
}
