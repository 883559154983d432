/** A bakery of its own for every journey, and the few steps that many of them take. */
import { test as base, expect, type Locator, type Page, type Request } from "@playwright/test";
import { copyFileSync } from "node:fs";
import { newBakery, serve } from "./server.mjs";

export interface Bakery {
  address: string;
  db: string;
  /** Ends the program with a signal and starts it again on the same file and address. */
  restart(signal: "SIGTERM" | "SIGKILL", meanwhile?: () => Promise<void>): Promise<void>;
}

/** What each page has asked for and not got yet; the live stream, which never ends, is not counted. */
const waiting = new WeakMap<Page, Set<Request>>();

function watch(page: Page): void {
  const open = new Set<Request>();
  waiting.set(page, open);
  page.on("request", (r) => {
    if (r.resourceType() !== "eventsource") open.add(r);
  });
  for (const end of ["requestfinished", "requestfailed"] as const) page.on(end, (r) => open.delete(r));
}

export const test = base.extend<{ bakery: Bakery; demo: boolean }>({
  /** Whether the bakery begins with the demo. */
  demo: [true, { option: true }],
  bakery: async ({ page, demo }, use) => {
    const { db, clear } = newBakery();
    if (demo && process.env.SEEDED) copyFileSync(process.env.SEEDED, db);
    let server = serve({ db, demo });
    const address = await server.address;
    const port = Number(new URL(address).port);
    watch(page);
    const faults: string[] = [];
    page.on("pageerror", (error) => faults.push(String(error)));
    page.on("console", (message) => {
      // A refused request, or a stream that a kill cut off, is logged by the browser as an error; the journeys look at how the
      // page tells it.
      if (message.type() === "error" && !/status of (4\d\d|503|507)|ERR_CONNECTION|ERR_FAILED|ERR_INCOMPLETE_CHUNKED|ERR_SOCKET_NOT_CONNECTED/.test(message.text())) faults.push(message.text());
    });
    await use({
      address,
      db,
      restart: async (signal, meanwhile) => {
        await server.stop(signal);
        await meanwhile?.();
        server = serve({ db, port, demo });
        await server.address;
      },
    });
    // What the page still loads when its server goes is no fault of the page.
    const found = [...faults];
    await server.stop();
    clear();
    expect(found, `errors in the browser's console; the server said:\n${server.log()}`).toEqual([]);
  },
});

export { expect };

/** Opens a station of the demo job. */
export async function open(page: Page, bakery: Bakery, station: string, job = 1): Promise<void> {
  await page.goto(`${bakery.address}/jobs/${job}/${station}`);
  await expect(page.getByRole("navigation", { name: "Stations of this job" })).toBeVisible();
}

/** Until the view stands: nothing is asked for any longer, and nothing shown is about to change. */
export async function settled(page: Page): Promise<void> {
  // A view that was just gone to asks for its script first, then for its answers: it stands when all was quiet for a while.
  const stands = () =>
    page.evaluate(async () => {
      await new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn, 50)));
      const main = document.querySelector("main");
      const coming = [...document.querySelectorAll("[role=status]")].some((s) => /^(One moment|Opening)…$/.test(s.textContent?.trim() ?? ""));
      return main !== null && !coming && main.querySelector("[aria-busy=true]") === null;
    });
  await expect
    .poll(async () => {
      for (let i = 0; i < 4; i += 1) if (!(await stands()) || waiting.get(page)?.size !== 0) return false;
      return true;
    }, { intervals: [20] })
    .toBe(true);
}

/** Goes to another address inside the page, as a link does: the program is not loaded anew. */
export async function go(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, "", to);
    dispatchEvent(new PopStateEvent("popstate"));
  }, path);
  await settled(page);
}

/** The figure a station shows on the counter. */
export function figure(page: Page, station: string): Locator {
  return page.getByRole("navigation", { name: "Stations of this job" }).getByRole("link", { name: new RegExp(`^${station}`) });
}

/** A value or text that can be typed into. */
export function field(page: Page | Locator, name: string | RegExp): Locator {
  return page.getByRole("textbox", { name });
}

/** Types into a value and keeps it. */
export async function set(value: Locator, text: string): Promise<void> {
  await value.fill(text);
  await value.press("Enter");
}

/** Chooses the units that usually go together. */
export async function units(page: Page, system: "Metric" | "US"): Promise<void> {
  await page.getByRole("button", { name: /^Units:/ }).click();
  await page.getByRole("dialog", { name: "Units" }).getByRole("radio", { name: system, exact: true }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
}

/** Opens what stands behind "Why?" and "More" on a page. */
export async function unfold(page: Page): Promise<void> {
  await expect(page.locator("details.fold").first()).toBeVisible();
  const closed = page.locator("details.fold:not([open]) > summary");
  // Each that is opened is no longer among them.
  while ((await closed.count()) > 0) await closed.first().click();
}
