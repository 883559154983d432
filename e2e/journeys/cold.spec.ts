/** The cold station: other ways, pieces that are followed live, what to do when it goes wrong, what was learnt. */
import type { Page } from "@playwright/test";
import { expect, field, figure, open, set, test, type Bakery } from "../bakery";
import { BINARY } from "../server.mjs";
import { spawn } from "node:child_process";

/** Puts a piece in whose clock runs fast. */
async function putIn(page: Page, bakery: Bakery, speed: string): Promise<void> {
  await open(page, bakery, "cold/now");
  await expect(page.getByText("Nothing from this job is chilling.")).toBeVisible();
  await page.getByText("Different from the plan").click();
  await page.getByRole("combobox", { name: "Timer speed" }).selectOption(speed);
  await page.getByRole("button", { name: "Put it in now" }).click();
  await expect(page.getByRole("heading", { name: "Disc 1", level: 3 })).toBeVisible();
}

async function readings(page: Page): Promise<number> {
  const text = await page.getByText(/^\d+\sreadings?( |$)(?!so far)|^\d+ of \d+ readings saved/).innerText();
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
  await expect(page.getByText(/readings so far: your fridge chills/)).toBeVisible();
  await expect(page).toHaveTitle(/^Disc 1: \d+\smin left · Regatta gulls/);
  const before = await readings(page);
  await bakery.restart("SIGKILL", async () => {
    await expect(page.getByText(/No connection\. Trying again\./)).toBeVisible();
  });
  // The stand-in goes on by itself, and so does the page, without a reload.
  await expect.poll(() => readings(page)).toBeGreaterThan(before);
  await expect(page.getByText(/No connection\. Trying again\./)).toHaveCount(0);
  await context.setOffline(true);
  await context.setOffline(false);
  const later = await readings(page);
  await expect.poll(() => readings(page)).toBeGreaterThan(later);
  await expect(page.getByRole("complementary").getByText("Ready to roll")).toBeVisible({ timeout: 90_000 });
  await expect(page).toHaveTitle(/^Ready: Disc 1/);
  expect(await page.evaluate(() => (globalThis as unknown as { told: string[] }).told)).toContain("Disc 1: ready to roll");
  await expect(page.locator("a[href$='/live']")).toContainText("1 ready");
  await page.keyboard.press("l");
  const card = page.getByRole("listitem", { name: "Disc 1" });
  await expect(card.getByText("Ready to roll")).toBeVisible();
  await expect(card.getByText(/^good for .* more$/)).toBeVisible();
  await card.getByRole("button", { name: "Take it out to use" }).click();
  await expect(page.getByText("Nothing is chilling.")).toBeVisible();
  await expect(page).toHaveTitle(/^Chilling now/);
});

test("a device of its own posts readings, and they are accepted for the kitchen", async ({ page, bakery }) => {
  await putIn(page, bakery, "300");
  const device = spawn(BINARY, ["probe", "--server", bakery.address, "--chill", "1", "--every-s", "60", "--film-factor", "0.8", "--count", "8"]);
  const ended = new Promise((done) => device.once("exit", done));
  await expect.poll(() => readings(page)).toBeGreaterThan(4);
  expect(await ended).toBe(0);
  const before = await figure(page, "Cold").innerText();
  // Taken out, it teaches by itself; one press leaves it out, another puts it back.
  await page.getByRole("button", { name: "Take it out to use" }).first().click();
  await expect(page.getByText("In use.", { exact: false })).toBeVisible();
  await expect(figure(page, "Cold")).not.toHaveText(before);
  await page.getByRole("button", { name: "Leave them out" }).click();
  await expect.poll(() => figure(page, "Cold").innerText()).toBe(before);
  await page.getByRole("button", { name: "Put them back" }).click();
  await expect(figure(page, "Cold")).not.toHaveText(before);
  await page.getByRole("navigation", { name: "Cold views" }).getByRole("button", { name: "More" }).click();
  await page.getByRole("link", { name: "What we’ve learned" }).click();
  await expect(page.getByText(/from 1 chill/)).toBeVisible();
  page.once("dialog", (d) => void d.accept());
  await page.getByRole("button", { name: "Reset the fridge" }).click();
  await expect(page.getByText(/from 1 chill/)).toHaveCount(0);
  await expect.poll(() => figure(page, "Cold").innerText()).toBe(before);
  // A crowded fridge is another place: it takes longer.
  await page.getByRole("radio", { name: "Crowded, opened often" }).first().click();
  await expect.poll(() => figure(page, "Cold").innerText()).not.toBe(before);
});

