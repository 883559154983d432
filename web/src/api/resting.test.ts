import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, describe, expect, it } from "vitest";
import { refresh } from "./queries";

/** How often each open query was asked, after an edit. */
async function askedAfter(edited: Parameters<typeof refresh>[1]): Promise<string[]> {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });
  clients.push(client);
  const asked: string[] = [];
  const names = [
    "units",
    "zones",
    "kitchen",
    "cutters",
    "ingredients",
    "formulas",
    "jobs",
    "plan",
    "places",
    "sheets",
    "history",
  ];
  for (const name of names) {
    const observer = new QueryObserver(client, {
      queryKey: [name, 1],
      queryFn: () => (asked.push(name), Promise.resolve(name)),
    });
    observer.subscribe(() => undefined);
  }
  await new Promise((done) => setTimeout(done));
  asked.length = 0;
  await refresh(client, edited);
  return asked.toSorted((a, b) => a.localeCompare(b));
}

const clients: QueryClient[] = [];
afterEach(() => {
  for (const client of clients.splice(0)) client.clear();
});

describe("after an edit", () => {
  it("of a job the shelves and the kitchen are not asked for again", async () => {
    expect(await askedAfter("job")).toEqual(["history", "jobs", "plan", "sheets"]);
  });
  it("of an ingredient the formulas that hold it are", async () => {
    expect(await askedAfter("ingredient")).toEqual([
      "formulas",
      "history",
      "ingredients",
      "jobs",
      "plan",
      "sheets",
    ]);
  });
  it("of the kitchen its places are", async () => {
    expect(await askedAfter("kitchen")).toEqual(["history", "jobs", "kitchen", "places", "plan", "sheets"]);
  });
  it("undone, all that can change is", async () => {
    expect(await askedAfter("anything")).toEqual([
      "cutters",
      "formulas",
      "history",
      "ingredients",
      "jobs",
      "kitchen",
      "places",
      "plan",
      "sheets",
    ]);
  });
  it("a first answer still on its way is asked for anew: it was computed before the edit", async () => {
    const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });
    clients.push(client);
    const answers: ((value: string) => void)[] = [];
    const observer = new QueryObserver(client, {
      queryKey: ["wanted", 1],
      queryFn: () => new Promise<string>((answer) => answers.push(answer)),
    });
    observer.subscribe(() => undefined);
    const refreshed = refresh(client, "job");
    await new Promise((done) => setTimeout(done));
    expect(answers).toHaveLength(2);
    answers[0]?.("before");
    answers[1]?.("after");
    await refreshed;
    expect(client.getQueryData(["wanted", 1])).toBe("after");
  });
});
