/** The cold station: other ways, pieces that are followed live, what to do when it goes wrong, what was learnt. */
import type { Page } from "@playwright/test";
import { expect, field, figure, open, set, test, type Bakery } from "../bakery";
import { BINARY } from "../server.mjs";
import { spawn } from "node:child_process";

/** Puts a piece in whose clock runs fast. */
async function putIn(page: Page, bakery: Bakery, speed: string): Promise<void> {
  await open(page, bakery, "cold/now");
  await expect(page.getByText("Nothing of this job is in the cold.")).toBeVisible();
  await page.getByText("Not as planned").click();
  await page.getByRole("combobox", { name: "Its clock runs" }).selectOption(speed);
  await page.getByRole("button", { name: "Put it in now" }).click();
  await expect(page.getByRole("heading", { name: "Disc 1", level: 3 })).toBeVisible();
}

async function readings(page: Page): Promise<number> {
  const text = await page.getByText(/^\d+\sin all\./).innerText();
  return Number.parseInt(text, 10);
}

test("a piece is followed by the stand-in from putting in to ready, through a kill and a lost connection", async ({ page, bakery, context }) => {
  await page.addInitScript(() => {
    const told: string[] = [];
    class Told {
      static permission = "granted";
      constructor(title: string) {
        told.push(title);
      }
      addEventListener(): void {}
    }
    Object.assign(globalThis, { Notification: Told, told });
  });
  // Twenty minutes of the fridge in forty seconds.
  await putIn(page, bakery, "60");
  await expect(page.getByRole("complementary").getByText("Not ready yet")).toBeVisible();
  await page.getByRole("button", { name: "Use a simulated thermometer" }).click();
  await expect(page.getByRole("button", { name: "Take it out" })).toBeVisible();
  await expect.poll(() => readings(page)).toBeGreaterThan(1);
  await expect(page.getByText(/readings so far: the fridge takes heat/)).toBeVisible();
  await expect(page).toHaveTitle(/^Disc 1: \d+\smin left · Regatta gulls/);
  const before = await readings(page);
  await bakery.restart("SIGKILL", async () => {
    await expect(page.getByText("The server does not answer; trying again.")).toBeVisible();
  });
  // The stand-in goes on by itself, and so does the page, without a reload.
  await expect.poll(() => readings(page)).toBeGreaterThan(before);
  await expect(page.getByText("The server does not answer; trying again.")).toHaveCount(0);
  await context.setOffline(true);
  await context.setOffline(false);
  const later = await readings(page);
  await expect.poll(() => readings(page)).toBeGreaterThan(later);
  await expect(page.getByRole("complementary").getByText("Ready to roll")).toBeVisible({ timeout: 90_000 });
  await expect(page).toHaveTitle(/^Ready: Disc 1/);
  expect(await page.evaluate(() => (globalThis as unknown as { told: string[] }).told)).toContain("Disc 1: ready to roll");
  await expect(page.getByRole("link", { name: /^Live/ })).toContainText("1 ready");
  await page.keyboard.press("l");
  const card = page.getByRole("listitem", { name: "Disc 1" });
  await expect(card.getByText("Ready to roll")).toBeVisible();
  await expect(card.getByText(/^for .* more$/).last()).toBeVisible();
  await card.getByRole("button", { name: "Taken out to use" }).click();
  await expect(page.getByText("Nothing is in the cold.")).toBeVisible();
  await expect(page).toHaveTitle(/^In the cold/);
});

