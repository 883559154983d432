import { describe, expect, it } from "vitest";
import { readCsv, writeCsv } from "./oven";

describe("readings of a thermometer as CSV", () => {
  it("are read with a heading or without, by comma, semicolon or tab", () => {
    const wanted = [
      { after_min: 0, shows_c: 21.5 },
      { after_min: 1.5, shows_c: 40 },
    ];
    expect(readCsv("minutes,degrees_c\r\n0,21.5\r\n1.5,40\r\n")).toEqual(wanted);
    expect(readCsv("0;21.5\n1.5;40")).toEqual(wanted);
    expect(readCsv('"0"\t"21.5"\n\n1.5\t40')).toEqual(wanted);
  });

  it("come back as they were written (RFC 4180: lines end with CRLF)", () => {
    const readings = [
      { after_min: 0, shows_c: 22 },
      { after_min: 1 / 3, shows_c: 24.5 },
    ];
    expect(writeCsv(readings)).toBe("minutes,degrees_c\r\n0,22\r\n0.333,24.5\r\n");
    expect(readCsv(writeCsv(readings))[1]?.shows_c).toBe(24.5);
  });

  it("name the line that is none", () => {
    expect(() => readCsv("0,21\nhot,very")).toThrow("Line 2");
  });
});
