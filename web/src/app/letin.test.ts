// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, Refusal } from "../api/client";
import { notLetIn, stillLetIn } from "./letin";

const refusal = (status: number) => new Refusal({ title: "no", status, detail: "no", errors: [] });

/** Where the page was sent from an address. */
function from(path: string) {
  const sent: string[] = [];
  vi.stubGlobal("location", { pathname: path, assign: (to: string) => sent.push(to) });
  return sent;
}

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe("a device that is not let in", () => {
  it("is taken to where it can give a code, and comes back to where it was", () => {
    const sent = from("/bench/3");
    notLetIn(refusal(401));
    expect(sent).toEqual(["/pair?to=%2Fbench%2F3"]);
  });

  it("stays where it gives its code, and on every other refusal", () => {
    const there = from("/pair");
    notLetIn(refusal(401));
    const elsewhere = from("/jobs/1/order");
    for (const status of [0, 403, 404, 422, 503]) notLetIn(refusal(status));
    notLetIn(new Error("something else"));
    expect([...there, ...elsewhere]).toEqual([]);
  });

  it("is found out where a stream is refused, since that does not tell why", async () => {
    const sent = from("/live");
    const get = vi.spyOn(api, "GET");
    get.mockResolvedValueOnce({
      error: { title: "Device not connected", status: 401, detail: "", errors: [] },
      response: new Response(null, { status: 401 }),
    } as never);
    stillLetIn();
    await vi.waitFor(() => expect(sent).toEqual(["/pair?to=%2Flive"]));
    // Where it is let in still, or nobody answers, the stream just tries again.
    get.mockResolvedValueOnce({ data: {}, response: new Response(null, { status: 200 }) } as never);
    stillLetIn();
    get.mockRejectedValueOnce(new TypeError("no connection"));
    stillLetIn();
    await new Promise((r) => setTimeout(r, 10));
    expect(sent.length).toBe(1);
  });
});
