import type { Page } from "@playwright/test";
import { expect, field, figure, open, set, test, units } from "../bakery";

/** The scripts a page asked for before it was loaded, their size as sent, and those that neither the page nor its hints named. */
async function firstScripts(page: Page, address: string) {
  const answer = await page.request.get(address);
  const named = [...`${await answer.text()} ${answer.headers()["link"] ?? ""}`.matchAll(/\/assets\/[\w-]+\.js/g)].map((m) => m[0]);
  await page.goto(address);
  const asked = await page.evaluate(() =>
    performance
      .getEntriesByType("resource")
      .filter((r) => r.name.endsWith(".js") && r.startTime < (performance.getEntriesByType("navigation")[0] as PerformanceNavigationTiming).loadEventEnd)
      .map((r) => ({ path: new URL(r.name).pathname, bytes: (r as PerformanceResourceTiming).encodedBodySize })),
  );
  return { bytes: asked.reduce((sum, a) => sum + a.bytes, 0), unnamed: asked.map((a) => a.path).filter((path) => !named.includes(path)) };
}

test("a station opens with what it needs and no more, all of it named at once", async ({ page, bakery }) => {
  for (const station of ["order", "dough", "cold", "shape", "oven", "clock", "ledger"]) {
    const first = await firstScripts(page, `${bakery.address}/jobs/1/${station}`);
    await expect(page.getByRole("heading", { level: 2 }).first()).toBeVisible();
    expect(first.unnamed, station).toEqual([]);
    expect(first.bytes, station).toBeLessThan(160_000);
    expect(first.bytes, station).toBeGreaterThan(50_000);
  }
});

test("stations are gone through while the server is away, and work goes on when it is back", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  // All that is loaded when idle is there.
  await expect.poll(() => page.evaluate(() => performance.getEntriesByType("resource").filter((r) => /\/(LivePage|OvenPage)-/.test(r.name)).length)).toBe(2);
  const nav = page.getByRole("navigation", { name: "Stations of this job" });
  await bakery.restart("SIGTERM", async () => {
    for (const station of ["Shape", "Clock", "Order"]) {
      await nav.getByRole("link", { name: new RegExp(`^${station}`) }).click();
      await expect(page).toHaveURL(new RegExp(`/${station.toLowerCase()}$`));
      await expect(page.getByRole("heading", { level: 2 }).first()).toBeVisible();
      await expect(page.getByText("This page didn’t load")).toHaveCount(0);
    }
    await set(field(page, /^Cookies$/), "54");
    await expect(page.getByRole("alert")).toContainText("No answer from the server");
    await expect(field(page, /^Cookies$/)).toHaveValue("54");
  });
  await field(page, /^Cookies$/).press("Enter");
  await expect(figure(page, "Order")).toContainText("54 cookies");
});

test("quick arrows all count, and each is taken back", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  const pieces = field(page, /^Cookies$/);
  await pieces.focus();
  for (let i = 0; i < 6; i += 1) await pieces.press("ArrowUp");
  const there = await pieces.inputValue();
  expect(Number(there)).toBeGreaterThan(48);
  await expect(figure(page, "Order")).toContainText(`${there} cookies`);
  await page.reload();
  await expect(field(page, /^Cookies$/)).toHaveValue(there);
  const undo = page.getByRole("button", { name: /^Undo / });
  while ((await figure(page, "Order").innerText()).includes("48 cookies") === false) {
    const was = await figure(page, "Order").innerText();
    await undo.click();
    await expect(figure(page, "Order")).not.toHaveText(was, { useInnerText: true });
  }
  await expect(field(page, /^Cookies$/)).toHaveValue("48");
});

test("when it is due is typed as people say it, or chosen on a calendar, by the keyboard alone", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  const [day, time] = [field(page, "Ready by, day"), field(page, "Ready by, time")];
  await expect(time).toHaveValue("14:00");
  const was = await day.inputValue();
  // A Saturday, a fortnight on: the demo's own day is always one to come.
  await day.focus();
  await page.keyboard.press("ArrowDown");
  const calendar = page.getByRole("grid");
  await expect(calendar).toBeVisible();
  await expect(calendar.locator(":focus")).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(calendar).toBeHidden();
  await expect(day).not.toHaveValue(was);
  await expect(day).toHaveValue(/^Sat, /);
  const later = await day.inputValue();
  await expect(day).toBeFocused();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(day).toHaveValue(was);
  await set(day, "someday");
  await expect(page.getByRole("alert")).toHaveText("Type a day, like Sat or Dec 5.");
  await set(day, `${later} 3:20pm`);
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(day).toHaveValue(later);
  await expect(time).toHaveValue("15:20");
  await expect(figure(page, "Order")).toContainText("Sat 15:20");
  await time.focus();
  await page.keyboard.press("ArrowUp");
  await expect(time).toHaveValue("15:30");
  await units(page, "US");
  await expect(time).toHaveValue("3:30 pm");
  await set(time, "noon-ish");
  await expect(page.getByRole("alert")).toHaveText("Type a time, like 2 pm or 14:00.");
  await set(time, "4p");
  await expect(figure(page, "Order")).toContainText("Sat 4:00");
});

test("inches are typed as a rule shows them, mixed fractions too", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/jobs/1/order`);
  await units(page, "US");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  const dialog = page.getByRole("dialog", { name: "Add a cutter" });
  await dialog.getByRole("radio", { name: "Round", exact: true }).click();
  await field(dialog, "Name").fill("Buoy top");
  await field(dialog, "Diameter").fill("2 1/2 in");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole("heading", { level: 2 }).first()).toContainText("Buoy top");
  await expect(page.getByText("2½ in").first()).toBeVisible();
  await units(page, "Metric");
  // 2 1/2 in are 63.5 mm, told in whole ones here.
  await expect(page.getByRole("heading", { level: 2 }).first()).toContainText("64 mm wide");
});

test("a job that is sliced is told at Cold when it slices, not when it rolls", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("radio", { name: "Sliced" }).click();
  await expect(figure(page, "Cold")).toContainText("log");
  await figure(page, "Cold").click();
  await expect(page.locator("svg text").filter({ hasText: "slices cleanly" }).first()).toBeVisible();
  await expect(page.getByText("rolls cleanly")).toHaveCount(0);
});

test("each station says what comes next, from the order to what came out", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  const next = page.getByRole("region", { name: "What now" }).getByRole("link");
  for (const [label, path] of [
    [/^Weigh out .* of dough$/, /\/dough\/mix$/],
    [/^Put the disc into the fridge$/, /\/cold\/now$/],
  ] as const) {
    await expect(next).toHaveText(label);
    await next.click();
    await expect(page).toHaveURL(path);
  }
  for (const [station, label, path] of [
    ["cold", "Roll and cut it", /\/shape$/],
    ["shape", /^Bake \d trays: print the oven card$/, /\/oven\/sheet$/],
    ["oven", "See the whole day", /\/clock$/],
    ["clock", "Record this bake", /\/ledger$/],
  ] as const) {
    await open(page, bakery, station);
    await expect(next).toHaveText(label);
    await next.click();
    await expect(page).toHaveURL(path);
  }
});