test("a device of its own posts readings, and they are accepted for the kitchen", async ({ page, bakery }) => {
  await putIn(page, bakery, "300");
  const device = spawn(BINARY, ["probe", "--server", bakery.address, "--chill", "1", "--every-s", "60", "--film-factor", "0.8", "--count", "8"]);
  const ended = new Promise((done) => device.once("exit", done));
  await expect.poll(() => readings(page)).toBeGreaterThan(4);
  expect(await ended).toBe(0);
  const before = await figure(page, "Cold").innerText();
  // Taken out, it teaches by itself; one press leaves it out, another puts it back.
  await page.getByRole("button", { name: "Taken out to use" }).first().click();
  await expect(page.getByText("Your plans use these readings.", { exact: false })).toBeVisible();
  await expect(figure(page, "Cold")).not.toHaveText(before);
  await page.getByRole("button", { name: "Leave them out" }).click();
  await expect.poll(() => figure(page, "Cold").innerText()).toBe(before);
  await page.getByRole("button", { name: "Put them back" }).click();
  await expect(figure(page, "Cold")).not.toHaveText(before);
  await page.getByRole("navigation", { name: "Views of the cold" }).getByRole("button", { name: "More" }).click();
  await page.getByRole("link", { name: "What was learnt" }).click();
  await expect(page.getByText(/learnt from one piece/)).toBeVisible();
  page.once("dialog", (d) => void d.accept());
  await page.getByRole("button", { name: "Forget what was learnt of the fridge" }).click();
  await expect(page.getByText(/learnt from one piece/)).toHaveCount(0);
  await expect.poll(() => figure(page, "Cold").innerText()).toBe(before);
  // A crowded fridge is another place: it takes longer.
  await page.getByRole("radio", { name: "Crowded, often opened" }).first().click();
  await expect.poll(() => figure(page, "Cold").innerText()).not.toBe(before);
});

test("readings by hand, in either unit, with what is wrong said beside them", async ({ page, bakery }) => {
  await putIn(page, bakery, "1");
  const shows = field(page, "It shows");
  await shows.fill("68");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("if the thermometer shows Fahrenheit, that is 20.0");
  await shows.fill("68F");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("1 in all.")).toBeVisible();
  await expect(page.getByRole("list", { name: "Newest readings" })).toContainText("20°");
  await page.getByRole("textbox", { name: "At", exact: true }).fill("soon");
  await shows.fill("19");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("A time such as 14:05");
  await page.getByRole("textbox", { name: "At", exact: true }).fill("");
  await page.getByRole("button", { name: /^Strike out/ }).click();
  await expect(page.getByText("0 in all.")).toBeVisible();
  await page.getByRole("button", { name: "Onto the bench" }).click();
  await expect(page.getByText("On the bench.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Not moved after all" }).click();
  await expect(page.getByText("In the fridge.", { exact: true })).toBeVisible();
  // A second page of the browser is told by the first, and goes on when the first is closed.
  const second = await page.context().newPage();
  await second.goto(`${bakery.address}/live`);
  await expect(second.getByRole("listitem", { name: "Disc 1" })).toBeVisible();
  await page.goto("about:blank");
  const disc = second.getByRole("listitem", { name: "Disc 1" });
  await disc.getByRole("button", { name: "Onto the bench" }).click();
  await expect(disc.getByText(/on the bench/)).toBeVisible();
  await disc.getByRole("button", { name: "Not moved after all" }).click();
  await expect(disc.getByText(/in the fridge/)).toBeVisible();
  await second.close();
  await page.goto(`${bakery.address}/jobs/1/cold/now?piece=1`);
  await page.getByRole("button", { name: "Taken out to use" }).click();
  await expect(page.getByText(/^Taken out at/)).toBeVisible();
  await page.getByRole("button", { name: "It is still there" }).click();
  await expect(page.getByRole("button", { name: "Onto the bench" })).toBeVisible();
});

test("other ways over the clock: by keyboard, with the inside at a movable time and sizes as levers", async ({ page, bakery }) => {
  await open(page, bakery, "cold/ways");
  await expect(page.getByText("are both right, of different pieces")).toBeVisible();
  const planned = page.getByRole("radio", { name: /^Disc, 22\smm, fridge: ready/ });
  await expect(planned).toBeChecked();
  await planned.focus();
  await page.keyboard.press("ArrowDown");
  await expect(planned).not.toBeChecked();
  await expect(page).toHaveURL(/way=/);
  await planned.click();
  const slider = page.getByRole("slider", { name: "Time since it went in" });
  await expect(page.getByRole("img", { name: /^Inside after [23]\d minutes/ })).toBeVisible();
  await slider.focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("img", { name: /^Inside after 0 minutes: from 21\.3° to 21\.3°/ })).toBeVisible();
  await set(field(page, "Disc"), "12 mm");
  await expect(page.getByRole("radio", { name: /^Disc, 12\smm, fridge: ready/ })).toBeVisible();
  await set(field(page, "Disc"), "300 mm");
  await expect(page.getByRole("alert")).toContainText("8 to 80 mm");
  // The view has its own address.
  await page.goto(`${bakery.address}/jobs/1/cold/ways?disc_mm=12&place=both&way=log-fridge`);
  await expect(page.getByRole("radio", { name: /^Log, 50\smm across, fridge/ })).toBeChecked();
  await expect(page.getByRole("radio", { name: /^Disc, 12\smm, fridge/ })).toBeVisible();
});

