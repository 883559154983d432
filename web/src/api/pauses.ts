/** What was refused for the moment only, and when it is tried again. */
import { Refusal } from "./client";

/** The pauses between tries: the first, and the longest they grow to. */
const FIRST_PAUSE_MS = 1_000;
const LONGEST_PAUSE_MS = 30_000;

/** How long until something is tried again that has failed so many times. */
export const pauseAfter = (failures: number): number =>
  Math.min(FIRST_PAUSE_MS * 2 ** Math.max(0, failures - 1), LONGEST_PAUSE_MS);

/** Nobody answers; not let in; too slow, too many; busy; full. */
const FOR_THE_MOMENT = [0, 401, 408, 429, 502, 503, 504, 507];

/** Whether what was refused so may be taken later as it is. */
export const mayPassLater = (error: unknown): boolean =>
  error instanceof Refusal && FOR_THE_MOMENT.includes(error.problem.status);
