/** Quantities in words, by the server's table of units. The factors are the core's; none stand here. */

export type System = "metric" | "us";

/** How somebody likes to read things: four choices, free of each other. */
export interface Units {
  /** Grams; ounces and pounds; grams with cups and spoons beside. */
  weight: "g" | "oz" | "cups";
  /** Millimetres, centimetres from ten of them; inches by the ruler's fractions. */
  length: "mm" | "in";
  temperature: "c" | "f";
  clock: "24" | "12";
}

/** The choices that usually go together. */
export const PRESETS: Record<System, Units> = {
  metric: { weight: "g", length: "mm", temperature: "c", clock: "24" },
  us: { weight: "oz", length: "in", temperature: "f", clock: "12" },
};
export type Quantity = "length" | "mass" | "volume" | "temperature" | "duration";
export interface Unit {
  symbol: string;
  quantity: string;
  factor: number;
  offset: number;
}

const MINUS = "\u2212";
const VULGAR: Record<string, string> = {
  "1/8": "\u215b",
  "1/4": "\u00bc",
  "3/8": "\u215c",
  "1/2": "\u00bd",
  "5/8": "\u215d",
  "3/4": "\u00be",
  "7/8": "\u215e",
};

/** A number with a true minus, thousands apart, and no trailing zeros beyond `least` places. */
export function number(value: number, most: number, least = 0): string {
  // By hand: the browser's own formatting costs 50 ms at its first use.
  const places = 10 ** most;
  let text = (Math.round(Math.abs(value) * places * (1 + 1e-12)) / places).toFixed(most);
  while (text.includes(".") && text.length - text.indexOf(".") - 1 > least && text.endsWith("0"))
    text = text.slice(0, -1);
  if (text.endsWith(".")) text = text.slice(0, -1);
  const [whole = "0", part] = text.split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  const shown = part === undefined ? grouped : `${grouped}.${part}`;
  return value < 0 && Number(text) !== 0 ? MINUS + shown : shown;
}

/** Below this no ruler shows it: half its smallest division. */
const UNDER = 1 / 32;
/** So near a division it is that; else a baker says scant or full. Our own choice. */
const AS_GOOD_AS = 0.008;

/** Sixteenths up to half an inch, eighths above. */
const finest = (size: number): number => (size < 0.5 ? 16 : 8);

/** A length by the ruler. */
function fraction(value: number): string {
  const fine = finest(value);
  const parts = Math.round(value * fine);
  const whole = Math.floor(parts / fine);
  let top = parts % fine;
  let bottom = fine;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (top === 0) return String(whole);
  const one = VULGAR[`${top}/${bottom}`];
  // A fraction that has no sign of its own stands apart from the whole, or 10 and 5/16 would read as 105/16.
  const part = one ?? `${top}\u2044${bottom}`;
  return `${whole > 0 ? whole : ""}${whole > 0 && one === undefined ? "\u00a0" : ""}${part}`;
}

/** Inches as a baker reads them off a ruler: `¼ in`, `scant ¼ in`, `9¾ in`. */
export function inches(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return "0\u00a0in";
  if (size < UNDER) {
    const text = number(value, 2);
    return text === "0" ? "less than 0.01\u00a0in" : `${text}\u00a0in`;
  }
  const fine = finest(size);
  const off = size - Math.round(size * fine) / fine;
  const nearly = size >= 0.5 || Math.abs(off) <= AS_GOOD_AS ? "" : off < 0 ? "scant " : "full ";
  return `${value < 0 ? MINUS : ""}${nearly}${fraction(size)}\u00a0in`;
}

/** From so many inches to so many. */
function inchesBetween(from: number, to: number): string {
  if (to < UNDER) return inches(to);
  const [least, most] = [fraction(from), fraction(to)];
  return least === most ? `${most}\u00a0in` : `${least}–${most}\u00a0in`;
}

/** What an oven's dial can be set to: every 25 °F, and by fives between. */
function onDial(f: number): number {
  const mark = Math.round(f / 25) * 25;
  return Math.abs(f - mark) <= 4 ? mark : Math.round(f / 5) * 5;
}

