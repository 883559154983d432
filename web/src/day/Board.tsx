/** The day's lanes: hands, cold, ovens, cooling; each job in its own tone, its wanted time a flag that can be moved. */
import { useEffect, useRef, useState, type RefObject } from "react";
import { rowsOf, stacked } from "../drawing/lanes";
import { CLOCK_STEPS, stepFor } from "../drawing/scale";
import { clock, minutesBetween, minutesPast, shifted } from "../drawing/time";
import { useNarrow } from "../kit/narrow";
import { useMoveJob, type Day, type Trial } from "./move";

type Task = Day["tasks"][number];

const TONES = ["fill-butter", "fill-ice", "fill-blush", "fill-stone-2", "fill-dough", "fill-slack"] as const;
const WORD: Partial<Record<Task["step"], string>> = {
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
const FLAG = 28;
/** A flag snaps to so many minutes, and an arrow key moves it by as many. */
const SNAP_MIN = 5;
/** So long after the last arrow key the day is laid out anew. */
const KEYED_MS = 350;

/** `day` lies as it is planned; while a flag is held the bars are those of `tried`, over the same hours. */
export function Board({
  picture,
  day,
  tried,
  onTry,
}: {
  picture: RefObject<SVGSVGElement | null>;
  day: Day;
  tried?: Day | undefined;
  onTry(trial: Trial | undefined): void;
}) {
  const narrow = useNarrow();
  const width = narrow ? 430 : 820;
  const left = 80;
  const ready = day.ready_by ?? "";
  const jobOf = (lot: number) =>
    day.jobs.findIndex((j) => (tried ?? day).jobs.find((t) => t.job_id === j.job_id)?.lots.includes(lot));
  const first = Math.min(...day.tasks.map((t) => t.start_min));
  const last = Math.max(0, ...day.tasks.map((t) => t.end_min));
  const step = stepFor(last - first, narrow ? 4 : 9, CLOCK_STEPS);
  const offset = ((minutesPast(shifted(ready, first)) % step) + step) % step;
  const from = first - offset;
  const span = Math.ceil((last - from + step * 0.5) / step) * step;
  const x = (min: number) => left + ((min - from) / span) * (width - left - 26);
  // Each counts from its own last wanted time.
  const later = tried?.ready_by == null ? 0 : minutesBetween(ready, tried.ready_by);
  const tasks = tried
    ? tried.tasks.map((t) => ({ ...t, start_min: t.start_min + later, end_min: t.end_min + later }))
    : day.tasks;
  const ovens = [...new Set(tasks.flatMap((t) => (t.lane === "oven" ? [t.oven ?? 1] : [])))].toSorted(
    (a, b) => a - b,
  );
  const lanes = [
    { name: "Hands-on", tasks: tasks.filter((t) => t.lane === "hands") },
    { name: "Cold", tasks: tasks.filter((t) => t.lane === "cold") },
    ...ovens.map((o) => ({
      name: ovens.length > 1 ? `Oven ${o}` : "Oven",
      tasks: tasks.filter((t) => t.lane === "oven" && (t.oven ?? 1) === o),
    })),
    { name: "Cooling", tasks: tasks.filter((t) => t.lane === "cooling") },
  ];
  const top = 10 + day.jobs.length * FLAG;
  const full = lanes.filter((l) => l.tasks.length > 0).map((lane) => ({ ...lane, rows: rowsOf(lane.tasks) }));
  const { lanes: placed, bottom: y } = stacked(full, top + 4, ROW, 10);
  const ticks = Array.from({ length: span / step + 1 }, (_, i) => from + i * step);
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${y + 26}`}
      className="w-full"
      role="group"
      aria-label="The day’s timeline"
    >
      {ticks.map((t) => (
        <g key={t}>
          <path d={`M${x(t)} ${top}V${y}`} className="stroke-rule" strokeWidth="0.8" />
          <text x={x(t)} y={y + 19} textAnchor="middle" fontSize="14" className="num soft">
            {clock(shifted(ready, t))}
          </text>
        </g>
      ))}
      {placed.map((lane) => (
        <g key={lane.name}>
          <path d={`M0 ${lane.top - 5}H${width - 10}`} className="stroke-rule" strokeWidth="0.7" />
          <text x="0" y={lane.top + ROW / 2 + 5} fontSize="15" fontWeight="600">
            {lane.name}
          </text>
          {lane.rows.flatMap((row, r) =>
            row.map((t) => {
              // What would begin before the hours shown is cut off there.
              const bar = Math.max(left, x(t.start_min));
              const w = Math.max(2, x(t.end_min) - bar - 1);
              const tray = t.tray == null ? "" : ` ${t.tray}`;
              const word = WORD[t.step] ? `${WORD[t.step]}${tray}` : tray ? `tray${tray}` : "dough";
              return (
                <g key={`${t.lot} ${t.step} ${t.mix ?? ""} ${t.tray ?? ""} ${t.start_min}`}>
                  <title>{`${t.does}, ${(tried ?? day).lots[t.lot] ?? ""}, ${clock(t.start_at)} to ${clock(t.end_at)}${t.why ? `: ${t.why.text}` : ""}`}</title>
                  <rect
                    x={bar}
                    y={lane.top + r * ROW}
                    width={w}
                    height={ROW - 4}
                    rx="4"
                    className={`${t.step === "preheat" ? "fill-stone-2" : (TONES[jobOf(t.lot) % TONES.length] ?? TONES[0])} stroke-edge`}
                    strokeWidth="0.9"
                  />
                  {w > word.length * 7.2 + 6 || (tray && w > 13) ? (
                    <text
                      x={bar + w / 2}
                      y={lane.top + r * ROW + ROW / 2 + 3}
                      textAnchor="middle"
                      fontSize="13"
                      className={t.step === "preheat" ? "" : "on-butter"}
                    >
                      {w > word.length * 7.2 + 6 ? word : tray.trim()}
                    </text>
                  ) : null}
                </g>
              );
            }),
          )}
        </g>
      ))}
      {day.jobs.map((job, i) => (
        <Flag
          key={job.job_id}
          job={job}
          day={day}
          tone={TONES[i % TONES.length] ?? TONES[0]}
          row={i}
          x={x}
          min_per_unit={span / (width - left - 26)}
          bottom={y}
          width={width}
          onTry={onTry}
        />
      ))}
    </svg>
  );
}

interface Held {
  /** The time it was taken hold of at. */
  base: string;
  /** Where the pointer was then. */
  from: number;
  /** Minutes it was moved by. */
  by: number;
}

/** The time a job is wanted: a flag on its line. */
function Flag({
  job,
  day,
  tone,
  row,
  x,
  min_per_unit,
  bottom,
  width,
  onTry,
}: {
  job: Day["jobs"][number];
  day: Day;
  tone: string;
  row: number;
  x(min: number): number;
  min_per_unit: number;
  bottom: number;
  width: number;
  onTry(trial: Trial | undefined): void;
}) {
  const move = useMoveJob(job.job_id);
  // Where it is held, until the day is laid out with it.
  const [held, setHeld] = useState<Held>();
  const keyed = useRef<{ timer: ReturnType<typeof setTimeout>; held: Held }>(undefined);
  const shown = held ? shifted(held.base, held.by) : job.ready_by;
  const lot = day.tasks.find((t) => job.lots.includes(t.lot));
  // The board counts from the last wanted time.
  const wanted = lot ? minutesBetween(day.ready_by ?? shown, shown) : 0;
  const at = x(wanted);
  const y = 6 + row * FLAG;
  const words = `${job.name} ${clock(shown)}`;
  const w = words.length * 7.5 + 16;
  const turned = at + w > width;
  const unit = (e: React.PointerEvent<SVGGElement>) => {
    const svg = e.currentTarget.ownerSVGElement;
    const box = svg?.getBoundingClientRect();
    return box ? ((e.clientX - box.left) / box.width) * width : 0;
  };
  const snap = (units: number) => Math.round((units * min_per_unit) / SNAP_MIN) * SNAP_MIN;
  // What was taken hold of meanwhile is not let go of by an answer to an earlier move.
  const done = (of: Held) => setHeld((now) => (now === of ? undefined : now));
  useEffect(() => {
    if (!held) return;
    if (held.by !== 0) onTry({ job: job.job_id, ready_by: shifted(held.base, held.by) });
    return () => onTry(undefined);
  }, [held, job.job_id, onTry]);
  const put = (of: Held) => {
    const to = shifted(of.base, of.by);
    if (of.by === 0) done(of);
    else void move(to).finally(() => done(of));
  };
  const hold = (by: number, from = 0) => {
    const next = { base: shown, from, by };
    setHeld(next);
    return next;
  };
  const letGo = () => {
    const last = keyed.current;
    if (!last) return;
    clearTimeout(last.timer);
    keyed.current = undefined;
    put(last.held);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${job.name}, ready-by time`}
      aria-valuetext={clock(shown)}
      aria-valuenow={wanted}
      className="group cursor-ew-resize touch-none outline-none"
      onPointerDown={(e) => {
        letGo();
        e.currentTarget.setPointerCapture(e.pointerId);
        hold(0, unit(e));
      }}
      onPointerMove={(e) =>
        held &&
        e.currentTarget.hasPointerCapture(e.pointerId) &&
        setHeld({ ...held, by: snap(unit(e) - held.from) })
      }
      onPointerUp={() => held && put(held)}
      onPointerCancel={() => setHeld(undefined)}
      onBlur={letGo}
      onKeyDown={(e) => {
        const step = e.key === "ArrowRight" ? SNAP_MIN : e.key === "ArrowLeft" ? -SNAP_MIN : 0;
        if (step === 0) return;
        e.preventDefault();
        // Several presses are one move.
        clearTimeout(keyed.current?.timer);
        keyed.current = { held: hold(step), timer: setTimeout(letGo, KEYED_MS) };
      }}
    >
      <path
        d={`M${at} ${y}V${bottom}`}
        className="stroke-warm"
        strokeWidth="1.8"
        strokeDasharray={shown === job.ready_by ? undefined : "5 4"}
      />
      <rect
        x={turned ? at - w : at}
        y={y}
        width={w}
        height={FLAG - 5}
        rx="5"
        className={`${tone} stroke-ink stroke-[1.2] group-focus-visible:stroke-3`}
      />
      <text
        x={turned ? at - w + 8 : at + 8}
        y={y + 16}
        fontSize="13.5"
        fontWeight="600"
        className="on-butter"
      >
        {words}
      </text>
    </g>
  );
}