test("readings by hand, in either unit, with what is wrong said beside them", async ({ page, bakery }) => {
  await putIn(page, bakery, "1");
  const shows = field(page, "Reading");
  await shows.fill("68");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("Fahrenheit, send 20.0");
  await shows.fill("68F");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText(/^1\sreading$|^1\sreading Export/)).toBeVisible();
  await expect(page.getByRole("list", { name: "Latest readings" })).toContainText("20°");
  await page.getByRole("textbox", { name: "Time", exact: true }).fill("soon");
  await shows.fill("19");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("Type a time, like 2 pm");
  await page.getByRole("textbox", { name: "Time", exact: true }).fill("");
  await page.getByRole("button", { name: /^Remove/ }).click();
  await expect(page.getByText(/^0\sreadings/)).toBeVisible();
  await page.getByRole("button", { name: "Onto the bench" }).click();
  await expect(page.getByText("On the bench.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Undo the move" }).click();
  await expect(page.getByText("In the fridge.", { exact: true })).toBeVisible();
  // A second page of the browser is told by the first, and goes on when the first is closed.
  const second = await page.context().newPage();
  await second.goto(`${bakery.address}/live`);
  await expect(second.getByRole("listitem", { name: "Disc 1" })).toBeVisible();
  await page.goto("about:blank");
  const disc = second.getByRole("listitem", { name: "Disc 1" });
  await disc.getByRole("button", { name: "Onto the bench" }).click();
  await expect(disc.getByText(/on the bench/)).toBeVisible();
  await disc.getByRole("button", { name: "Undo the move" }).click();
  await expect(disc.getByText(/in the fridge/)).toBeVisible();
  await second.close();
  await page.goto(`${bakery.address}/jobs/1/cold/now?piece=1`);
  await page.getByRole("button", { name: "Take it out to use" }).click();
  await expect(page.getByRole("heading", { name: "Taken out" }).first()).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByRole("button", { name: "Onto the bench" })).toBeVisible();
});

test("other ways over the clock: by keyboard, with the inside at a movable time and sizes as levers", async ({ page, bakery }) => {
  await open(page, bakery, "cold/ways");
  await expect(page.getByText("Left overnight, it")).toBeVisible();
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
  await set(field(page, "Disc thickness"), "12 mm");
  await expect(page.getByRole("radio", { name: /^Disc, 12\smm, fridge: ready/ })).toBeVisible();
  await set(field(page, "Disc thickness"), "300 mm");
  await expect(page.getByRole("alert")).toContainText("8 to 80 mm");
  // The view has its own address.
  await page.goto(`${bakery.address}/jobs/1/cold/ways?disc_mm=12&place=both&way=log-fridge`);
  await expect(page.getByRole("radio", { name: /^Log, 50\smm across, fridge/ })).toBeChecked();
  await expect(page.getByRole("radio", { name: /^Disc, 12\smm, fridge/ })).toBeVisible();
});

test("advice with figures for each trouble, and what hands find moves the window", async ({ page, bakery }) => {
  await open(page, bakery, "cold/trouble");
  await expect(page.getByText(/too warm\. It.s at/)).toBeVisible();
  await set(field(page, "Middle of the dough"), "24");
  await expect(page.getByText(/It.s at 24\s°C; this dough rolls clean up to 1[789]/)).toBeVisible();
  for (const [trouble, said] of [["Dough too hard", "too cold"], ["Hot room", "29"], ["No room in the fridge", "Cool "], ["Power’s out", "With the door shut"]] as const) {
    await page.getByRole("radio", { name: trouble }).click();
    await expect(page.getByRole("status").filter({ hasText: said })).toBeVisible();
    await expect(page.getByRole("main").getByRole("listitem").first()).toBeVisible();
  }
  await page.getByRole("link", { name: "What we’ve learned" }).click();
  const limit = page.getByRole("row", { name: /^Rolls clean to/ });
  const before = await limit.innerText();
  await set(field(page, "Dough temperature"), "17");
  await page.getByRole("button", { name: "It stuck" }).click();
  await expect.poll(() => limit.innerText()).not.toBe(before);
  await expect(page.getByRole("list", { name: "How it felt" })).toContainText("stuck");
  await page.getByRole("button", { name: /^Remove stuck/ }).click();
  await expect.poll(() => limit.innerText()).toBe(before);
});

test("dough and pieces are not chilled, then wait overnight, then so long as a recipe says", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  const dough = page.getByRole("radiogroup", { name: "How long the dough chills" });
  const pieces = page.getByRole("radiogroup", { name: "How long the cookies chill" });
  const start = await figure(page, "Clock").innerText();
  await dough.getByRole("radio", { name: "Not at all" }).click();
  await expect(figure(page, "Cold")).toContainText("Not chilled");
  await expect(page.getByText(/at 21\s°C it.s tacky\. Roll it between sheets of parchment/)).toBeVisible();
  await pieces.getByRole("radio", { name: "Not at all" }).click();
  await expect(page.getByText(/Cut cookies not chilled/)).toBeVisible();
  expect(await figure(page, "Clock").innerText(), "it is begun later").not.toBe(start);

  await dough.getByRole("radio", { name: "Overnight" }).click();
  await page.getByRole("radio", { name: "In the bowl" }).click();
  await expect(page.getByText(/It comes out hard. Let it rest/)).toBeVisible();
  await expect(figure(page, "Cold")).toContainText("lump, fridge");
  await open(page, bakery, "clock");
  // Mixed the evening before: the run sheet has two days.
  await expect(page.getByRole("listitem").filter({ hasText: /^Friday, \w+ \d+$/ })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: /^Saturday, \w+ \d+$/ })).toBeVisible();
  await expect(page.getByText("Scrape the dough together and cover")).toBeVisible();
  await expect(page.getByText("Rest the dough on the bench to soften")).toBeVisible();

  await open(page, bakery, "cold");
  await dough.getByRole("radio", { name: "Exactly" }).click();
  await set(field(page, "Time, ready or not"), "20");
  await expect(page.getByText(/You take it out after 20\smin/)).toBeVisible();
  await set(field(page, "Time, ready or not"), "9 days");
  await expect(page.getByRole("alert")).toContainText("4320 min");
});
