/** Sentences of the server: their quantities travel as typed parts and are written here in the units shown. */
import { number, type Format } from "./units";

export interface Figure {
  quantity: "length" | "mass" | "temperature" | "setting" | "difference" | "span" | "share";
  value: number;
  and?: number | null;
  joint?: string | null;
  places: number;
}

export interface Sentence {
  /** All of it in metric units. */
  text: string;
  parts?: readonly (string | Figure)[];
}

/** A sentence, or words of this page. */
export type Said = string | Sentence;

function figure({ quantity, value, and, joint, places }: Figure, format: Format): string {
  const [one, unit]: [(v: number) => string, string] = {
    // Scant and full are for a figure that stands alone.
    length: [(mm: number) => format.length(mm).replace(/^(scant|full) /, ""), ""] as const,
    mass: [format.mass, ""] as const,
    temperature: [
      (c: number) => number(format.shown("temperature", c), places),
      format.units.temperature === "f" ? "\u00b0F" : "\u00a0\u00b0C",
    ] as const,
    setting: [
      (c: number) => format.oven(c).replace(/\u00b0F?$/, ""),
      format.units.temperature === "f" ? "\u00b0F" : "\u00a0\u00b0C",
    ] as const,
    difference: [
      (k: number) => number(format.shown("temperature", k) - format.shown("temperature", 0), places),
      "\u00b0",
    ] as const,
    span: [(min: number) => number(min, places), "\u00a0min"] as const,
    share: [(percent: number) => number(percent, places), "%"] as const,
  }[quantity] as [(v: number) => string, string];
  const first = one(value);
  const other = and === undefined || and === null ? undefined : one(and);
  // A range that is one value as shown is told as that.
  if (other === undefined || (joint === "to" && other === first)) return first + unit;
  return `${first} ${joint ?? "to"} ${other}${unit}`;
}

/** A figure and its unit never part at the end of a line. */
const tied = (text: string): string =>
  text.replace(/(\d) (mm|cm|k?g|min|h|\u00b0C)(?![\p{L}\d])/gu, "$1\u00a0$2");

/** What is said, in the units shown. */
export function say(said: Said, format: Format): string {
  if (typeof said === "string") return said;
  const { weight, length, temperature } = format.units;
  if ((weight !== "oz" && length === "mm" && temperature === "c") || !said.parts?.length)
    return tied(said.text);
  return said.parts.map((part) => (typeof part === "string" ? part : figure(part, format))).join("");
}

/** What tells one sentence from another. */
export const textOf = (said: Said): string => (typeof said === "string" ? said : said.text);

/** With a capital at the front. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const ended = (text: string) => (/[.?]$/.test(text) ? text : `${text}.`);

/** With a capital at its start and a stop at its end. */
export function sentence(said: string): string;
export function sentence(said: Sentence): Sentence;
export function sentence(said: Said): Said;
export function sentence(said: Said): Said {
  if (typeof said === "string") return ended(capital(said));
  const [first, ...rest] = said.parts ?? [];
  if (first === undefined) return { text: ended(capital(said.text)) };
  const parts = [typeof first === "string" ? capital(first) : first, ...rest];
  const last = parts.at(-1);
  const stopped = typeof last === "string" ? [...parts.slice(0, -1), ended(last)] : [...parts, "."];
  return { text: ended(capital(said.text)), parts: stopped };
}

/** The same with words of this page before it. */
export function after(words: string, said: Said): Said {
  if (typeof said === "string" || !said.parts?.length) return words + textOf(said);
  return { text: words + said.text, parts: [words, ...said.parts] };
}
