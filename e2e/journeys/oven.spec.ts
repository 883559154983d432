/** The oven station: the forecast, its levers, the tray and the bake sheet. */
import { expect, field, figure, open, set, test, unfold } from "../bakery";

test("the forecast follows the end, the oven and what lies on the tray", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const head = page.getByRole("heading", { name: /^Done in \d+\smin/ });
  await expect(head).toBeVisible();
  const before = await head.innerText();
  await expect(page.getByRole("img", { name: /cut and baked/ })).toBeVisible();
  await page.getByRole("radio", { name: "Brown" }).click();
  await expect(head).not.toHaveText(before);
  await expect(page.getByText("tay by the oven.").first()).toBeVisible();
  await page.getByRole("radio", { name: "Just golden" }).click();
  await expect(head).toHaveText(before);
  // An oven that runs cool takes longer, and its range is narrower once it is measured.
  await unfold(page);
  await set(field(page, /^Thermometer reading/), "160");
  await expect(head).not.toHaveText(before);
  await expect(page.getByText(/Range for an oven you checked with a thermometer/)).toBeVisible();
  await set(field(page, /^Thermometer reading/), "400");
  await expect(page.getByRole("alert")).toContainText("Use ");
  await page.keyboard.press("Escape");
});

test("warmer dough is seen to spread further on the board, and pinned beside the plan", async ({ page, bakery }) => {
  await open(page, bakery, "oven/levers");
  await expect(page.getByText(/\d+ changes, one step each/)).toBeVisible({ timeout: 30_000 });
  const row = page.getByRole("row").filter({ hasText: "Cookies 6° warmer" });
  await expect(row).toContainText(/\+\d+(\.\d)?\smm|slightly more/);
  await expect(page.getByRole("row").filter({ hasText: "Cookies 6° colder" })).toContainText(/−\d+(\.\d)?\smm|slightly less/);
  await row.getByRole("button").click();
  // As drawn: in words both may come to the same tenth of a millimetre.
  const growth = async (name: RegExp) => Number(await page.getByRole("img", { name }).locator("path").first().getAttribute("stroke-width"));
  expect(await growth(/^A: Cookies 6° warmer/)).toBeGreaterThan(await growth(/^As planned/));
  // A lever pulled for good moves the plan itself.
  const clock = await figure(page, "Oven").innerText();
  await page.getByRole("link", { name: "Forecast" }).click();
  await unfold(page);
  await page.getByRole("radio", { name: "Fan" }).click();
  await expect(figure(page, "Oven")).not.toHaveText(clock);
});

test("colder pieces are seen to spread less: the baked outline shrinks", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const picture = page.getByRole("img", { name: /cut and baked/ });
  const outline = async () => Number(await picture.locator("path.slides").first().getAttribute("stroke-width"));
  await expect(picture).toBeVisible();
  const before = await outline();
  await set(field(page, /^Cookies go in at/), "-8");
  await expect.poll(outline).toBeLessThan(before * 0.9);
  await set(field(page, /^Cookies go in at/), "22");
  await expect.poll(outline).toBeGreaterThan(before * 1.05);
  await set(field(page, /^Cookies go in at/), "60");
  await expect(page.getByRole("alert")).toContainText("−20 to 28");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Use the chill" }).click();
  await expect.poll(outline).toBeCloseTo(before, 5);
});

test("the oven card says when each tray goes in, when to look and what for", async ({ page, bakery }) => {
  await open(page, bakery, "oven/sheet");
  await expect(page.getByRole("table", { name: "Trays in the oven" }).getByRole("row")).toHaveCount(4);
  await expect(page.getByText(/Done when .*golden/)).toBeVisible();
  await page.getByRole("link", { name: "On the tray" }).click();
  await expect(page.getByRole("list", { name: "Trays in order" }).getByRole("listitem")).toHaveCount(3);
  // A piece larger than the forecast knows keeps the trade's ranges, and says so.
  await page.goto(`${bakery.address}/jobs/1/order`);
  await page.getByRole("radio", { name: "Portioned" }).click();
  await page.getByRole("link", { name: "at Shape" }).click();
  await set(field(page, "Weight each"), "450 g");
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(page.getByText(/No forecast for this bake/)).toBeVisible();
});

