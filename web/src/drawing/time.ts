/**
 * Times of the kitchen's clock as the server sends them, `2026-11-28T14:00`, in words. The clock is the kitchen's, wherever this browser
 * is; what lies between two times is real minutes, also where the clocks are changed. No arithmetic on plans happens here.
 */

const WEEKDAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const LONG_WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

const MINUTE_MS = 60_000;
/** `05`. */
export const two = (n: number) => String(n).padStart(2, "0");

/** The kitchen's time zone; this browser's own until the kitchen is known. */
let clocks = new Intl.DateTimeFormat().resolvedOptions().timeZone;
let wall: Intl.DateTimeFormat | undefined;

/** Whose clock it is: a name of the IANA database. */
export function setZone(name: string): void {
  if (name === clocks || name === "") return;
  clocks = name;
  wall = undefined;
}

/** A day and time as if it were of UTC: for arithmetic on the calendar alone. */
function asUtc(iso: string): number {
  return Date.parse(`${iso.slice(0, 16)}:00Z`);
}

const civil = (ms: number): string => {
  const d = new Date(ms);
  return `${d.getUTCFullYear()}-${two(d.getUTCMonth() + 1)}-${two(d.getUTCDate())}T${two(d.getUTCHours())}:${two(d.getUTCMinutes())}`;
};

/** What the kitchen's clock shows at a moment. */
function shownAt(ms: number): string {
  if (clocks === "UTC") return civil(ms);
  wall ??= new Intl.DateTimeFormat("en-GB", {
    timeZone: clocks,
    hourCycle: "h23",
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
  });
  const part = Object.fromEntries(wall.formatToParts(ms).map((p) => [p.type, p.value]));
  return `${part.year}-${part.month}-${part.day}T${part.hour}:${part.minute}`;
}

/** The moment at which the kitchen's clock shows a time; the first of two, where it shows it twice. */
function momentOf(iso: string): number {
  const naive = asUtc(iso);
  const offset = (ms: number) => asUtc(shownAt(ms)) - Math.floor(ms / MINUTE_MS) * MINUTE_MS;
  // The offsets a day before and a day after are all that can be in force.
  const found = [offset(naive - 86_400_000), offset(naive + 86_400_000)]
    .map((o) => naive - o)
    .filter((ms) => shownAt(ms) === iso.slice(0, 16));
  return found.length > 0 ? Math.min(...found) : naive - offset(naive - 86_400_000);
}

let hours12 = false;

/** Whether the clock goes to 24, or twice to 12. */
export function setClockHours(hours: "24" | "12"): void {
  hours12 = hours === "12";
}

/** `14:00`, `9:26`; `2:00 pm`, `9:26 am`. */
export function clock(iso: string): string {
  const [, hours = "0", minutes = "00"] = /T(\d\d):(\d\d)/.exec(iso) ?? [];
  const hour = Number(hours);
  return hours12 ? `${hour % 12 || 12}:${minutes}\u00a0${hour < 12 ? "am" : "pm"}` : `${hour}:${minutes}`;
}

/** `Sat 14:00`. */
export function dayClock(iso: string): string {
  return `${WEEKDAYS[new Date(asUtc(iso)).getUTCDay()] ?? ""} ${clock(iso)}`;
}

/** `Saturday, Nov 28`. */
export function longDay(iso: string): string {
  const date = new Date(asUtc(iso));
  return `${LONG_WEEKDAYS[date.getUTCDay()] ?? ""}, ${MONTHS[date.getUTCMonth()] ?? ""} ${date.getUTCDate()}`;
}

/** `Sat, Nov 28`; with the year, where it is another than at that time. */
export function shortDay(iso: string, now: string): string {
  const date = new Date(asUtc(iso.length > 10 ? iso : `${iso}T00:00`));
  const said = `${WEEKDAYS[date.getUTCDay()] ?? ""}, ${MONTHS[date.getUTCMonth()] ?? ""} ${date.getUTCDate()}`;
  return iso.slice(0, 4) === now.slice(0, 4) ? said : `${said}, ${date.getUTCFullYear()}`;
}

