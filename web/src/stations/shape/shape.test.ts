// @vitest-environment jsdom
import { describe, expect, it, vi } from "vitest";
import { roll } from "./EvenView";
import { candidates, givenIn, type Given } from "./given";
import { sectionPath } from "./LogDrawing";
import { spiral } from "./PatternDrawing";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const radius = ([x = 0, y = 0]: number[]): number => Math.hypot(x, y);

const USUAL: Given = [
  ["mass_g", 600],
  ["width_mm", 48],
  ["slice_mm", 6],
];

describe("three of five measures", () => {
  it("are read from the address in the order they were typed, or as usual where it does not hold three", () => {
    expect(givenIn(new URLSearchParams("form=round&slices=12&mass_g=450&width_mm=48"))).toEqual([
      ["slices", 12],
      ["mass_g", 450],
      ["width_mm", 48],
    ]);
    expect(givenIn(new URLSearchParams("mass_g=450"))).toEqual([]);
  });

  it("change in place, or the one typed longest ago gives way", () => {
    expect(candidates(USUAL, "mass_g", 450)).toEqual([
      [
        ["mass_g", 450],
        ["width_mm", 48],
        ["slice_mm", 6],
      ],
    ]);
    const tried = candidates(USUAL, "slices", 12);
    expect(tried).toHaveLength(3);
    expect(tried[0]).toEqual([
      ["width_mm", 48],
      ["slice_mm", 6],
      ["slices", 12],
    ]);
  });
});

describe("sections of logs and pinwheels", () => {
  it("are closed outlines of their width", () => {
    for (const form of ["round", "square", "oblong", "half_round", "wedge"] as const)
      expect(sectionPath(form, 40, 20)).toMatch(/^M0 .*z$/);
    expect(sectionPath("square", 40, 40)).toContain("h40v-40");
  });

  it("wind from the heart to half a turn under the rim", () => {
    const points = spiral(8, 4, 4, 50)
      .slice(1)
      .split("L")
      .map((p) => p.split(" ").map(Number));
    expect(radius(points[0] ?? [])).toBeCloseTo(6, 1);
    expect(radius(points.at(-1) ?? [])).toBeCloseTo(25 - 4 - 2 + 4, 1);
  });
});

describe("sheets counted over the rolls", () => {
  it("belong to the roll they come from, those beyond to the last", () => {
    const rolls = [
      { sheets: 2, n: "a" },
      { sheets: 1, n: "b" },
    ];
    expect([0, 1, 2, 9].map((s) => roll(rolls, s).n)).toEqual(["a", "a", "b", "b"]);
  });
});