test("recorded bakes move the forecast by themselves, and one press leaves each of them out", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const head = page.getByRole("heading", { name: /^Done in \d+\smin/ });
  const before = await head.innerText();
  await open(page, bakery, "ledger");
  for (const minutes of ["12", "13", "12.5"]) {
    await expect(field(page, /Widths of a few cookies/)).toHaveValue("");
    await field(page, /Widths of a few cookies/).fill("101 102 101.5");
    await field(page, "Time in the oven").fill(minutes);
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await expect(page.getByText(`${minutes} min in the oven`).first()).toBeVisible();
  }
  await expect(page.getByText(/Your oven is .* cooler than its dial/).first()).toBeVisible({ timeout: 40_000 });
  await expect(page.getByText(/^Moved (your forecast|nothing)/)).toHaveCount(3);
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(head).not.toHaveText(before);
  await unfold(page);
  await expect(page.getByText(/bakes? of yours/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole("link", { name: /^Ledger/ }).click();
  const leave = page.getByRole("listitem").filter({ hasText: /Moved (your forecast|nothing)/ }).getByRole("button", { name: /^Leave out (the )?bake of/ });
  for (let left = 3; left > 0; left -= 1) {
    await expect(leave).toHaveCount(left);
    await leave.first().click();
  }
  await expect(page.getByText("Left out: the forecast doesn’t use it.")).toHaveCount(3);
  await page.getByRole("link", { name: /^Oven/ }).click();
  await expect(head).toHaveText(before);
});

test("the oven is measured by the stand-in thermometer and its map of hot places, and every tray follows", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  const head = page.getByRole("heading", { name: /^Done in \d+\smin/ });
  const before = await head.innerText();
  await expect(page.getByRole("list", { name: "Parts that bake faster" })).toContainText("The 2 tips");
  await page.getByRole("link", { name: "Test your oven" }).click();
  await page.getByRole("button", { name: "Use the simulated thermometer" }).click();
  await page.getByRole("button", { name: "Use this", exact: true }).click({ timeout: 30_000 });
  await expect(page.getByRole("button", { name: "In use" })).toBeVisible();
  await expect(page.getByRole("table", { name: "Readings of the oven" })).toContainText("175°");
  // The demo's oven is hotter on its right; one press makes its middle darker, and the sentence follows.
  await expect(page.getByText(/The right side is hotter/)).toBeVisible();
  await page.getByRole("button", { name: "Delete the map" }).click();
  await expect(page.getByText(/white bread slices/)).toBeVisible();
  await page.getByRole("radio", { name: "golden" }).click();
  await page.getByRole("button", { name: "row 1 from the back, 1 from the left: nothing here" }).click();
  await page.getByRole("radio", { name: "dark" }).click();
  await page.getByRole("button", { name: "row 3 from the back, 1 from the left: nothing here" }).click();
  await expect(page.getByText(/The front is hotter/)).toBeVisible();
  // An oven that runs cool takes longer.
  await open(page, bakery, "oven");
  await expect(head).not.toHaveText(before);
  await unfold(page);
  await expect(page.getByText(/an oven you checked with a thermometer/)).toBeVisible();
  await page.getByRole("link", { name: "Oven card" }).click();
  await expect(page.getByText(/The front is hotter/)).toBeVisible();
  await page.getByRole("link", { name: "On the tray" }).click();
  await page.getByRole("radio", { name: "When done" }).click();
  await expect(page.getByRole("img", { name: /^Done after: not turned/ })).toBeVisible();
});

