// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { minuteOf, pressed, type Run, type Seen } from "./run";

const seen = (change: Partial<Run>, told_ms = 1000): Seen => ({
  run: { now_min: 200, speed: 1, ended: false, ...change } as Run,
  told_ms,
  connected: true,
  fault: undefined,
});

describe("a run at the bench", () => {
  it("draws its minute on from when it was told, at its own speed", () => {
    expect(minuteOf(seen({}), 61_000)).toBeCloseTo(201);
    expect(minuteOf(seen({ speed: 60 }), 2000)).toBeCloseTo(201);
    expect(minuteOf({ ...seen({}), run: undefined }, 61_000)).toBe(0);
  });

  it("stands still once it has ended", () => {
    expect(minuteOf(seen({ ended: true }), 600_000)).toBe(200);
  });

  it("takes what was pressed and not sent yet for done, and nothing else", () => {
    const all = pressed([
      { what: { kind: "done", task: 3 } },
      { what: { kind: "started", task: 4 } },
      { what: { kind: "dropped", task: 5 } },
      { what: { kind: "more_time", task: 6, min: 5 } },
      { what: { kind: "taken_back", event: 7 } },
    ]);
    expect([...all]).toEqual([3, 4, 5]);
  });
});
