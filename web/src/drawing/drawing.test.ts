import { describe, expect, it } from "vitest";
import { apart, rulerTicks, stepFor, stepped, CLOCK_STEPS } from "./scale";
import { outlinePath } from "./path";
import { clock, dayClock, duration, minutesBetween, shifted, timeOfDay } from "./time";
import FIGURES from "./figures.json";
import { after, say, sentence, type Figure } from "./sentence";
import { inches, makeFormat, number, type Unit } from "./units";

// The factors as the server sends them (NIST Handbook 44, SP 811).
const TABLE: Unit[] = [
  { symbol: "mm", quantity: "length", factor: 1, offset: 0 },
  { symbol: "in", quantity: "length", factor: 25.4, offset: 0 },
  { symbol: "cm", quantity: "length", factor: 10, offset: 0 },
  { symbol: "g", quantity: "mass", factor: 1, offset: 0 },
  { symbol: "kg", quantity: "mass", factor: 1000, offset: 0 },
  { symbol: "oz", quantity: "mass", factor: 28.349523125, offset: 0 },
  { symbol: "lb", quantity: "mass", factor: 453.59237, offset: 0 },
  { symbol: "\u00b0C", quantity: "temperature", factor: 1, offset: 0 },
  { symbol: "\u00b0F", quantity: "temperature", factor: 5 / 9, offset: -160 / 9 },
];

describe("quantities in words", () => {
  it("shows inches as a baker reads them", () => {
    expect(inches(0.25)).toBe("\u00bc\u00a0in");
    expect(inches(2.5)).toBe("2\u00bd\u00a0in");
    expect(inches(3)).toBe("3\u00a0in");
    expect(inches(0.1875)).toBe("3\u204416\u00a0in");
    // A ruler is read in eighths above an inch, and nobody reads hundredths off it.
    expect(inches(10.3125)).toBe("10\u215c\u00a0in");
    expect(inches(2.25)).toBe("2\u00bc\u00a0in");
    expect(inches(6 / 25.4)).toBe("scant \u00bc\u00a0in");
    // From half an inch on nobody measures dough finer than an eighth. Common practice.
    expect([20, 22, 25].map((mm) => inches(mm / 25.4))).toEqual([
      "\u00be\u00a0in",
      "\u215e\u00a0in",
      "1\u00a0in",
    ]);
    expect(inches(0.01)).toBe("0.01\u00a0in");
  });

  it("carries sixteen ounces into the pound", () => {
    const us = makeFormat("us", TABLE);
    expect(us.mass(453.59)).toBe("16\u00a0oz");
    expect(us.mass(453.6)).toBe("1\u00a0lb");
    expect(us.mass(907.1)).toBe("2\u00a0lb");
    expect(us.mass(1155)).toBe("2\u00a0lb 8.7\u00a0oz");
  });

  it("shows one value in both systems and brings it back", () => {
    const metric = makeFormat("metric", TABLE);
    const us = makeFormat("us", TABLE);
    expect(metric.temperature(175, 0)).toBe("175\u00b0");
    expect(us.temperature(175, 0)).toBe("347\u00b0F");
    expect(us.temperature(-18, 0)).toBe("0\u00b0F");
    // As the dial has it: 325, 350 and 375 are the marks of a US oven. Common practice.
    expect([163, 175, 190].map(us.oven)).toEqual(["325\u00b0F", "350\u00b0F", "375\u00b0F"]);
    expect(metric.oven(175)).toBe("175\u00b0");
    expect(us.difference(1.5)).toBe("2.7\u00b0");
    for (const c of [-18, 4, 21.9, 175])
      expect(us.base("temperature", us.shown("temperature", c))).toBeCloseTo(c, 9);
    for (const mm of [3, 6, 6.35, 440]) expect(us.base("length", us.shown("length", mm))).toBeCloseTo(mm, 9);
  });

  it("takes four choices, free of each other", () => {
    const mixed = makeFormat({ weight: "g", length: "in", temperature: "f", clock: "24" }, TABLE);
    expect([mixed.mass(450), mixed.length(6.35), mixed.temperature(4, 0)]).toEqual([
      "450\u00a0g",
      "\u00bc\u00a0in",
      "39\u00b0F",
    ]);
    expect(
      say(
        {
          text: "450 g at 4\u00b0",
          parts: [
            { quantity: "mass", value: 450, places: 0 },
            " at ",
            { quantity: "temperature", value: 4, places: 0 },
          ],
        },
        mixed,
      ),
    ).toBe("450\u00a0g at 39\u00b0F");
    const metric = makeFormat("metric", TABLE);
    expect([metric.length(99), metric.length(310), metric.lengths(95, 310), metric.lengths(0, 0.5)]).toEqual([
      "99\u00a0mm",
      "31\u00a0cm",
      "9.5\u201331\u00a0cm",
      "0\u20130.5\u00a0mm",
    ]);
    const us = makeFormat("us", TABLE);
    expect([us.lengths(0, 0.5), us.lengths(0, 2), us.lengths(96, 98)]).toEqual([
      "0.02\u00a0in",
      "0\u20131\u204416\u00a0in",
      "3\u00be\u20133\u215e\u00a0in",
    ]);
  });

  it("writes a true minus and never minus nothing", () => {
    expect(number(-18, 0)).toBe("\u221218");
    expect(number(-0.01, 1)).toBe("0");
    expect(number(1155, 0)).toBe("1,155");
    expect(number(1234567.891, 2)).toBe("1,234,567.89");
    expect([number(2.5, 2), number(2, 1, 1), number(0.04, 1), number(10, 1), number(100, 0)]).toEqual([
      "2.5",
      "2.0",
      "0",
      "10",
      "100",
    ]);
  });
});

