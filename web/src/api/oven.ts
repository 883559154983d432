/** The thermometer in the oven: the stand-in as it reads, a file of one's own, and what they say. */
import { at } from "./base";
import { useRef, useState } from "react";
import { api, settled, type Schemas } from "./client";
import { readEvents } from "./nest";

export type OvenRead = Schemas["OvenReadBody"];
export type OvenTest = Schemas["OvenTestView"];

/** Minutes and degrees, one pair a line, as thermometers write them: comma, semicolon or tab between, a heading or none. */
export function readCsv(text: string): OvenRead[] {
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter((l) => l !== "");
  return lines.flatMap((l, i) => {
    const [after, shows] = l.split(/[;\t]|,(?!\d+$)|,/).map((v) => Number(v.trim().replace(/^"|"$/g, "")));
    if (after === undefined || shows === undefined || Number.isNaN(after) || Number.isNaN(shows)) {
      if (i === 0) return [];
      throw new Error(`Line ${i + 1}, “${l.slice(0, 40)}”, is not minutes and degrees.`);
    }
    return [{ after_min: after, shows_c: shows }];
  });
}

export const writeCsv = (readings: readonly OvenRead[]): string =>
  ["minutes,degrees_c", ...readings.map((r) => `${Math.round(r.after_min * 1000) / 1000},${r.shows_c}`)].join(
    "\r\n",
  ) + "\r\n";

export interface Reading {
  /** Set to; nothing before the first test. */
  set_c?: number;
  readings: readonly OvenRead[];
  found?: OvenTest | undefined;
  running: boolean;
  trouble?: unknown;
}

export function useOvenTest() {
  const [state, setState] = useState<Reading>({ readings: [], running: false });
  const stop = useRef<AbortController>(null);
  const standIn = async (set_c: number): Promise<void> => {
    stop.current?.abort();
    const run = new AbortController();
    stop.current = run;
    let readings: OvenRead[] = [];
    setState({ set_c, readings, running: true });
    try {
      const answer = await fetch(at(`/api/kitchen/oven-thermometer?set_c=${set_c}`), { signal: run.signal });
      await readEvents(answer, ({ name, data }) => {
        if (name === "reading") {
          readings = [...readings, data as OvenRead];
          setState({ set_c, readings, running: true });
        } else if (name === "found") setState({ set_c, readings, found: data as OvenTest, running: false });
      });
    } catch (trouble) {
      setState({ set_c, readings, running: false, ...(run.signal.aborted ? {} : { trouble }) });
    }
  };
  const fromFile = async (set_c: number, text: string): Promise<void> => {
    stop.current?.abort();
    try {
      const readings = readCsv(text);
      setState({ set_c, readings, running: true });
      try {
        const found = await settled(api.POST("/api/compute/oven-test", { body: { set_c, readings } }));
        setState({ set_c, readings, found, running: false });
      } catch (trouble) {
        setState({ set_c, readings, running: false, trouble });
      }
    } catch (trouble) {
      setState({ readings: [], running: false, trouble });
    }
  };
  return { ...state, standIn, fromFile, cancel: () => stop.current?.abort() };
}