test("readings of an own thermometer come in as CSV, and a bad line is named", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/kitchen/oven`);
  const give = (name: string, text: string) => page.getByLabel("Readings as CSV").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  const lines = Array.from({ length: 40 }, (_, m) => `${m},${m < 10 ? 20 + 15 * m : 168 + (m % 6 < 3 ? 2 : -2)}`);
  await give("oven.csv", ["minutes,degrees", ...lines].join("\n"));
  await expect(page.getByText(/Set to 175\s°C, it averages 168\s°C/)).toBeVisible();
  await give("bad.csv", "0,20\nnonsense");
  await expect(page.getByRole("alert")).toContainText("Line 2");
  await give("short.csv", "0,20\n1,30");
  await expect(page.getByRole("alert")).toContainText("10 to 720 readings");
});

test("a covered pot is planned only after its cautions were read", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/kitchen/oven`);
  await page.getByRole("radio", { name: "A covered pot on a burner" }).click();
  const asked = page.getByRole("alertdialog");
  await expect(asked).toContainText("Never leave it unattended");
  await asked.getByRole("button", { name: "Use an oven" }).click();
  await expect(page.getByRole("radio", { name: "An oven" })).toBeChecked();
  await page.getByRole("radio", { name: "A covered pot on a burner" }).click();
  await asked.getByRole("button", { name: /I.ve read this/ }).click();
  await expect(page.getByRole("radio", { name: "A covered pot on a burner" })).toBeChecked();
  await open(page, bakery, "oven/sheet");
  await expect(page.getByText(/Heat the covered pot over a low flame/)).toBeVisible();
  await expect(page.getByText(/nothing sealed/)).toBeVisible();
  await page.getByRole("link", { name: "Forecast" }).click();
  await expect(page.getByText(/No forecast for a covered pot/)).toBeVisible();
});

test("a finish is chosen, changed, undone, and worked out for the lot", async ({ page, bakery }) => {
  await open(page, bakery, "oven/finish");
  await expect(page.getByText(/Plain for now/)).toBeVisible();
  await page.getByRole("group", { name: "Sugar glaze" }).getByRole("button", { name: "Sugar glaze" }).click();
  const card = page.getByRole("listitem").filter({ hasText: "Sugar glaze" });
  await expect(card).toContainText("48 cookies");
  const total = card.locator("[data-live]").first();
  const thin = await total.innerText();
  await set(field(page, "Coat thickness"), "1 mm");
  await expect(total).not.toHaveText(thin);
  await set(field(page, "Coat thickness"), "9 mm");
  await expect(page.getByRole("alert")).toContainText("0.1 to 2 mm");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Chocolate sandwich" }).click();
  await expect(page.getByText("24 pairs")).toBeVisible();
  await expect(page.getByText("1–2 days")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText("24 pairs")).toBeHidden();
  await page.getByRole("button", { name: "Remove Sugar glaze" }).click();
  await expect(page.getByText(/Plain for now/)).toBeVisible();
});

test("iced pieces are dry and packed by the wanted time, and 'ready' can mean something else", async ({ page, bakery }) => {
  await open(page, bakery, "oven/finish");
  await page.getByRole("button", { name: "Royal icing", exact: true }).click();
  await expect(page.getByText(/Outline [\d.]+\sg each/)).toBeVisible();
  await expect(page.getByText("meringue powder", { exact: true })).toBeVisible();
  await open(page, bakery, "order");
  const means = page.getByRole("radiogroup", { name: "Ready means" });
  await expect(means.getByRole("radio", { name: "Finished and dry" })).toBeChecked();
  await means.getByRole("radio", { name: "Packed" }).click();
  await expect(page.getByText(/to the last cookie packed/)).toBeVisible();
  await open(page, bakery, "clock");
  const run = page.getByRole("region", { name: "Schedule" }).getByRole("listitem");
  await expect(run.filter({ hasText: /^\d+:\d\dRoyal icing: tray 1/ })).toHaveCount(1);
  await expect(run.filter({ hasText: "Tray 1 dry, in one layer" })).toHaveCount(1);
  await expect(run.last()).toContainText("Pack tray");
  // A finish of hours is put on the day before.
  await expect(run.filter({ hasText: /^Friday, \w+ \d+$/ })).toHaveCount(1);
  await open(page, bakery, "order");
  await means.getByRole("radio", { name: "Out of the oven" }).click();
  await expect(page.getByText(/to the last tray out of the oven/)).toBeVisible();
});
