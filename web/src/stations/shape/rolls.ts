/** What a roll of the dough is called. */
import type { Plan } from "../../api/client";
import type { Format } from "../../drawing/units";

/** A sheet's size in words. */
export function sizeWord(
  r: { form: "oblong" | "round" | "oval"; width_mm: number; length_mm: number },
  format: Format,
): string {
  const mm = (v: number) => format.length(Math.round(v));
  return r.form === "round"
    ? `a round of ${mm(r.width_mm)}`
    : `${r.form === "oval" ? "an oval of " : ""}${mm(r.width_mm)} × ${mm(r.length_mm)}`;
}

export type Roll = Plan["shape"]["rolls"][number];

export function rollName(number: number): string {
  return number === 0 ? "First roll" : number === 1 ? "Re-roll" : "Second re-roll";
}
