/** Reached by everybody: keyboard alone, a phone, a screen reader, the dark, paper. */
import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, field, figure, go, open, settled, test } from "../bakery";

const DOUGH = ["dough/mix", "dough/size", "dough/change", "dough/label", "dough/versions"];
const OVEN = ["oven/levers", "oven/tray?show=done", "oven/sheet", "oven/finish"];
const SHAPE = ["shape/nest", "shape/mixed", "shape/trays", "shape/even", "shape/log", "shape/pattern?pattern=pinwheel", "shape/portion?kind=figure", "shape/marbled"];
const COLD = ["cold/ways", "cold/now", "cold/trouble", "cold/learnt"];
const LEDGER = ["ledger/photo", "ledger/evenness", "ledger/trials", "ledger/all", "ledger/why/1"];
const STATIONS = ["order", "dough", "cold", "shape", "oven", "clock", "ledger"];

/** A piece with a reading lies in the fridge, so that the live views have something to show. */
async function pieceInTheCold(page: Page, address: string): Promise<void> {
  const put = await page.request.post(`${address}/api/jobs/1/chills`, { data: { name: "Disc 1" } });
  const { id } = (await put.json()) as { id: number };
  const read = await page.request.post(`${address}/api/chills/${id}/readings`, { data: [{ shows_c: 21.2, spot: "core" }] });
  expect(read.ok()).toBe(true);
}