export interface Format {
  units: Units;
  /** Of rulers and paper. */
  ruler: System;
  /** `6 mm`, `31 cm`, `¼ in`. */
  length(mm: number): string;
  /** `98–101 mm`. */
  lengths(from_mm: number, to_mm: number): string;
  /** `1,155 g`, `2 lb 8.7 oz`. */
  mass(g: number): string;
  /** `2.31 kg`: for headlines. */
  bigMass(g: number): string;
  /** `4.2°`, `39.6°F`. */
  temperature(c: number, places?: number): string;
  /** An oven's setting, as its dial shows it: `175°`, `350°F`. */
  oven(c: number): string;
  /** `1.3°` warmer or colder. */
  difference(k: number): string;
  /** Symbol in which a bare number is typed and shown. */
  symbol(quantity: Quantity): string;
  /** A base value in the shown unit, for an axis or a field. */
  shown(quantity: Quantity, base: number): number;
  /** The base value of one in the shown unit. */
  base(quantity: Quantity, shown: number): number;
}

/** From here on lengths are told in centimetres. */
const IN_CM_FROM_MM = 100;

export function makeFormat(of: System | Units, table: readonly Unit[]): Format {
  // Until the table of units is there, all is shown as it is kept.
  const chosen = table.length === 0 ? PRESETS.metric : typeof of === "string" ? PRESETS[of] : of;
  const ounces = chosen.weight === "oz";
  const inch = chosen.length === "in";
  const fahrenheit = chosen.temperature === "f";
  const symbols: Record<Quantity, string> = {
    length: inch ? "in" : "mm",
    mass: ounces ? "oz" : "g",
    volume: chosen.weight === "g" ? "mL" : "cup",
    temperature: fahrenheit ? "\u00b0F" : "\u00b0C",
    duration: "min",
  };
  const find = (quantity: Quantity, symbol: string): Unit =>
    table.find((u) => u.quantity === quantity && u.symbol === symbol) ?? {
      symbol,
      quantity,
      factor: 1,
      offset: 0,
    };
  const unit = (quantity: Quantity) => find(quantity, symbols[quantity]);
  const shown = (quantity: Quantity, base: number) => (base - unit(quantity).offset) / unit(quantity).factor;
  const base = (quantity: Quantity, value: number) => value * unit(quantity).factor + unit(quantity).offset;
  const pound = find("mass", "lb");
  const ounce = find("mass", "oz");
  const centimetre = find("length", "cm");
  const mass = (g: number): string => {
    if (!ounces) return `${number(g, g < 10 ? 1 : 0)}\u00a0g`;
    // A teaspoon of salt is a fifth of an ounce: small weights need their second place.
    if (g < pound.factor) return `${number(g / ounce.factor, g < ounce.factor ? 2 : 1)}\u00a0oz`;
    let whole = Math.floor(g / pound.factor);
    let rest = Math.round(((g - whole * pound.factor) / ounce.factor) * 10) / 10;
    if (rest * ounce.factor >= pound.factor) {
      whole += 1;
      rest = 0;
    }
    return rest === 0 ? `${whole}\u00a0lb` : `${whole}\u00a0lb ${number(rest, 1)}\u00a0oz`;
  };
  const long = (mm: number) => table.length > 0 && Math.abs(mm) >= IN_CM_FROM_MM;
  const metric = (mm: number) =>
    long(mm) ? `${number(mm / centimetre.factor, 1)}\u00a0cm` : `${number(mm, mm < 20 ? 1 : 0)}\u00a0mm`;
  const metricBetween = (from: number, to: number) => {
    if (long(to))
      return `${number(from / centimetre.factor, 1)}–${number(to / centimetre.factor, 1)}\u00a0cm`;
    const places = from < 20 ? 1 : 0;
    return `${number(from, places)}–${number(to, places)}\u00a0mm`;
  };
  const degree = fahrenheit ? "\u00b0F" : "\u00b0";
  return {
    units: chosen,
    ruler: inch ? "us" : "metric",
    lengths: (from, to) =>
      inch ? inchesBetween(shown("length", from), shown("length", to)) : metricBetween(from, to),
    length: (mm) => (inch ? inches(shown("length", mm)) : metric(mm)),
    mass,
    bigMass: (g) => (ounces || g < 1000 ? mass(g) : `${number(g / find("mass", "kg").factor, 2, 2)}\u00a0kg`),
    // A whole degree Fahrenheit is finer than a half of the others.
    temperature: (c, places = fahrenheit ? 0 : 1) => `${number(shown("temperature", c), places)}${degree}`,
    oven: (c) => `${number(fahrenheit ? onDial(shown("temperature", c)) : c, 0)}${degree}`,
    difference: (k) => `${number(k / unit("temperature").factor, 1)}\u00b0`,
    symbol: (quantity) => symbols[quantity],
    shown,
    base,
  };
}
