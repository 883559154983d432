import { describe, expect, it } from "vitest";
import { rowsOf, stacked } from "./lanes";

const bar = (start_min: number, end_min: number) => ({ start_min, end_min });

describe("lanes", () => {
  it("puts what lies over each other into rows, and what follows into one", () => {
    const rows = rowsOf([bar(10, 20), bar(0, 10), bar(5, 15)]);
    expect(rows).toEqual([[bar(0, 10), bar(10, 20)], [bar(5, 15)]]);
    expect(rowsOf([])).toEqual([]);
  });

  it("stacks lanes by their rows, an empty one as high as one row", () => {
    const { lanes, bottom } = stacked([{ rows: [1, 2] }, { rows: [] }], 8, 20, 5);
    expect(lanes.map((l) => l.top)).toEqual([8, 53]);
    expect(bottom).toBe(78);
  });
});
