/**
 * A press waits for what was typed just before it. Leaving a field has its text read by the server, which takes a moment: whoever types a figure and
 * presses at once means the figure that was typed, not the one before it.
 */
import { useEffect } from "react";

/** A press waits no longer than this for a field, nor for its button to be ready: the server is away then. Our own choice. */
const PATIENCE_MS = 5_000;
const LOOKS_AGAIN_MS = 50;

let open = 0;
let since = 0;
let refusals = 0;
const held = new Map<HTMLButtonElement, number>();

/** Counts a field's text as on its way until it is taken or refused. */
export async function taking<T>(work: Promise<T>): Promise<T> {
  if (open === 0) since = performance.now();
  open += 1;
  try {
    return await work;
  } catch (error) {
    refusals += 1;
    throw error;
  } finally {
    open -= 1;
    // The page has drawn what was taken by then.
    if (open === 0) setTimeout(release, LOOKS_AGAIN_MS);
  }
}

function release(): void {
  if (open > 0) return;
  const presses = [...held];
  held.clear();
  // What was refused stands in its field with its fault: nothing is made of the figure before it.
  for (const [button, before] of presses)
    if (before === refusals) press(button, performance.now() + PATIENCE_MS);
}

function press(button: HTMLButtonElement, until: number): void {
  if (!button.isConnected) return;
  if (!button.disabled) button.click();
  else if (performance.now() < until) setTimeout(() => press(button, until), LOOKS_AGAIN_MS);
}

function hold(e: MouseEvent): void {
  if (open === 0 || performance.now() - since > PATIENCE_MS || !(e.target instanceof Element)) return;
  const button = e.target.closest<HTMLButtonElement>("main button.btn");
  if (!button) return;
  e.preventDefault();
  e.stopPropagation();
  held.set(button, refusals);
}

/** On every page of the frame; the bench takes each press as it comes. */
export function useHeldPresses(): void {
  useEffect(() => {
    document.addEventListener("click", hold, true);
    return () => document.removeEventListener("click", hold, true);
  }, []);
}
