import { expect, field, figure, open, set, settled, test } from "../bakery";

test("two pages change one job: different fields both stay, of the same field the later one is asked", async ({ page, bakery, context }) => {
  await open(page, bakery, "order");
  const other = await context.newPage();
  await open(other, bakery, "order");
  // Neither page asks again by itself: what the other does is not known here yet.
  await set(field(page, /^Pieces$/), "60");
  await expect(figure(page, "Order")).toContainText("60 pieces");
  await set(field(other, "Job"), "Gulls for the first boat");
  await expect(other.getByText("/ Gulls for the first boat")).toBeVisible();
  await expect(figure(other, "Order")).toContainText("60 pieces");
  await set(field(other, "Pieces"), "72");
  await expect(figure(other, "Order")).toContainText("72 pieces");

  await expect(field(page, /^Pieces$/)).toHaveValue("60");
  await set(field(page, /^Pieces$/), "50");
  const asked = page.getByRole("alertdialog", { name: "Changed elsewhere meanwhile" });
  await expect(asked).toContainText("72");
  // A single key does nothing behind the question.
  await page.keyboard.press("7");
  await expect(page).toHaveURL(/\/order$/);
  await asked.getByRole("button", { name: "Leave it as it is now" }).click();
  await expect(field(page, /^Pieces$/)).toHaveValue("72");
  await expect(page.getByText("/ Gulls for the first boat")).toBeVisible();

  await set(field(other, "Pieces"), "80");
  await expect(figure(other, "Order")).toContainText("80 pieces");
  await set(field(page, /^Pieces$/), "50");
  await asked.getByRole("button", { name: "Make it mine" }).click();
  await expect(figure(page, "Order")).toContainText("50 pieces");
  await expect(field(page, "Job")).toHaveValue("Gulls for the first boat");
});

test("undo takes back what was done here last, in a text field too, and says what it was", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await set(field(page, "Job"), "Tins for the regatta");
  await expect(page.getByText("/ Tins for the regatta")).toBeVisible();
  await field(page, "Job").press("Control+z");
  await expect(page.getByRole("status").filter({ hasText: "Taken back:" })).toBeVisible();
  await expect(field(page, "Job")).toHaveValue("Regatta gulls");
  await field(page, "Job").press("Tab");
  await expect(page.getByText("/ Regatta gulls")).toBeVisible();

  // A record is a fact of the day: undo brings back the record, and leaves the edit before it alone.
  await set(field(page, /^Pieces$/), "50");
  await expect(figure(page, "Order")).toContainText("50 pieces");
  await page.keyboard.press("Tab");
  await open(page, bakery, "ledger");
  await expect(page.getByRole("heading", { level: 2, name: "2 bakes" })).toBeVisible();
  await page.getByRole("button", { name: /^Remove the bake/ }).first().click();
  await expect(page.getByRole("heading", { level: 2, name: "One bake" })).toBeVisible();
  await page.getByRole("button", { name: "Take back", exact: true }).click();
  await expect(page.getByRole("heading", { level: 2, name: "2 bakes" })).toBeVisible();
  await expect(figure(page, "Order")).toContainText("50 pieces");
});

test("work that is half done is still there, or is asked about", async ({ page, bakery }) => {
  await open(page, bakery, "ledger");
  await field(page, "Widths of some pieces").fill("101 102");
  await page.keyboard.press("Tab");
  await page.getByRole("link", { name: /^Cold/ }).click();
  await page.getByRole("link", { name: /^Ledger/ }).click();
  await expect(field(page, "Widths of some pieces")).toHaveValue("101 102");

  await open(page, bakery, "dough/mix");
  await page.getByRole("checkbox", { name: /^Step 1/ }).click();
  await page.getByRole("link", { name: /^Clock/ }).click();
  await page.goBack();
  await expect(page.getByRole("checkbox", { name: /^Step 1/ })).toBeChecked();

  await open(page, bakery, "shape/nest");
  await page.getByRole("button", { name: "Choose the next piece" }).click();
  await page.getByRole("button", { name: "Take off" }).click();
  await page.getByRole("link", { name: /^Oven/ }).click();
  const asked = page.getByRole("alertdialog", { name: "Leave without keeping it?" });
  await asked.getByRole("button", { name: "Stay here" }).click();
  await expect(page).toHaveURL(/\/shape\/nest$/);
  await page.getByRole("link", { name: /^Oven/ }).click();
  await asked.getByRole("button", { name: "Leave it" }).click();
  await expect(page).toHaveURL(/\/oven$/);
});

test("a double tap takes one ingredient out, an address of nothing says so, and single keys can be turned off", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  const rows = page.getByRole("button", { name: /^Take .* out of the recipe/ });
  await expect(page.getByRole("row", { name: /Lemon zest/ })).toBeVisible();
  const before = await rows.count();
  await page.getByRole("button", { name: "Take Lemon zest out" }).dblclick();
  await expect(page.getByRole("row", { name: /Lemon zest/ })).toHaveCount(0);
  await expect(rows).toHaveCount(before - 1);

  await page.goto(`${bakery.address}/jobs/abc/order`);
  await expect(page.getByRole("heading", { name: "There is nothing at this address" })).toBeVisible();

  await page.goto(bakery.address);
  await settled(page);
  await page.keyboard.press("?");
  await page.getByRole("checkbox", { name: /^Single letters/ }).uncheck();
  await page.getByRole("button", { name: "Close" }).click();
  await page.keyboard.press("k");
  await expect(page).toHaveURL(`${bakery.address}/`);
});

test("the kitchen keeps its own clock, wherever the browser is", async ({ browser, bakery }) => {
  const away = await browser.newContext({ timezoneId: "Pacific/Chatham" });
  const page = await away.newPage();
  await page.goto(`${bakery.address}/kitchen`);
  await page.getByLabel("Its clocks are those of").selectOption("America/New_York");
  await expect(page.getByLabel("Its clocks are those of")).toHaveValue("America/New_York");
  await open(page, bakery, "clock");
  const plan = (await (await page.request.get(`${bakery.address}/api/jobs/1/plan`)).json()) as { zone: string; clock: { start_at: string } };
  expect(plan.zone).toBe("America/New_York");
  const [hours = "", minutes = ""] = plan.clock.start_at.slice(11).split(":");
  await expect(figure(page, "Clock")).toContainText(`Start ${Number(hours)}:${minutes}`);
  await open(page, bakery, "order");
  await page.getByLabel("Ready by").fill("2027-03-14T02:30");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Tab");
  await expect(page.getByText(/2:30 does not exist on 14 March 2027/)).toBeVisible();
  await away.close();
});
