import { describe, expect, it } from "vitest";
import { baseOf } from "./base";

describe("the address of a page", () => {
  it("is the demo's below /demo and nowhere else", () => {
    expect(["/demo", "/demo/", "/demo/jobs/1/order"].map(baseOf)).toEqual(["/demo", "/demo", "/demo"]);
    expect(["/", "/demonstration", "/jobs/1/demo", "/new"].map(baseOf)).toEqual(["", "", "", ""]);
  });
});
