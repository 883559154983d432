import { afterEach, describe, expect, it, vi } from "vitest";
import {
  clock,
  daysLater,
  isPast,
  localTime,
  minutesBetween,
  nearest,
  nextAfter,
  nextMark,
  setClockHours,
  setZone,
  shifted,
  shortDay,
  timeOfDay,
  utcOf,
} from "./time";

afterEach(() => setZone("UTC"));

// When clocks change in 2026, from the IANA database: New York 8 March 2:00 to 3:00 and 1 November 2:00 to 1:00; the Chatham Islands
// 5 April 3:45 to 2:45 and 27 September 2:45 to 3:45.
describe("the kitchen's clock", () => {
  it("knows which of two hours of the same name has passed", () => {
    // A start at the second 1:18 of that night, 162 minutes before 4:00; now it is the first 1:30.
    setZone("America/New_York");
    vi.useFakeTimers({ now: new Date("2026-11-01T05:30:00Z") });
    expect(isPast("2026-11-01T04:00", -162)).toBe(false);
    vi.setSystemTime(new Date("2026-11-01T06:30:00Z"));
    expect(isPast("2026-11-01T04:00", -162)).toBe(true);
    vi.useRealTimers();
  });

  it("counts real minutes across both changes of New York", () => {
    setZone("America/New_York");
    expect(shifted("2026-03-08T04:00", -105)).toBe("2026-03-08T01:15");
    expect(minutesBetween("2026-03-08T01:15", "2026-03-08T04:00")).toBe(105);
    expect(shifted("2026-11-01T04:00", -165)).toBe("2026-11-01T01:15");
    expect(minutesBetween("2026-11-01T00:30", "2026-11-01T03:00")).toBe(210);
    expect(localTime("2026-11-01T06:30:00Z")).toBe("2026-11-01T01:30");
    expect(utcOf("2026-07-01T14:00")).toBe("2026-07-01T18:00:00.000Z");
  });

  it("knows changes at a quarter to", () => {
    setZone("Pacific/Chatham");
    expect(shifted("2026-09-27T04:00", -30)).toBe("2026-09-27T02:30");
    expect(shifted("2026-04-05T05:00", -180)).toBe("2026-04-05T03:00");
    expect(localTime("2026-06-01T00:00:00Z")).toBe("2026-06-01T12:45");
  });

  it("changes nothing in UTC", () => {
    setZone("UTC");
    expect(shifted("2026-03-08T04:00", -105)).toBe("2026-03-08T02:15");
    expect(clock(shifted("2026-12-31T23:40", 50))).toBe("0:30");
  });

  it("puts half past midnight after an evening's start, not a day before it", () => {
    expect(nearest("2026-11-28T23:40", "00:30")).toBe("2026-11-29T00:30");
    expect(nearest("2026-11-28T00:20", "23:50")).toBe("2026-11-27T23:50");
    expect(nextAfter("2026-11-28T23:40", "00:30")).toBe("2026-11-29T00:30");
    expect(daysLater("2026-12-31T12:00", 1)).toBe("2027-01-01T12:00");
  });
});

describe("a time of the day", () => {
  it.each([
    ["14:00", 1, "14:15"],
    ["14:00", -1, "13:45"],
    ["14:05", 1, "14:15"],
    ["14:05", -1, "14:00"],
    ["00:00", -1, "00:00"],
    ["23:50", 1, "23:45"],
  ])("goes from %s by %i to %s, within the day", (from, direction, to) => {
    expect(nextMark(from, 15, direction)).toBe(to);
  });
});

describe("a day in a field", () => {
  // Weekdays from the civil calendar: 5 December 2026 is a Saturday, 4 January 2027 a Monday.
  it("has its year only where it is another", () => {
    expect(shortDay("2026-12-05", "2026-12-02T09:30")).toBe("Sat, Dec 5");
    expect(shortDay("2027-01-04T06:00", "2026-12-02T09:30")).toBe("Mon, Jan 4, 2027");
  });
});

describe("a clock that goes twice to twelve", () => {
  afterEach(() => setClockHours("24"));

  it("tells and takes am and pm", () => {
    setClockHours("12");
    expect(
      ["2026-11-28T00:05", "2026-11-28T09:26", "2026-11-28T12:00", "2026-11-28T14:00"].map(clock),
    ).toEqual(["12:05\u00a0am", "9:26\u00a0am", "12:00\u00a0pm", "2:00\u00a0pm"]);
    expect(["2:05 pm", "2pm", "12 am", "12:30 p.m.", "14:05", "0 pm", "13 pm"].map(timeOfDay)).toEqual([
      "14:05",
      "14:00",
      "00:00",
      "12:30",
      "14:05",
      undefined,
      undefined,
    ]);
  });
});
