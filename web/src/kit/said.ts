/** What has just been done, said once, with its way back where it has one of its own. */

import type { Said } from "../drawing/sentence";

export interface Deed {
  text: Said;
  /** Takes it back. */
  back?: () => Promise<unknown>;
  /** What that is called. */
  backAs?: string;
  /** Counts up, so that the same words are said again. */
  number: number;
}

/** So long it stands there. */
const SHOWN_MS = 8_000;

let said: Deed | null = null;
let count = 0;
let timer: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((l) => l());

/** Says what was done. With `back` it can be taken back by its button, and by Ctrl Z as long as nothing else was done. */
export function say(text: Said, back?: () => Promise<unknown>, backAs = "Undo"): void {
  count += 1;
  said = { text, number: count, ...(back ? { back, backAs } : {}) };
  clearTimeout(timer);
  timer = setTimeout(hush, SHOWN_MS);
  tell();
}

export function hush(): void {
  clearTimeout(timer);
  said = null;
  tell();
}

/** The way back of what was done last, where it has one of its own; it is used once. */
export function lastDeed(): (() => Promise<unknown>) | undefined {
  return deed;
}

let deed: (() => Promise<unknown>) | undefined;

/** A fact of the day was noted here: undo takes back this one, and no edit that somebody made before. */
export function didFact(text: string, back: () => Promise<unknown>): void {
  const once = async () => {
    deed = undefined;
    await back();
    say(`Undone: ${text}`);
  };
  deed = once;
  say(text, once);
}

/** An edit was made: it is what undo takes back from now on. */
export function didEdit(): void {
  deed = undefined;
}

/** What stands there now. */
export const saidNow = (): Deed | null => said;

export const onSaid = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