test("advice with figures for each trouble, and what hands find moves the window", async ({ page, bakery }) => {
  await open(page, bakery, "cold/trouble");
  await expect(page.getByText(/^It is .* too warm: at/)).toBeVisible();
  await set(field(page, "The dough, in the middle"), "24");
  await expect(page.getByText(/at 24°, and this dough rolls clean up to 1[789]/)).toBeVisible();
  for (const [trouble, said] of [["Too hard", "too cold"], ["The room is hot", "29"], ["No space in the fridge", "must get from"], ["The power went", "Shut, the fridge"]] as const) {
    await page.getByRole("radio", { name: trouble }).click();
    await expect(page.getByRole("status").filter({ hasText: said })).toBeVisible();
    await expect(page.getByRole("main").getByRole("listitem").first()).toBeVisible();
  }
  await page.getByRole("link", { name: "What was learnt" }).click();
  const limit = page.getByRole("row", { name: /^Rolls clean to/ });
  const before = await limit.innerText();
  await set(field(page, "The dough was at"), "17");
  await page.getByRole("button", { name: "It stuck" }).click();
  await expect.poll(() => limit.innerText()).not.toBe(before);
  await expect(page.getByRole("list", { name: "What hands found" })).toContainText("stuck");
  await page.getByRole("button", { name: /^Strike out stuck/ }).click();
  await expect.poll(() => limit.innerText()).toBe(before);
});

test("dough and pieces are not chilled, then wait overnight, then so long as a recipe says", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  const dough = page.getByRole("radiogroup", { name: "How long the dough chills" });
  const pieces = page.getByRole("radiogroup", { name: "How long the pieces chill" });
  const start = await figure(page, "Clock").innerText();
  await dough.getByRole("radio", { name: "Not at all" }).click();
  await expect(figure(page, "Cold")).toContainText("Not chilled");
  await expect(page.getByText(/at 21° it is tacky\. Roll it between papers/)).toBeVisible();
  await pieces.getByRole("radio", { name: "Not at all" }).click();
  await expect(page.getByText(/The cut pieces are not chilled/)).toBeVisible();
  expect(await figure(page, "Clock").innerText(), "it is begun later").not.toBe(start);

  await dough.getByRole("radio", { name: "Overnight" }).click();
  await page.getByRole("radio", { name: "In its bowl" }).click();
  await expect(page.getByText(/It comes out hard: let it rest/)).toBeVisible();
  await expect(figure(page, "Cold")).toContainText("lump, fridge");
  await open(page, bakery, "clock");
  // Mixed the evening before: the run sheet has two days.
  await expect(page.getByRole("listitem").filter({ hasText: /^Friday \d+ \w+$/ })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: /^Saturday \d+ \w+$/ })).toBeVisible();
  await expect(page.getByText("Scrape the dough together, cover")).toBeVisible();
  await expect(page.getByText("The dough onto the bench, to soften")).toBeVisible();

  await open(page, bakery, "cold");
  await dough.getByRole("radio", { name: "Exactly" }).click();
  await set(field(page, "So long, ready or not"), "20");
  await expect(page.getByText(/It comes out after 20\smin as you set it/)).toBeVisible();
  await set(field(page, "So long, ready or not"), "9 days");
  await expect(page.getByRole("alert")).toContainText("4320 min");
});
