import { expect, it } from "vitest";
import { bakedColour } from "./colour";

const light = (index: number) => (/rgb\((\d+) (\d+) (\d+)\)/.exec(bakedColour(index)) ?? []).slice(1).reduce((sum, v) => sum + Number(v), 0);

it("a surface gets darker from raw to burnt, without a jump", () => {
  for (let i = 0; i < 100; i++) {
    expect(light(i + 1)).toBeLessThanOrEqual(light(i));
    expect(light(i) - light(i + 1)).toBeLessThan(20);
  }
  expect(bakedColour(-5)).toBe(bakedColour(0));
  expect(bakedColour(140)).toBe(bakedColour(100));
});
