/** Local civil times as the server sends them, `2026-11-28T14:00`, in words. No arithmetic on plans happens here. */

const WEEKDAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const LONG_WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

function read(iso: string): Date {
  return new Date(`${iso}:00`);
}

/** `14:00`, `9:26`. */
export function clock(iso: string): string {
  const [, hours = "0", minutes = "00"] = /T(\d\d):(\d\d)/.exec(iso) ?? [];
  return `${Number(hours)}:${minutes}`;
}

/** `Sat 14:00`. */
export function dayClock(iso: string): string {
  return `${WEEKDAYS[read(iso).getDay()] ?? ""} ${clock(iso)}`;
}

/** `Saturday 28 Nov`. */
export function longDay(iso: string): string {
  const date = read(iso);
  return `${LONG_WEEKDAYS[date.getDay()] ?? ""} ${date.getDate()} ${MONTHS[date.getMonth()] ?? ""}`;
}

/** Whether the two lie on the same day. */
export function sameDay(a: string, b: string): boolean {
  return a.slice(0, 10) === b.slice(0, 10);
}

/** Minutes from `a` to `b`, for placing things on an axis. */
export function minutesBetween(a: string, b: string): number {
  return Math.round((read(b).getTime() - read(a).getTime()) / 60000);
}

/** `iso` moved by whole minutes, for the labels of an axis. */
export function shifted(iso: string, minutes: number): string {
  return civil(new Date(read(iso).getTime() + minutes * 60000));
}

/** This moment, as the server would write it. */
export function now(): string {
  return civil(new Date());
}

/** A UTC time, some minutes later, as the clock on this wall shows it. */
export function localTime(utc: string, minutes = 0): string {
  return civil(new Date(new Date(utc).getTime() + minutes * 60_000));
}

const two = (n: number) => String(n).padStart(2, "0");

function civil(date: Date): string {
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}T${two(date.getHours())}:${two(date.getMinutes())}`;
}

/** `46 min`, `1 h 44`, `2 h`. */
export function duration(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  const rest = whole % 60;
  return rest === 0 ? `${Math.floor(whole / 60)} h` : `${Math.floor(whole / 60)} h ${String(rest).padStart(2, "0")}`;
}

/** `14:05`, `14.05`, `1405` or `14` as a time of the day; nothing when it is none. */
export function timeOfDay(text: string): string | undefined {
  const found = /^\s*(\d{1,2})\s*[:.h]?\s*(\d{2})?\s*$/.exec(text);
  const [hours, minutes] = [Number(found?.[1]), Number(found?.[2] ?? 0)];
  if (!found || hours > 23 || minutes > 59) return undefined;
  return `${String(hours).padStart(2, "0")}:${String(minutes).padStart(2, "0")}`;
}
