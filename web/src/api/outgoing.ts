/**
 * Changes on their way to the server, one after the other, in the order in which they were made. What cannot be taken at the moment (nobody answers,
 * busy, full, not let in) waits and is sent again with growing pauses; it is given up by nobody but the server's own no.
 */
import { Refusal } from "./client";
import { mayPassLater, pauseAfter } from "./pauses";

export interface Outgoing {
  /** Changes that were made here and are not taken yet. */
  waiting: number;
  /** Why the first of them is not taken yet, where it was tried. */
  held: Refusal | undefined;
  /** How often it was tried. */
  tries: number;
}

let state: Outgoing = { waiting: 0, held: undefined, tries: 0 };
const listeners = new Set<() => void>();
let turn: Promise<unknown> = Promise.resolve();
let wake: (() => void) | undefined;

function set(next: Outgoing): void {
  state = next;
  listeners.forEach((told) => told());
}

export const outgoing = (): Outgoing => state;

export const onOutgoing = (told: () => void): (() => void) => {
  listeners.add(told);
  return () => void listeners.delete(told);
};

/** Tries what waits again now. */
export const tryNow = (): void => wake?.();

/** Whether a change may be sent again where nobody answered: it may have been made already, which must do no harm. */
export type Repeats = "does no harm" | "would be made twice";

async function sent<T>(send: () => Promise<T>, repeats: Repeats): Promise<T> {
  for (let failures = 1; ; failures += 1) {
    try {
      return await send();
    } catch (error) {
      if (!mayPassLater(error) || !(error instanceof Refusal)) throw error;
      if (error.problem.status === 0 && repeats === "would be made twice") throw error;
      set({ ...state, held: error, tries: failures });
      await new Promise<void>((again) => {
        wake = again;
        setTimeout(again, pauseAfter(failures));
      });
    }
  }
}

/** Makes a change when those before it are made. */
export function inTurn<T>(send: () => Promise<T>, repeats: Repeats): Promise<T> {
  set({ ...state, waiting: state.waiting + 1 });
  const its = turn.then(() => sent(send, repeats));
  const over = () => set({ waiting: state.waiting - 1, held: undefined, tries: 0 });
  turn = its.then(over, over);
  return its;
}

// Whoever leaves while something waits behind another is asked; what is on its way already arrives by itself.
if (typeof addEventListener === "function") {
  addEventListener("beforeunload", (e) => {
    if (state.waiting > 1 || state.held) e.preventDefault();
  });
}
