/** A bakery of its own for every journey, and the few steps that many of them take. */
import { test as base, expect, type Locator, type Page } from "@playwright/test";
import { newBakery, serve } from "./server.mjs";

export interface Bakery {
  address: string;
  db: string;
  /** Ends the program with a signal and starts it again on the same file and address. */
  restart(signal: "SIGTERM" | "SIGKILL", meanwhile?: () => Promise<void>): Promise<void>;
}

export const test = base.extend<{ bakery: Bakery; demo: boolean }>({
  /** Whether the bakery begins with the demo. */
  demo: [true, { option: true }],
  bakery: async ({ page, demo }, use) => {
    const { db, clear } = newBakery();
    let server = serve({ db, demo });
    const address = await server.address;
    const port = Number(new URL(address).port);
    const faults: string[] = [];
    page.on("pageerror", (error) => faults.push(String(error)));
    page.on("console", (message) => {
      // A refused request, or a stream that a kill cut off, is logged by the browser as an error; the journeys look at how the
      // page tells it.
      if (message.type() === "error" && !/status of (4\d\d)|ERR_CONNECTION|ERR_FAILED|ERR_INCOMPLETE_CHUNKED/.test(message.text())) faults.push(message.text());
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
    expect(found, "errors in the browser's console").toEqual([]);
  },
});

export { expect };

/** Opens a station of the demo job. */
export async function open(page: Page, bakery: Bakery, station: string, job = 1): Promise<void> {
  await page.goto(`${bakery.address}/jobs/${job}/${station}`);
  await expect(page.getByRole("navigation", { name: "Stations of this job" })).toBeVisible();
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
