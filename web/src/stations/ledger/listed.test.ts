import { expect, test } from "vitest";
import { listed } from "./listed";

test("measures typed one after the other come apart, fractions stay whole", () => {
  expect(listed("101.5 102 100.8")).toEqual(["101.5", "102", "100.8"]);
  expect(listed("4; 4 1/16; 4")).toEqual(["4", "4 1/16", "4"]);
  expect(listed("4 4 1/16 4")).toEqual(["4", "4 1/16", "4"]);
  expect(listed("4 1/16")).toEqual(["4 1/16"]);
  expect(listed("4¼ 4 ¼")).toEqual(["4¼", "4 ¼"]);
  expect(listed("1/4 1/4")).toEqual(["1/4", "1/4"]);
  expect(listed("101,5 102,2")).toEqual(["101,5", "102,2"]);
  expect(listed("101, 102, 100")).toEqual(["101", "102", "100"]);
  expect(listed("101 mm 10.2 cm")).toEqual(["101 mm", "10.2 cm"]);
  expect(listed(" ; ")).toEqual([]);
});
