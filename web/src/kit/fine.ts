/** Lengths as finely as a calliper tells them: tenths of a millimetre, or thousandths of an inch. */
import { number } from "../drawing/units";
import { useFormat } from "./settings";

const FINE = {
  mm: { mm: 1, symbol: "mm", places: 1, steps: [0.1, 0.2, 0.5, 1, 2, 5, 10, 20] },
  in: { mm: 25.4, symbol: "in", places: 3, steps: [0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1] },
} as const;

export function useFine() {
  const unit = FINE[useFormat().units.length === "in" ? "in" : "mm"];
  /** With its unit; one more place where a deviation is told. */
  const text = (mm: number, more = 0) => `${number(mm / unit.mm, unit.places + more)}\u00a0${unit.symbol}`;
  return { ...unit, text };
}