/** Faults by all rules in the light scheme; in the dark one only colours can differ. */
async function seriousFaults(page: Page): Promise<string[]> {
  const found: string[] = [];
  for (const theme of ["dark", "light"] as const) {
    await page.evaluate((to) => {
      document.documentElement.dataset.theme = to;
    }, theme);
    const all = new AxeBuilder({ page });
    const { violations } = await (theme === "light" ? all : all.withRules(["color-contrast"])).analyze();
    const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
    found.push(...serious.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`));
  }
  return found;
}

test("the whole job is done with the keyboard alone", async ({ page, bakery }) => {
  await page.goto(bakery.address);
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  const tabTo = async (wanted: (text: string) => boolean) => {
    for (let i = 0; i < 80; i += 1) {
      await page.keyboard.press("Tab");
      const focused = await page.evaluate(() => {
        const e = document.activeElement;
        const labels = e instanceof HTMLInputElement ? [...(e.labels ?? [])].map((l) => l.textContent).join(" ") : "";
        return `${e?.getAttribute("aria-label") ?? ""} ${labels} ${e?.textContent ?? ""}`;
      });
      if (wanted(focused)) return;
    }
    throw new Error("not reached by Tab");
  };
  await tabTo((t) => t.includes("Regatta gulls") && !t.includes("Delete"));
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/jobs\/1\/order$/);
  await expect(figure(page, "Order")).toContainText("48 cookies");
  await settled(page);
  await tabTo((t) => t.includes("Cookies"));
  await page.keyboard.type("60");
  await page.keyboard.press("Enter");
  await expect(figure(page, "Order")).toContainText("60 cookies");
  await page.keyboard.press("ArrowUp");
  await expect(figure(page, "Order")).toContainText("61 cookies");
  await page.keyboard.press("Tab");
  // Focus is seen.
  const outline = await page.evaluate(() => getComputedStyle(document.activeElement as Element).outlineStyle);
  expect(outline).toBe("solid");
  for (const [i, station] of STATIONS.entries()) {
    await page.keyboard.press(String(i + 1));
    await expect(page).toHaveURL(new RegExp(`/${station}$`));
  }
  await page.keyboard.press("Control+z");
  await expect(figure(page, "Order")).toContainText("60 cookies");
  await page.keyboard.press("Control+Shift+z");
  await expect(figure(page, "Order")).toContainText("61 cookies");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.keyboard.press("k");
  await expect(page).toHaveURL(/\/kitchen$/);
  await page.keyboard.press("s");
  await expect(page).toHaveURL(`${bakery.address}/`);
});

const OUTSIDE = ["/", "/kitchen", "/kitchen/oven", "/pantry", "/read", "/live"];
const inJob = (views: readonly string[]) => views.map((v) => `/jobs/1/${v}`);
const GROUPS = { "outside a job": OUTSIDE, "at the stations": inJob(STATIONS), "of the dough": inJob(DOUGH), "of cold and shape": inJob([...COLD, ...SHAPE]), "of the oven": inJob(OVEN), "Ledger views": inJob(LEDGER) };

for (const [group, paths] of Object.entries(GROUPS)) {
  test(`no serious fault of access in either scheme, views ${group}`, async ({ page, bakery }) => {
    await page.emulateMedia({ colorScheme: "light", reducedMotion: "reduce" });
    await pieceInTheCold(page, bakery.address);
    await page.goto(bakery.address);
    await settled(page);
    for (const path of paths) {
      await go(page, path);
      expect(await seriousFaults(page), path).toEqual([]);
    }
  });
}

test("no serious fault of access in either scheme, the dialog", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  expect(await seriousFaults(page), "the dialog").toEqual([]);
});

test("a phone 390 wide shows every view without sideways scrolling", async ({ page, bakery }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await pieceInTheCold(page, bakery.address);
  await page.goto(bakery.address);
  await settled(page);
  for (const path of Object.values(GROUPS).flat()) {
    await go(page, path);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(over, path).toBeLessThanOrEqual(0);
    if (path.startsWith("/jobs")) await expect(page.getByRole("navigation", { name: "Stations of this job" }).locator("[aria-current=page]")).toBeInViewport();
  }
  await page.goto(bakery.address);
  // The head is one line; what it leads to is behind one button.
  await expect.poll(async () => (await page.getByRole("banner").boundingBox())?.height).toBeLessThan(64);
  await page.getByRole("button", { name: /^Menu/ }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("link", { name: "Kitchen" })).toBeHidden();
  await page.keyboard.press("Enter");
  await page.getByRole("link", { name: "Kitchen" }).click();
  await expect(page.getByRole("link", { name: "Kitchen" })).toBeHidden();
  await expect(page.getByRole("heading", { name: "Tern Street Bakehouse" })).toBeVisible();
});

test("the cut list and the run sheet print without the controls", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("heading", { name: "Cut list: Regatta gulls" })).toBeVisible();
  await expect(page.getByRole("navigation", { name: "Stations of this job" })).toBeHidden();
  await page.emulateMedia({ media: "screen" });
  await open(page, bakery, "clock");
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("heading", { name: "Schedule: Regatta gulls" })).toBeVisible();
  await expect(page.getByText("Weigh and mix the dough")).toBeVisible();
  await expect(page.getByRole("button", { name: "Save or print" })).toBeHidden();
  await page.emulateMedia({ media: "screen" });
  await open(page, bakery, "dough/mix");
  await expect(page.getByRole("list", { name: "Steps" })).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("heading", { name: "Cream just to combine" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "If the dough feels off" })).toBeHidden();
  await expect(page.getByRole("navigation", { name: "Dough views" })).toBeHidden();
});

test("a picture is saved as SVG that stands alone", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save or print" }).click();
  await page.getByRole("button", { name: "Save picture" }).click();
  await expect(page.getByRole("button", { name: "Save picture" })).toBeHidden();
  const stream = await (await download).createReadStream();
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  const svg = Buffer.concat(parts).toString();
  expect(svg).toContain('xmlns="http://www.w3.org/2000/svg"');
  expect(svg).not.toContain("class=");
  expect(svg.match(/<path/g)?.length).toBeGreaterThan(48);
});

test("the content policy holds and the server's silence is said", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  const policy = (await page.request.get(bakery.address)).headers()["content-security-policy"];
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toContain("unsafe");
  await page.route("**/api/jobs/1", (route) => (route.request().method() === "PATCH" ? route.abort() : route.continue()));
  await field(page, /^Cookies$/).fill("50");
  await field(page, /^Cookies$/).press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "1 change" })).toBeVisible();
  await expect(field(page, /^Cookies$/)).toHaveValue("50");
  // It is sent when the server is back, without being pressed again.
  await page.unroute("**/api/jobs/1");
  await expect(figure(page, "Order")).toContainText("50 cookies");
});
