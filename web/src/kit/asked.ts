/** Two hands on one thing: which of the two changes it shall be is asked here and answered in the dialog. */
import type { FieldProblem } from "../api/client";

export type Choice = "theirs" | "mine";

export interface Asked {
  faults: readonly FieldProblem[];
  answer(choice: Choice): void;
}

let asked: Asked | null = null;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((l) => l());

/** Asks which of two changes of the same fields it shall be. */
export function askWhich(faults: readonly FieldProblem[]): Promise<Choice> {
  return new Promise((resolve) => {
    asked = {
      faults,
      answer: (choice) => {
        asked = null;
        tell();
        resolve(choice);
      },
    };
    tell();
  });
}

/** What is asked now. */
export const askedNow = (): Asked | null => asked;

export const onAsked = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
