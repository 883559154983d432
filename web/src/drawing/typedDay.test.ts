import { describe, expect, it, vi } from "vitest";
import { typedDay } from "./typedDay";

/** A Wednesday. */
const NOW = "2026-12-02T09:30";

describe("a day is read as people type it", () => {
  it.each([
    ["Sat", "2026-12-05"],
    ["saturday", "2026-12-05"],
    ["Sat, Dec 5", "2026-12-05"],
    ["5 Dec", "2026-12-05"],
    ["Dec 5", "2026-12-05"],
    ["december 5th", "2026-12-05"],
    ["12/5", "2026-12-05"],
    ["12/5/2026", "2026-12-05"],
    ["2026-12-05", "2026-12-05"],
    ["Mon, Jan 4, 2027", "2027-01-04"],
    ["today", "2026-12-02"],
    ["tomorrow", "2026-12-03"],
    ["next friday", "2026-12-11"],
    ["in 3 days", "2026-12-05"],
    ["5", "2026-12-05"],
    ["1st", "2027-01-01"],
    ["Dec 1", "2027-12-01"],
  ])("%s", (text, day) => {
    expect(typedDay(text, NOW)).toEqual({ day });
  });

  it("with its time", () => {
    expect(typedDay("Sat 2pm", NOW)).toEqual({ day: "2026-12-05", time: "14:00" });
    expect(typedDay("Dec 5 at 14:30", NOW)).toEqual({ day: "2026-12-05", time: "14:30" });
  });

  it("days that were lie behind", () => {
    expect(typedDay("Dec 1", NOW, true)).toEqual({ day: "2026-12-01" });
    expect(typedDay("1", NOW, true)).toEqual({ day: "2026-12-01" });
    expect(typedDay("yesterday", NOW, true)).toEqual({ day: "2026-12-01" });
  });

  it.each([
    "",
    "soon",
    "the harbor",
    "Feb 30",
    "31st of June",
    "Sat or Sun",
    "Dec 5 to Dec 7",
    "45",
    "14:00",
  ])("%s is no day", (text) => {
    expect(typedDay(text, NOW)).toBeUndefined();
  });

  it("in whatever zone the browser is", () => {
    for (const zone of ["Pacific/Kiritimati", "Pacific/Pago_Pago", "America/New_York"]) {
      vi.stubEnv("TZ", zone);
      expect(typedDay("tomorrow", "2026-03-07T23:59")).toEqual({ day: "2026-03-08" });
    }
    vi.unstubAllEnvs();
  });
});
