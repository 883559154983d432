// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import { Box, Outbox, type Told } from "./outbox";

const refusal = (status: number, fields: readonly string[] = []) =>
  new Refusal({
    title: "no",
    status,
    detail: "not now",
    errors: fields.map((field) => ({ field, message: "it is wrong", parts: [], accepted: "" })),
  });

/** A server that answers so, one answer a request, and then takes everything. */
function server(...answers: (Refusal | "takes")[]) {
  const taken: string[] = [];
  const asked: string[][] = [];
  return {
    taken,
    asked,
    send: async (things: readonly string[]) => {
      asked.push([...things]);
      await Promise.resolve();
      const answer = answers.shift() ?? "takes";
      if (answer !== "takes") throw answer;
      taken.push(...things.filter((t) => !taken.includes(t)));
    },
  };
}

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  localStorage.clear();
});

describe("what is pressed and not taken yet", () => {
  it("is kept on every refusal that does not name it, and sent again in order", async () => {
    for (const status of [0, 400, 401, 403, 404, 408, 410, 422, 429, 500, 502, 503, 507]) {
      const { send, taken, asked } = server(refusal(status), refusal(status));
      let told: Told<string> | undefined;
      const box = new Outbox<string>(`day ${status}`, send, (now) => (told = now));
      box.add(["a"]);
      box.add(["b", "c"]);
      await vi.advanceTimersByTimeAsync(500);
      expect(told?.held?.problem.status, String(status)).toBe(status);
      expect(box.waiting()).toEqual(["a", "b", "c"]);
      expect(
        new Outbox<string>(`day ${status}`, send, () => undefined).waiting(),
        "also by a page that is opened anew",
      ).toEqual(["a", "b", "c"]);
      await vi.advanceTimersByTimeAsync(60_000);
      expect([taken, box.waiting(), told?.held]).toEqual([["a", "b", "c"], [], undefined]);
      expect(asked.length).toBeLessThanOrEqual(4);
      box.stop();
    }
  });

  it("is dropped only where it is named by its place, and said", async () => {
    const { send, taken } = server(refusal(422, ["events[1].what.task", "events[1].at_min"]));
    let told: Told<string> | undefined;
    const box = new Outbox<string>("day", send, (now) => (told = now));
    box.add(["a", "wrong", "c"]);
    await vi.advanceTimersByTimeAsync(100);
    expect(taken).toEqual(["a", "c"]);
    expect(told?.refused.map(({ thing, why }) => [thing, why.field])).toEqual([
      ["wrong", "events[1].what.task"],
    ]);
  });

  it("is tried after pauses that grow to half a minute", async () => {
    const { send, asked } = server(...Array.from({ length: 12 }, () => refusal(503)));
    const box = new Outbox<string>("day", send, () => undefined);
    box.add(["a"]);
    const after: number[] = [];
    for (let s = 0; s < 130; s += 1) {
      const before = asked.length;
      await vi.advanceTimersByTimeAsync(1000);
      if (asked.length > before) after.push(s + 1);
    }
    expect(after).toEqual([1, 3, 7, 15, 31, 61, 91, 121]);
    box.stop();
  });

  it("goes out a hundred at a time", async () => {
    const { send, taken, asked } = server();
    const all = Array.from({ length: 250 }, (_, i) => String(i));
    new Outbox<string>("day", send, () => undefined).add(all);
    await vi.advanceTimersByTimeAsync(100);
    expect([taken, asked.map((a) => a.length)]).toEqual([all, [100, 100, 50]]);
  });

  it("is nobody's but its own name's, and two windows do not write over each other's", () => {
    const [one, other] = [new Box<string>("run-1-press"), new Box<string>("run-1-press")];
    one.add("here");
    other.add("there");
    one.remove(one.all().map(([key]) => key));
    expect(new Box<string>("run-1-press").all().map(([, thing]) => thing)).toEqual(["there"]);
    expect(new Box<string>("run-11-press").all()).toEqual([]);
    localStorage.setItem("run-1-press/000", "{ half");
    expect(new Box<string>("run-1-press").all().length).toBe(1);
  });

  it("of the demo is the demo's, though its days have the same numbers", async () => {
    new Box<string>("run-1-press").add("mine");
    vi.resetModules();
    history.pushState(null, "", "/demo/bench/1");
    const demo = await import("./outbox");
    const box = new demo.Box<string>("run-1-press");
    expect(box.all()).toEqual([]);
    box.add("the demo's");
    expect(new Box<string>("run-1-press").all().map(([, thing]) => thing)).toEqual(["mine"]);
    history.pushState(null, "", "/");
  });
});
