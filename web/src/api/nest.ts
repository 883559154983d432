/** The search for a layout, as the server streams it; and pieces measured as a hand lays them. */
import { api, Refusal, settled, type Problem, type Schemas } from "./client";

export type Nested = Schemas["NestView"];
export type NestBody = Schemas["NestBody"];
/** A piece on a sheet; `cutter` says whose where several lots lie on it. */
export type Cut = Schemas["LaidPiece"];
/** Where a piece of one cutter lies, as a job keeps it. */
export type Place = Schemas["CutView"];
export type Gaps = Schemas["GapsView"];

export interface Heard {
  layout(found: Nested): void;
  beat(after_s: number): void;
  done(after_s: number, exhausted: boolean): void;
}

/** One event of a stream, its lines as they came. */
export function readEvent(text: string): { name: string; data: unknown } | undefined {
  const name = /^event: (.*)$/m.exec(text)?.[1];
  const data = /^data: (.*)$/m.exec(text)?.[1];
  return name && data ? { name, data: JSON.parse(data) as unknown } : undefined;
}

function tell(heard: Heard, event: { name: string; data: unknown }): void {
  if (event.name === "layout") heard.layout(event.data as Nested);
  else if (event.name === "beat") heard.beat((event.data as Schemas["NestBeat"]).after_s);
  else if (event.name === "done") {
    const { after_s, exhausted } = event.data as Schemas["NestDone"];
    heard.done(after_s, exhausted);
  }
}

/** The events of an answer, as they come. */
export async function readEvents(answer: Response, hear: (event: { name: string; data: unknown }) => void): Promise<void> {
  if (!answer.ok || !answer.body) throw new Refusal((await answer.json()) as Problem);
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let waiting = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    waiting += value;
    const events = waiting.split("\n\n");
    waiting = events.pop() ?? "";
    for (const text of events) {
      const event = readEvent(text);
      if (event) hear(event);
    }
  }
}

/** Searches until its time is up or `signal` says stop; throws the refusal. */
export async function searchNest(id: number, body: NestBody, heard: Heard, signal: AbortSignal): Promise<void> {
  const answer = await fetch(`/api/jobs/${id}/nest`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body), signal });
  return readEvents(answer, (event) => tell(heard, event));
}

export const measureNest = (id: number, body: Schemas["MeasureBody"]) =>
  settled(api.POST("/api/jobs/{id}/nest/measure", { params: { path: { id } }, body }));
