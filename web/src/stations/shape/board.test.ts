import { describe, expect, it } from "vitest";
import { readEvents } from "../../api/nest";
import { within } from "../order/photo";
import {
  atFault,
  faults,
  fromCuts,
  heldOf,
  holding,
  latest,
  moved,
  restOf,
  without,
  type Board,
} from "./board";

const BOARD: Board = fromCuts([
  { x_mm: 10, y_mm: 20, turn_deg: 0 },
  { x_mm: 60, y_mm: 20, turn_deg: 180 },
]);

describe("pieces on a board", () => {
  it("are held once a hand has moved them, and their measures are asked anew", () => {
    const measured: Board = {
      ...BOARD,
      gaps: BOARD.pieces.map(() => ({ too_near: [], rim_mm: 5, over_rim: false })),
    };
    const next = moved(measured, 1, { x_mm: 61.23456, turn_deg: -90 });
    expect(next.pieces[1]).toEqual({ x_mm: 61.23, y_mm: 20, turn_deg: 270, held: true });
    expect(next.pieces[0]).toBe(BOARD.pieces[0]);
    expect(next.gaps).toBeUndefined();
    expect(heldOf(next)).toEqual([{ x_mm: 61.23, y_mm: 20, turn_deg: 270 }]);
    expect(restOf(next)).toHaveLength(1);
  });

  it("are let go and taken off one by one", () => {
    expect(heldOf(holding(BOARD, 0, true))).toHaveLength(1);
    expect(heldOf(holding(holding(BOARD, 0, true), 0, false))).toHaveLength(0);
    expect(without(BOARD, 0).pieces).toEqual([BOARD.pieces[1]]);
  });

  it("stay held in the layouts that a search finds around them", () => {
    const held = moved(BOARD, 0, { x_mm: 12 }).pieces.filter((p) => p.held);
    const found = fromCuts(
      [
        { x_mm: 80, y_mm: 40, turn_deg: 7 },
        { x_mm: 12, y_mm: 20, turn_deg: 0 },
      ],
      held,
    );
    expect(found.pieces.map((p) => p.held)).toEqual([false, true]);
  });

  it("are at fault near another or over the rim, and not while it is unknown", () => {
    expect(faults(BOARD)).toEqual([]);
    const gaps = [
      { too_near: [1], rim_mm: 5, over_rim: false },
      { too_near: [], rim_mm: 0, over_rim: true },
    ];
    expect(faults({ ...BOARD, gaps })).toEqual([0, 1]);
    expect(atFault({ ...BOARD, gaps }, 7)).toBe(false);
  });
});

describe("a stream's events", () => {
  it("are heard by name however the answer is cut up, and one without a name is let pass", async () => {
    const chunks = ["retry: 1000\n\nevent: be", 'at\ndata: {"after_s":0.4}\n', "\n"];
    const body = new ReadableStream<Uint8Array>({
      start(stream) {
        for (const text of chunks) stream.enqueue(new TextEncoder().encode(text));
        stream.close();
      },
    });
    const heard: unknown[] = [];
    await readEvents(new Response(body), (event) => heard.push(event));
    expect(heard).toEqual([{ name: "beat", data: { after_s: 0.4 } }]);
  });
});

describe("questions while a piece is dragged", () => {
  it("go one at a time, and of those that wait only the last is asked", async () => {
    const asked: number[] = [];
    const answers: (() => void)[] = [];
    const ask = latest((n: number) => {
      asked.push(n);
      return new Promise<void>((done) => {
        answers.push(done);
      });
    });
    for (const n of [1, 2, 3, 4]) ask(n);
    expect(asked).toEqual([1]);
    answers[0]?.();
    await expect.poll(() => asked).toEqual([1, 4]);
    answers[1]?.();
    await Promise.resolve();
    ask(5);
    await expect.poll(() => asked).toEqual([1, 4, 5]);
  });
});

describe("a photo to be sent", () => {
  it("is made no larger and keeps its proportions", () => {
    expect(within(4032, 3024, 2400)).toEqual({ width: 2400, height: 1800 });
    expect(within(800, 600, 2400)).toEqual({ width: 800, height: 600 });
  });
});
