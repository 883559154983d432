/** Scales and ticks: one way from millimetres or minutes to the page. */

export interface Scale {
  (value: number): number;
  ticks: number[];
  domain: [number, number];
}

function make(domain: [number, number], range: [number, number], ticks: number[]): Scale {
  return Object.assign(linear(domain, range), { ticks, domain });
}

/** The straight line that takes the ends of one stretch to those of another. */
export function linear(
  [from, to]: readonly [number, number],
  [low, high]: readonly [number, number],
): (value: number) => number {
  return (value) => low + ((value - from) / (to - from)) * (high - low);
}

/** A scale whose ends fall on whole ticks of `step`. */
export function stepped(low: number, high: number, range: [number, number], step: number): Scale {
  const from = Math.floor(low / step + 1e-9) * step;
  const to = Math.max(Math.ceil(high / step - 1e-9) * step, from + step);
  const ticks: number[] = [];
  for (let i = 0; from + i * step <= to + step / 1000; i += 1) ticks.push(from + i * step);
  return make([from, to], range, ticks);
}

/** The smallest of the steps that gives at most `most` intervals. */
export function stepFor(span: number, most: number, steps: readonly number[]): number {
  return steps.find((s) => span / s <= most) ?? steps[steps.length - 1] ?? span;
}

/** Steps in minutes for a clock axis. */
export const CLOCK_STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 180, 360, 720, 1440] as const;
/** Steps in degrees. */
export const DEGREE_STEPS = [1, 2, 4, 5, 10, 20, 40] as const;

export interface RulerTick {
  at_mm: number;
  kind: "short" | "middle" | "long";
  /** At long ticks, the figure in the ruler's unit. */
  figure: number;
}

/** How a ruler is divided: its ticks, how many make a middle and a long one, and what a long one counts. */
const RULERS = {
  metric: { step_mm: 10, middle: 5, long: 10, counts: 100 },
  us: { step_mm: 25.4 / 4, middle: 4, long: 8, counts: 2 },
} as const;

/** Ticks of a ruler: every ten millimetres with figures at the hundreds, or every quarter inch with figures at two inches. */
export function rulerTicks(length_mm: number, system: keyof typeof RULERS = "metric"): RulerTick[] {
  const { step_mm, middle, long, counts } = RULERS[system];
  const ticks: RulerTick[] = [];
  for (let i = 0; i * step_mm <= length_mm + 1e-6; i += 1) {
    ticks.push({
      at_mm: i * step_mm,
      kind: i % long === 0 ? "long" : i % middle === 0 ? "middle" : "short",
      figure: (i / long) * counts,
    });
  }
  return ticks;
}

/** Moves labels apart along one axis so that none is nearer than `gap` to the next, keeping their order. */
export function apart(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const order = wanted.map((at, i) => ({ at, i })).toSorted((a, b) => a.at - b.at);
  let last = Number.NEGATIVE_INFINITY;
  for (const label of order) {
    label.at = Math.max(label.at, last + gap, low);
    last = label.at;
  }
  let next = Number.POSITIVE_INFINITY;
  for (const label of order.toReversed()) {
    label.at = Math.min(label.at, next - gap, high);
    next = label.at;
  }
  const result: number[] = Array.from({ length: wanted.length }, () => 0);
  for (const label of order) result[label.i] = label.at;
  return result;
}

/** A scale of minutes on which a quarter of an hour and a night can both be seen: even for short times, by powers for long ones. */
export function nightScale(to_min: number, range: [number, number]): (minutes: number) => number {
  const along = linear([0, drawnOut(to_min)], range);
  return (minutes) => along(drawnOut(Math.min(Math.max(minutes, 0), to_min)));
}
const NIGHT_EVEN_MIN = 10;
const drawnOut = (minutes: number) => Math.log1p(minutes / NIGHT_EVEN_MIN);
