/** What an answer of the server rests on, so that an edit asks again for what it can have changed and for nothing else. */

/** What a baker edits or notes. A `fact` is what happened: pieces in the cold, readings, notes on mixes, records. */
export type Edited = "job" | "kitchen" | "formula" | "ingredient" | "cutter" | "fact";

/** By the first word of a query's key. What is not listed may rest on anything: most is computed from a job, and with it from all the others. */
const RESTS_ON: Readonly<Record<string, readonly Edited[]>> = {
  units: [],
  "cutter forms": [],
  starters: [],
  zones: [],
  "pot-cautions": [],
  // Hot places are computed from what is sent.
  "hot-spots": [],
  cutters: ["cutter"],
  ingredients: ["ingredient"],
  reading: ["ingredient"],
  // A formula's answer holds its ingredients by name.
  formulas: ["formula", "ingredient"],
  kitchen: ["kitchen", "fact"],
  places: ["kitchen", "fact"],
  touches: ["job", "fact"],
};

/** Whether an edit of one thing can have changed what a query answers; of `anything`: undone, demo data, things taken away. */
export function canChange(edited: Edited | "anything", key: readonly unknown[]): boolean {
  const on = RESTS_ON[String(key[0])];
  if (on === undefined) return true;
  return edited === "anything" ? on.length > 0 : on.includes(edited);
}
