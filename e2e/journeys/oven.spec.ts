/** The oven station: the forecast, its levers, the tray and the bake sheet. */
import { expect, field, figure, open, set, test } from "../bakery";

test("the forecast follows the end, the oven and what lies on the tray", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const head = page.getByRole("heading", { name: /^Done after \d+ min/ });
  await expect(head).toBeVisible();
  const before = await head.innerText();
  await expect(page.getByRole("img", { name: /as cut and as baked/ })).toBeVisible();
  await page.getByRole("radio", { name: "Brown" }).click();
  await expect(head).not.toHaveText(before);
  await expect(page.getByText("stand by it.").first()).toBeVisible();
  await page.getByRole("radio", { name: "Just golden" }).click();
  await expect(head).toHaveText(before);
  // An oven that runs cool takes longer, and its range is narrower once it is measured.
  await set(field(page, /^Thermometer in it/), "160");
  await expect(head).not.toHaveText(before);
  await expect(page.getByText(/The range is of an oven measured against a thermometer/)).toBeVisible();
  await set(field(page, /^Thermometer in it/), "400");
  await expect(page.getByRole("alert")).toContainText("near the setting");
  await page.keyboard.press("Escape");
});

test("warmer dough is seen to spread further on the board, and pinned beside the plan", async ({ page, bakery }) => {
  await open(page, bakery, "oven/levers");
  await expect(page.getByText(/\d+ levers, one notch each/)).toBeVisible({ timeout: 30_000 });
  const row = page.getByRole("row").filter({ hasText: "6° warmer" });
  await expect(row).toContainText(/\+\d+(\.\d)? points/);
  await expect(page.getByRole("row").filter({ hasText: "6° colder" })).toContainText(/−\d+(\.\d)? points/);
  await row.getByRole("button").click();
  const growth = async (name: RegExp) => Number(/grows ([\d.]+) mm/.exec((await page.getByRole("img", { name }).getAttribute("aria-label")) ?? "")?.[1]);
  expect(await growth(/^A: pieces 6° warmer/)).toBeGreaterThan(await growth(/^As planned/));
  // A lever pulled for good moves the plan itself.
  const clock = await figure(page, "Oven").innerText();
  await page.getByRole("link", { name: "Forecast" }).click();
  await page.getByRole("radio", { name: "Fan" }).click();
  await expect(figure(page, "Oven")).not.toHaveText(clock);
});

test("the bake sheet says when each tray goes in, when to look and what for", async ({ page, bakery }) => {
  await open(page, bakery, "oven/sheet");
  await expect(page.getByRole("table", { name: "Trays in the oven" }).getByRole("row")).toHaveCount(4);
  await expect(page.getByText(/the rim just turns golden/)).toBeVisible();
  await page.getByRole("link", { name: "On the tray" }).click();
  await expect(page.getByRole("list", { name: "Trays in order" }).getByRole("listitem")).toHaveCount(3);
  // A piece larger than the forecast knows keeps the trade's ranges, and says so.
  await page.goto(`${bakery.address}/jobs/1/order`);
  await page.getByRole("radio", { name: "Portioned" }).click();
  await page.getByRole("link", { name: "its sizes are at Shape" }).click();
  await set(field(page, "Dough in one"), "450 g");
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(page.getByText(/The forecast does not reach this bake/)).toBeVisible();
});

test("recorded bakes are taken over and the forecast moves, and forgotten again", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const head = page.getByRole("heading", { name: /^Done after \d+ min/ });
  const before = await head.innerText();
  await open(page, bakery, "ledger");
  for (const minutes of ["12", "13", "12.5"]) {
    await expect(field(page, /Widths of some pieces/)).toHaveValue("");
    await field(page, /Widths of some pieces/).fill("101 102 101.5");
    await field(page, "Minutes in the oven").fill(minutes);
    await page.getByRole("button", { name: "Keep it" }).click();
    await expect(page.getByText(`${minutes} min in the oven`).first()).toBeVisible();
  }
  await expect(page.getByText(/The oven is .* cooler than set/)).toBeVisible({ timeout: 40_000 });
  await page.getByRole("button", { name: "Let the forecast learn it" }).click();
  await expect(page.getByText(/^Taken over: \d bakes/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(head).not.toHaveText(before);
  await expect(page.getByText(/of your bakes have taught it/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole("link", { name: /^Ledger/ }).click();
  await page.getByRole("button", { name: "Forget it" }).click();
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(head).toHaveText(before);
});
