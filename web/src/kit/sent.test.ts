import { describe, expect, test } from "vitest";
import { unlessChanged } from "./sent";

describe("a form that was kept", () => {
  test("is emptied where nothing was typed since", () => expect(unlessChanged("68F", "")("68F")).toBe(""));
  test("keeps what was typed while it was on its way", () =>
    expect(unlessChanged("", "")("soon")).toBe("soon"));
});
