/** Quantities in words, by the server's table of units. The factors are the core's; none stand here. */

export type System = "metric" | "us";
export type Quantity = "length" | "mass" | "volume" | "temperature" | "duration";
export interface Unit {
  symbol: string;
  quantity: string;
  factor: number;
  offset: number;
}

const MINUS = "\u2212";
const VULGAR: Record<string, string> = {
  "1/8": "\u215b", "1/4": "\u00bc", "3/8": "\u215c", "1/2": "\u00bd", "5/8": "\u215d", "3/4": "\u00be", "7/8": "\u215e",
};

/** A number with a true minus, thousands apart, and no trailing zeros beyond `least` places. */
export function number(value: number, most: number, least = 0): string {
  // By hand: the browser's own formatting costs 50 ms at its first use.
  const places = 10 ** most;
  let text = (Math.round(Math.abs(value) * places * (1 + 1e-12)) / places).toFixed(most);
  while (text.includes(".") && text.length - text.indexOf(".") - 1 > least && text.endsWith("0")) text = text.slice(0, -1);
  if (text.endsWith(".")) text = text.slice(0, -1);
  const [whole = "0", part] = text.split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  const shown = part === undefined ? grouped : `${grouped}.${part}`;
  return value < 0 && Number(text) !== 0 ? MINUS + shown : shown;
}

/** Inches as a baker reads them: to the sixteenth where that is true to 0.02 in, else in hundredths. */
export function inches(value: number): string {
  const sixteenths = Math.round(value * 16);
  if (Math.abs(sixteenths / 16 - value) > 0.003 || sixteenths === 0) return `${number(value, 2)}\u00a0in`;
  const whole = Math.floor(sixteenths / 16);
  let top = sixteenths % 16;
  let bottom = 16;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (top === 0) return `${whole}\u00a0in`;
  const one = VULGAR[`${top}/${bottom}`];
  // A fraction that has no sign of its own stands apart from the whole, or 10 and 5/16 would read as 105/16.
  const part = one ?? `${top}\u2044${bottom}`;
  return `${whole > 0 ? whole : ""}${whole > 0 && one === undefined ? "\u00a0" : ""}${part}\u00a0in`;
}

export interface Format {
  system: System;
  /** `6 mm`, `¼ in`. */
  length(mm: number): string;
  /** `98–101 mm`. */
  lengths(from_mm: number, to_mm: number): string;
  /** `1,155 g`, `2 lb 8.7 oz`. */
  mass(g: number): string;
  /** `2.31 kg`: for headlines. */
  bigMass(g: number): string;
  /** `4.2°`, `39.6°`: the scale is named where the switch is. */
  temperature(c: number, places?: number): string;
  /** `1.3°` warmer or colder. */
  difference(k: number): string;
  /** Symbol in which a bare number is typed and shown. */
  symbol(quantity: Quantity): string;
  /** A base value in the shown unit, for an axis or a field. */
  shown(quantity: Quantity, base: number): number;
  /** The base value of one in the shown unit. */
  base(quantity: Quantity, shown: number): number;
}

const SHOWN: Record<System, Record<Quantity, string>> = {
  metric: { length: "mm", mass: "g", volume: "mL", temperature: "\u00b0C", duration: "min" },
  us: { length: "in", mass: "oz", volume: "cup", temperature: "\u00b0F", duration: "min" },
};

export function makeFormat(system: System, table: readonly Unit[]): Format {
  const find = (quantity: Quantity, symbol: string): Unit =>
    table.find((u) => u.quantity === quantity && u.symbol === symbol) ?? { symbol, quantity, factor: 1, offset: 0 };
  const unit = (quantity: Quantity) => find(quantity, SHOWN[system][quantity]);
  const shown = (quantity: Quantity, base: number) => (base - unit(quantity).offset) / unit(quantity).factor;
  const base = (quantity: Quantity, value: number) => value * unit(quantity).factor + unit(quantity).offset;
  const us = system === "us" && table.length > 0;
  const pound = find("mass", "lb");
  const ounce = find("mass", "oz");
  const mass = (g: number): string => {
    if (!us) return `${number(g, g < 10 ? 1 : 0)}\u00a0g`;
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
  return {
    system: us ? "us" : "metric",
    lengths: (from, to) =>
      us
        ? `${number(shown("length", from), 2)}–${number(shown("length", to), 2)}\u00a0in`
        : `${number(from, from < 20 ? 1 : 0)}–${number(to, from < 20 ? 1 : 0)}\u00a0mm`,
    length: (mm) => (us ? inches(shown("length", mm)) : `${number(mm, mm < 20 ? 1 : 0)}\u00a0mm`),
    mass,
    bigMass: (g) => (us || g < 1000 ? mass(g) : `${number(g / find("mass", "kg").factor, 2, 2)}\u00a0kg`),
    temperature: (c, places = 1) => `${number(shown("temperature", c), places)}\u00b0`,
    difference: (k) => `${number(k / unit("temperature").factor, 1)}\u00b0`,
    symbol: (quantity) => SHOWN[us ? "us" : "metric"][quantity],
    shown,
    base,
  };
}
