import { expect, field, figure, open, set, settled, test } from "../bakery";

test("two pages change one job: different fields both stay, of the same field the later one is asked", async ({ page, bakery, context }) => {
  await open(page, bakery, "order");
  const other = await context.newPage();
  await open(other, bakery, "order");
  // Neither page asks again by itself: what the other does is not known here yet.
  await set(field(page, /^Cookies$/), "60");
  await expect(figure(page, "Order")).toContainText("60 cookies");
  await set(field(other, "Job name"), "Gulls for the first boat");
  await expect(other.getByText("/ Gulls for the first boat")).toBeVisible();
  await expect(figure(other, "Order")).toContainText("60 cookies");
  await set(field(other, "Cookies"), "72");
  await expect(figure(other, "Order")).toContainText("72 cookies");

  await expect(field(page, /^Cookies$/)).toHaveValue("60");
  await set(field(page, /^Cookies$/), "50");
  const asked = page.getByRole("alertdialog", { name: "Someone else changed this" });
  await expect(asked).toContainText("72");
  // A single key does nothing behind the question.
  await page.keyboard.press("7");
  await expect(page).toHaveURL(/\/order$/);
  await asked.getByRole("button", { name: "Use theirs" }).click();
  await expect(field(page, /^Cookies$/)).toHaveValue("72");
  await expect(page.getByText("/ Gulls for the first boat")).toBeVisible();

  await set(field(other, "Cookies"), "80");
  await expect(figure(other, "Order")).toContainText("80 cookies");
  await set(field(page, /^Cookies$/), "50");
  await asked.getByRole("button", { name: "Use mine" }).click();
  await expect(figure(page, "Order")).toContainText("50 cookies");
  await expect(field(page, "Job name")).toHaveValue("Gulls for the first boat");
});

test("undo takes back what was done here last, in a text field too, and says what it was", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await set(field(page, "Job name"), "Tins for the regatta");
  await expect(page.getByText("/ Tins for the regatta")).toBeVisible();
  await field(page, "Job name").press("Control+z");
  await expect(page.getByRole("status").filter({ hasText: "Undone:" })).toBeVisible();
  await expect(field(page, "Job name")).toHaveValue("Regatta gulls");
  await field(page, "Job name").press("Tab");
  await expect(page.getByText("/ Regatta gulls")).toBeVisible();

  // A record is a fact of the day: undo brings back the record, and leaves the edit before it alone.
  await set(field(page, /^Cookies$/), "50");
  await expect(figure(page, "Order")).toContainText("50 cookies");
  await page.keyboard.press("Tab");
  await open(page, bakery, "ledger");
  await expect(page.getByRole("heading", { level: 2, name: "2 bakes" })).toBeVisible();
  await page.getByRole("button", { name: /^Remove bake/ }).first().click();
  await expect(page.getByRole("heading", { level: 2, name: "1 bake" })).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByRole("heading", { level: 2, name: "2 bakes" })).toBeVisible();
  await expect(figure(page, "Order")).toContainText("50 cookies");
});

test("work that is half done is still there, or is asked about", async ({ page, bakery }) => {
  await open(page, bakery, "ledger");
  await field(page, "Widths of a few cookies").fill("101 102");
  await page.keyboard.press("Tab");
  await page.getByRole("link", { name: /^Cold/ }).click();
  await page.getByRole("link", { name: /^Ledger/ }).click();
  await expect(field(page, "Widths of a few cookies")).toHaveValue("101 102");

  await open(page, bakery, "dough/mix");
  await page.getByRole("checkbox", { name: /^Step 1/ }).click();
  await page.getByRole("link", { name: /^Clock/ }).click();
  await page.goBack();
  await expect(page.getByRole("checkbox", { name: /^Step 1/ })).toBeChecked();

  await open(page, bakery, "shape/nest");
  await page.getByRole("button", { name: "Next cookie" }).click();
  await page.getByRole("button", { name: "Remove" }).click();
  await page.getByRole("link", { name: /^Oven/ }).click();
  const asked = page.getByRole("alertdialog", { name: "Leave without saving?" });
  await asked.getByRole("button", { name: "Stay" }).click();
  await expect(page).toHaveURL(/\/shape\/nest$/);
  await page.getByRole("link", { name: /^Oven/ }).click();
  await asked.getByRole("button", { name: "Leave" }).click();
  await expect(page).toHaveURL(/\/oven$/);
});

test("a double tap takes one ingredient out, an address of nothing says so, and single keys can be turned off", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  const rows = page.getByRole("button", { name: /^Remove / });
  await expect(page.getByRole("row", { name: /Lemon zest/ })).toBeVisible();
  const before = await rows.count();
  await page.getByRole("button", { name: "Remove Lemon zest" }).dblclick();
  await expect(page.getByRole("row", { name: /Lemon zest/ })).toHaveCount(0);
  await expect(rows).toHaveCount(before - 1);

  await page.goto(`${bakery.address}/jobs/abc/order`);
  await expect(page.getByRole("heading", { name: "Nothing here" })).toBeVisible();

  await page.goto(bakery.address);
  await settled(page);
  await page.keyboard.press("?");
  await page.getByRole("checkbox", { name: /^Single-key/ }).uncheck();
  await page.getByRole("button", { name: "Close" }).click();
  await page.keyboard.press("k");
  await expect(page).toHaveURL(`${bakery.address}/`);
});

test("the kitchen keeps its own clock, wherever the browser is", async ({ browser, bakery }) => {
  const away = await browser.newContext({ timezoneId: "Pacific/Chatham" });
  const page = await away.newPage();
  await page.goto(`${bakery.address}/kitchen`);
  await page.getByRole("combobox", { name: "Time zone" }).selectOption("America/New_York");
  await expect(page.getByRole("combobox", { name: "Time zone" })).toHaveValue("America/New_York");
  await open(page, bakery, "clock");
  const plan = (await (await page.request.get(`${bakery.address}/api/jobs/1/plan`)).json()) as { zone: string; clock: { start_at: string } };
  expect(plan.zone).toBe("America/New_York");
  const [hours = "", minutes = ""] = plan.clock.start_at.slice(11).split(":");
  await expect(figure(page, "Clock")).toContainText(`Start ${Number(hours)}:${minutes}`);
  await open(page, bakery, "order");
  await set(field(page, "Ready by, day"), "March 14, 2027");
  await expect(field(page, "Ready by, day")).toHaveValue("Sun, Mar 14, 2027");
  await set(field(page, "Ready by, time"), "2:30");
  await expect(page.getByText(/There is no 2:30 on March 14, 2027/)).toBeVisible();
  await away.close();
});
