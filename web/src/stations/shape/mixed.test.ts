import { describe, expect, it } from "vitest";
import type { Job } from "../../api/client";
import type { Nested } from "../../api/nest";
import { cutWith, familyOf } from "../../app/lots";
import { outlinePath } from "../../drawing/path";
import { counted, fromKept, missing, sheetOf, toKeep } from "./mixed";

const lot = (id: number, more: Partial<Job> = {}): Job =>
  ({
    id,
    name: `Lot ${id}`,
    pieces: 2,
    freeze_pieces: 0,
    lot_of: id === 4 ? null : 4,
    formula_id: 1,
    formula_version: null,
    thickness_mm: 6,
    making: { kind: "cut" },
    sheet_key: "a",
    ...more,
  }) as unknown as Job;

const FOUND: Nested = {
  cuts: [
    { x_mm: 20, y_mm: 20, turn_deg: 0 },
    { x_mm: 60, y_mm: 20, turn_deg: 90, cutter: 1 },
  ],
  rows: [0],
  missing: [1, 1],
  used_mm: 99.97,
  cut_percent: 41,
  least_gap_mm: 3.1,
  least_rim_mm: 4,
  bound: 9,
  after_s: 0.2,
};

describe("the lots of a job", () => {
  it("are the job itself first, whichever of them is asked for", () => {
    const jobs = [lot(6), lot(5), lot(4), lot(9, { lot_of: null })];
    for (const one of [jobs[0], jobs[2]])
      expect(familyOf(one as Job, jobs).map((j) => j.id)).toEqual([4, 5, 6]);
  });

  it("go on one sheet when their keys are one, and never without a key", () => {
    const family = [
      lot(4),
      lot(5, { sheet_key: "b" }),
      lot(6, { sheet_key: null }),
      lot(7, { sheet_key: null }),
      lot(8),
    ];
    expect(cutWith(family[0] as Job, family).map((j) => j.id)).toEqual([4, 8]);
    expect(cutWith(family[2] as Job, family)).toEqual([]);
  });
});

describe("sheets of several lots", () => {
  const lots = [lot(4), lot(5, { pieces: 3, freeze_pieces: 1 })];

  it("count what lies there and what is still to be laid, without what goes to the freezer", () => {
    const sheet = sheetOf(FOUND, 440);
    expect(counted([sheet, sheet], 2)).toEqual([2, 2]);
    expect(missing(lots, [sheet])).toEqual([1, 1]);
    expect(missing(lots, [sheet, sheet])).toEqual([0, 0]);
  });

  it("are as short as their pieces allow, to a tenth and never longer than the tray", () => {
    expect(sheetOf(FOUND, 440).length_mm).toBe(100);
    expect(sheetOf({ ...FOUND, used_mm: 440.3 }, 440).length_mm).toBe(440);
  });

  it("are kept by the lots' numbers and come back as they were", () => {
    const kept = toKeep([sheetOf(FOUND, 440)], lots);
    expect(kept[0]?.pieces.map((p) => p.job_id)).toEqual([4, 5]);
    expect(toKeep(fromKept(kept, lots), lots)).toEqual(kept);
    // A lot that has gone takes the sheets with it.
    expect(fromKept(kept, [lots[0] as Job])).toEqual([]);
  });
});

it("a hole is a ring of the same path", () => {
  expect(
    outlinePath(
      [
        [0, 0],
        [9, 0],
        [9, 9],
      ],
      [
        [
          [2, 1],
          [5, 4],
          [5, 1],
        ],
      ],
    ),
  ).toBe("M0.00 0.00L9.00 0.00L9.00 9.00ZM2.00 1.00L5.00 4.00L5.00 1.00Z");
});
