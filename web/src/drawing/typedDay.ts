/** A day, and a time if there is one, as people type them: `Sat`, `Dec 5`, `5 Dec`, `12/5`, `tomorrow`, `Sat 2pm`. Read by chrono. */
import { casual } from "chrono-node/en";
import { two } from "./time";

export interface TypedDay {
  /** `2026-12-05`. */
  day: string;
  /** `14:00`, where one was typed. */
  time?: string;
}

/**
 * What was typed; nothing where any of it cannot be read. A day without its year is the next one, or with `past` the nearest.
 * Only the calendar counts here: the browser's own zone does not.
 */
export function typedDay(text: string, now: string, past = false): TypedDay | undefined {
  const typed = text.replaceAll("\u00a0", " ").trim();
  const [year = 0, month = 1, day = 1] = now.slice(0, 10).split("-").map(Number);
  // A number alone is a day of this month, or of the next.
  const alone = /^(\d{1,2})(?:st|nd|rd|th)?$/.exec(typed);
  if (alone) {
    const asked = Number(alone[1]);
    const later = asked < day && !past ? 1 : 0;
    const on = new Date(Date.UTC(year, month - 1 + later, asked));
    return on.getUTCDate() === asked ? { day: on.toISOString().slice(0, 10) } : undefined;
  }
  const [found, ...more] = casual.parse(typed, new Date(year, month - 1, day, 12), { forwardDate: !past });
  if (!found || more.length > 0 || found.text.length !== typed.length || found.end) return undefined;
  const at = found.start;
  // A time alone says no day, nor does a span such as `in 20 minutes`.
  if (!at.isCertain("day") && !at.isCertain("weekday")) return undefined;
  const [y, m, d] = [at.get("year"), at.get("month"), at.get("day")];
  if (y === null || m === null || d === null) return undefined;
  const timed = at.isCertain("hour")
    ? { time: `${two(at.get("hour") ?? 0)}:${two(at.get("minute") ?? 0)}` }
    : {};
  return { day: `${String(y).padStart(4, "0")}-${two(m)}-${two(d)}`, ...timed };
}