describe("sentences of the server", () => {
  const us = makeFormat("us", TABLE);
  const metric = makeFormat("metric", TABLE);

  it("write every figure as the server's own words do, in both systems", () => {
    for (const { metric: text, us: there, ...figure } of FIGURES as (Figure & {
      metric: string;
      us: string;
    })[]) {
      expect(say({ text: `${text}.`, parts: [figure, "."] }, us).replaceAll("\u00a0", " ")).toBe(
        `${there.replaceAll("\u00a0", " ")}.`,
      );
      expect(say({ text: `${text}.`, parts: [figure, "."] }, metric).replaceAll("\u00a0", " ")).toBe(
        `${text}.`,
      );
    }
  });

  it("keep what is no quantity, and words of the page", () => {
    expect(say({ text: "5 pieces of the 2nd re-roll." }, us).replaceAll("\u00a0", " ")).toBe(
      "5 pieces of the 2nd re-roll.",
    );
    expect(say({ text: "6 mm for 5 min, 10 g" }, metric)).toBe("6\u00a0mm for 5\u00a0min, 10\u00a0g");
    expect(say("6 mm of our own", us).replaceAll("\u00a0", " ")).toBe("6 mm of our own");
  });

  it("begin with a capital and end with a stop in both", () => {
    const said = sentence({
      text: "never: at 19\u00b0",
      parts: ["never: at ", { quantity: "temperature", value: 19, places: 0 }],
    });
    expect([say(said, metric), say(said, us)]).toEqual(["Never: at 19\u00b0.", "Never: at 66\u00b0F."]);
    expect(
      say(
        after("Undone: ", {
          text: "to 6.35\u00a0mm",
          parts: ["to ", { quantity: "length", value: 6.35, places: 2 }],
        }),
        us,
      ),
    ).toBe("Undone: to \u00bc\u00a0in");
  });
});

describe("scales", () => {
  it("ends on whole ticks", () => {
    const scale = stepped(3.2, 21.9, [0, 100], 4);
    expect(scale.domain).toEqual([0, 24]);
    expect(scale.ticks).toEqual([0, 4, 8, 12, 16, 20, 24]);
    expect(scale(12)).toBe(50);
  });

  it("takes the finest step that is not too many", () => {
    expect(stepFor(98, 8, CLOCK_STEPS)).toBe(15);
    expect(stepFor(1e9, 8, CLOCK_STEPS)).toBe(1440);
  });

  it("rules every ten millimetres", () => {
    expect(rulerTicks(310)).toHaveLength(32);
    expect(
      rulerTicks(100)
        .filter((t) => t.kind === "long")
        .map((t) => t.figure),
    ).toEqual([0, 100]);
    const inches = rulerTicks(101.6, "us").filter((t) => t.kind === "long");
    expect(inches.map((t) => t.figure)).toEqual([0, 2, 4]);
    expect(inches[2]?.at_mm).toBeCloseTo(101.6, 9);
  });

  it("keeps labels apart without changing their order", () => {
    const moved = apart([10, 12, 11, 90], 8, 0, 100);
    const sorted = moved.toSorted((a, b) => a - b);
    for (let i = 1; i < sorted.length; i += 1)
      expect((sorted[i] ?? 0) - (sorted[i - 1] ?? 0)).toBeGreaterThanOrEqual(8);
    expect((moved[0] ?? 0) < (moved[2] ?? 0) && (moved[2] ?? 0) < (moved[1] ?? 0)).toBe(true);
  });

  it("closes an outline", () => {
    expect(
      outlinePath([
        [0, 0],
        [1, 0],
        [1, 1],
      ]),
    ).toBe("M0.00 0.00L1.00 0.00L1.00 1.00Z");
  });
});

describe("times in words", () => {
  it("reads civil times", () => {
    expect(clock("2026-11-28T09:05")).toBe("9:05");
    expect(dayClock("2026-11-28T14:00")).toBe("Sat 14:00");
    expect(minutesBetween("2026-11-28T23:30", "2026-11-29T00:15")).toBe(45);
    expect(shifted("2026-11-28T23:30", 45)).toBe("2026-11-29T00:15");
    expect(shifted("2026-11-28T00:10", -20)).toBe("2026-11-27T23:50");
  });

  it("says how long", () => {
    expect([8.4, 60, 104, 125.2].map(duration)).toEqual([
      "8\u00a0min",
      "1\u00a0h",
      "1\u00a0h\u00a044\u00a0min",
      "2\u00a0h\u00a05\u00a0min",
    ]);
  });
});

describe("a time of the day", () => {
  it("is read as people type it", () => {
    expect(["14:05", "1405", "14.05", "9:05", "9h30", " 14 ", "0:00"].map(timeOfDay)).toEqual([
      "14:05",
      "14:05",
      "14:05",
      "09:05",
      "09:30",
      "14:00",
      "00:00",
    ]);
    expect(["25:00", "12:60", "noon", "", "14:5", "-3"].map(timeOfDay)).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});
