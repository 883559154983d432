// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { taking, useHeldPresses } from "./taking";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function Page({ onPress, disabled = false }: { onPress(): void; disabled?: boolean }) {
  useHeldPresses();
  return (
    <>
      <main>
        <button type="button" className="btn" disabled={disabled} onClick={onPress}>
          Make the plan
        </button>
      </main>
      <button type="button" className="btn" onClick={onPress}>
        Jobs
      </button>
    </>
  );
}

/** A field's text on its way, with its end in our hands. */
function typed() {
  const ends: { take?: () => void; refuse?: (why: Error) => void } = {};
  const work = new Promise<void>((take, refuse) => Object.assign(ends, { take, refuse }));
  const done = taking(work).catch(() => undefined);
  return { take: () => ends.take?.(), refuse: () => ends.refuse?.(new Error("refused")), done };
}
const soon = (ms = 100) => act(() => vi.advanceTimersByTimeAsync(ms));
const press = (name: string) => act(() => screen.getByText(name).click());

it("a press waits for what was typed, is made once, and none is held when nothing is typed", async () => {
  const pressed = vi.fn();
  render(<Page onPress={pressed} />);
  const field = typed();
  press("Make the plan");
  press("Make the plan");
  await soon();
  expect(pressed).not.toHaveBeenCalled();
  field.take();
  await soon();
  expect(pressed).toHaveBeenCalledTimes(1);
  press("Make the plan");
  expect(pressed).toHaveBeenCalledTimes(2);
});

it("of two fields the later is waited for, and a button that is not ready yet", async () => {
  const pressed = vi.fn();
  const { rerender } = render(<Page onPress={pressed} />);
  const [one, other] = [typed(), typed()];
  press("Make the plan");
  one.take();
  await soon();
  expect(pressed).not.toHaveBeenCalled();
  rerender(<Page onPress={pressed} disabled />);
  other.take();
  await soon(500);
  expect(pressed).not.toHaveBeenCalled();
  rerender(<Page onPress={pressed} />);
  await soon();
  expect(pressed).toHaveBeenCalledTimes(1);
});

it("nothing is made of the figure before one that was refused", async () => {
  const pressed = vi.fn();
  render(<Page onPress={pressed} />);
  const field = typed();
  press("Make the plan");
  field.refuse();
  await soon(10_000);
  expect(pressed).not.toHaveBeenCalled();
});

it("what lies outside the page's work is pressed at once, and all of it where a field gets no answer", async () => {
  const pressed = vi.fn();
  render(<Page onPress={pressed} />);
  const field = typed();
  press("Jobs");
  expect(pressed).toHaveBeenCalledTimes(1);
  await soon(6_000);
  press("Make the plan");
  expect(pressed).toHaveBeenCalledTimes(2);
  field.take();
  await field.done;
});