/** `Nov 28, 14:00`. */
export function dateClock(iso: string): string {
  const date = new Date(asUtc(iso));
  return `${MONTHS[date.getUTCMonth()] ?? ""} ${date.getUTCDate()}, ${clock(iso)}`;
}

/** Whether the two lie on the same day. */
export function sameDay(a: string, b: string): boolean {
  return a.slice(0, 10) === b.slice(0, 10);
}

/** Real minutes from `a` to `b`, for placing things on an axis. */
export function minutesBetween(a: string, b: string): number {
  return Math.round((momentOf(b) - momentOf(a)) / MINUTE_MS);
}

/** What the clock shows so many real minutes after it shows `iso`. */
export function shifted(iso: string, minutes: number): string {
  return shownAt(momentOf(iso) + Math.round(minutes) * MINUTE_MS);
}

/** The same time some days later on the calendar. */
export function daysLater(iso: string, days: number): string {
  return civil(asUtc(iso) + days * 86_400_000);
}

/** A time of the day, `14:05`, on the day on which it is nearest to a moment. */
export function nearest(to: string, time: string): string {
  const same = `${to.slice(0, 10)}T${time}`;
  const all = [daysLater(same, -1), same, daysLater(same, 1)];
  const away = (iso: string) => Math.abs(asUtc(iso) - asUtc(to));
  return all.reduce((best, one) => (away(one) < away(best) ? one : best), same);
}

/** A time of the day on the first day on which it comes after a moment. */
export function nextAfter(after: string, time: string): string {
  const same = `${after.slice(0, 10)}T${time}`;
  return same > after.slice(0, 16) ? same : daysLater(same, 1);
}

/** The next mark of so many minutes after a time of the day, `14:05`, or before it; within the day. */
export function nextMark(time: string, step: number, direction: number): string {
  const at = minutesPast(`T${time}`) / step;
  const next = direction > 0 ? Math.floor(at) + 1 : Math.ceil(at) - 1;
  const minutes = Math.min(Math.max(next, 0), (24 * 60) / step - 1) * step;
  return `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;
}

/** Minutes of the day: what the clock shows, for ticks that fall on whole hours. */
export function minutesPast(iso: string): number {
  const [, h = "0", m = "0"] = /T(\d\d):(\d\d)/.exec(iso) ?? [];
  return Number(h) * 60 + Number(m);
}

/** This moment by the kitchen's clock, as the server would write it. */
export function now(): string {
  return shownAt(Date.now());
}

/** Whether it is later than so many real minutes after the kitchen's clock shows a time. */
export function isPast(iso: string, minutes: number): boolean {
  return momentOf(iso) + minutes * MINUTE_MS < Date.now();
}

/** A UTC time, some minutes later, as the kitchen's clock shows it. */
export function localTime(utc: string, minutes = 0): string {
  return shownAt(Date.parse(utc) + minutes * MINUTE_MS);
}

/** The moment of a time of the kitchen's clock, as the server takes moments: `2026-11-28T13:00:00.000Z`. */
export function utcOf(iso: string): string {
  return new Date(momentOf(iso)).toISOString();
}

/** `46 min`, `1 h 44 min`, `2 h`. */
export function duration(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole}\u00a0min`;
  const rest = whole % 60;
  return rest === 0
    ? `${Math.floor(whole / 60)}\u00a0h`
    : `${Math.floor(whole / 60)}\u00a0h\u00a0${rest}\u00a0min`;
}

/** `14:05`, `14.05`, `1405`, `14` or `2:05 pm` as a time of the day; nothing when it is none. */
export function timeOfDay(text: string): string | undefined {
  const found = /^\s*(\d{1,2})\s*[:.h]?\s*(\d{2})?\s*([ap])?\.?(?:m\.?)?\s*$/i.exec(text);
  const half = found?.[3]?.toLowerCase();
  const [said, minutes] = [Number(found?.[1]), Number(found?.[2] ?? 0)];
  if (half && (said < 1 || said > 12)) return undefined;
  const hours = half ? (said % 12) + (half === "p" ? 12 : 0) : said;
  if (!found || hours > 23 || minutes > 59) return undefined;
  return `${two(hours)}:${two(minutes)}`;
}
