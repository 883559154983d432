/** The search for a layout, as the server streams it; and pieces measured as a hand lays them. */
import { at } from "./base";
import { EventSourceParserStream } from "eventsource-parser/stream";
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

function tell(heard: Heard, event: { name: string; data: unknown }): void {
  if (event.name === "layout") heard.layout(event.data as Nested);
  else if (event.name === "beat") heard.beat((event.data as Schemas["NestBeat"]).after_s);
  else if (event.name === "done") {
    const { after_s, exhausted } = event.data as Schemas["NestDone"];
    heard.done(after_s, exhausted);
  }
}

/** The events of an answer, as they come. */
export async function readEvents(
  answer: Response,
  hear: (event: { name: string; data: unknown }) => void,
): Promise<void> {
  if (!answer.ok || !answer.body) throw new Refusal((await answer.json()) as Problem);
  const events = answer.body
    .pipeThrough(new TextDecoderStream())
    .pipeThrough(new EventSourceParserStream())
    .getReader();
  for (;;) {
    const { done, value } = await events.read();
    if (done) return;
    if (value.event) hear({ name: value.event, data: JSON.parse(value.data) as unknown });
  }
}

/** Searches until its time is up or `signal` says stop; throws the refusal. */
export async function searchNest(
  id: number,
  body: NestBody,
  heard: Heard,
  signal: AbortSignal,
): Promise<void> {
  const answer = await fetch(at(`/api/jobs/${id}/nest`), {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
    signal,
  });
  return readEvents(answer, (event) => tell(heard, event));
}

export const measureNest = (id: number, body: Schemas["MeasureBody"]) =>
  settled(api.POST("/api/jobs/{id}/nest/measure", { params: { path: { id } }, body }));
