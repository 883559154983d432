// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Refusal } from "./client";
import { stands } from "./queries";
import { inTurn, outgoing, tryNow } from "./outgoing";
import { mayPassLater, pauseAfter } from "./pauses";

const refusal = (status: number) => new Refusal({ title: "no", status, detail: "not now", errors: [] });

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

it("a change that the server cannot take at the moment is sent again, those after it behind it", async () => {
  const done: string[] = [];
  const answers = [refusal(503), refusal(507), refusal(401), refusal(0)];
  const first = inTurn(async () => {
    await Promise.resolve();
    const answer = answers.shift();
    if (answer) throw answer;
    done.push("first");
  }, "does no harm");
  const second = inTurn(() => Promise.resolve(done.push("second")), "would be made twice");
  await vi.advanceTimersByTimeAsync(10);
  expect([outgoing().waiting, outgoing().held?.problem.status]).toEqual([2, 503]);
  // Whoever shuts the window is asked.
  const leaving = new Event("beforeunload", { cancelable: true });
  dispatchEvent(leaving);
  expect(leaving.defaultPrevented).toBe(true);
  tryNow();
  await vi.advanceTimersByTimeAsync(10);
  expect(outgoing().held?.problem.status).toBe(507);
  await vi.advanceTimersByTimeAsync(2_000 + 4_000 + 8_000);
  await Promise.all([first, second]);
  expect(done).toEqual(["first", "second"]);
  expect(outgoing()).toEqual({ waiting: 0, held: undefined, tries: 0 });
  const later = new Event("beforeunload", { cancelable: true });
  dispatchEvent(later);
  expect(later.defaultPrevented).toBe(false);
});

it("the server's own no is told at once, and holds nothing up", async () => {
  const refused = inTurn(() => Promise.reject(refusal(422)), "does no harm");
  const next = inTurn(() => Promise.resolve("made"), "does no harm");
  await expect(refused).rejects.toThrow("not now");
  await expect(next).resolves.toBe("made");
});

it("what would be made twice is not sent again where nobody answered", async () => {
  await expect(inTurn(() => Promise.reject(refusal(0)), "would be made twice")).rejects.toThrow("not now");
});

it("knows what passes", () => {
  expect([0, 401, 429, 503, 507].every((s) => mayPassLater(refusal(s)))).toBe(true);
  expect([400, 403, 404, 409, 412, 413, 422, 500].some((s) => mayPassLater(refusal(s)))).toBe(false);
  expect([1, 2, 3, 6, 20].map(pauseAfter)).toEqual([1000, 2000, 4000, 30_000, 30_000]);
});

it("a change that stands already is not asked about", () => {
  const now = { pieces: 48, name: "Gulls", wanted: null, lines: [{ grams: 5 }] };
  expect(stands({ pieces: 48 }, now)).toBe(true);
  expect(stands({ pieces: 48, lines: [{ grams: 5 }], wanted: undefined }, now)).toBe(true);
  expect([
    stands({ pieces: 47 }, now),
    stands({ pieces: 48 }, undefined),
    stands({ pieces: 48 }, null),
  ]).toEqual([false, false, false]);
});
