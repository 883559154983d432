/** Why a bake came out so; what is tried on purpose; the book of all bakes. */
import { readFileSync } from "node:fs";
import { expect, field, open, set, settled, test } from "../bakery";

test("a cause is found, its test stands on the bench, and reads itself out", async ({ page, bakery }) => {
  await open(page, bakery, "ledger");
  await field(page, /^Widths of a few cookies/).fill("100.2 100.8 99.9 100.5");
  await field(page, /^Time in the oven/).fill("11");
  await page.getByRole("radio", { name: "Pale", exact: true }).click();
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("heading", { name: "3 bakes" })).toBeVisible();
  // The last bake against its forecast, at a glance.
  await expect(page.getByRole("region", { name: "Last bake" })).toContainText("more than forecast");
  await page.getByRole("link", { name: /^Why/ }).first().click();
  await page.getByRole("button", { name: "spread too far" }).click();
  const suspects = page.getByRole("list", { name: /^Possible causes/ });
  await expect(suspects.getByRole("heading")).toHaveCount(5);
  const first = suspects.getByRole("listitem").first();
  // What the baker answers moves it.
  await page.getByRole("button", { name: /^No: Did they color late/ }).click();
  await page.getByRole("button", { name: /^Yes: Was the first tray fine/ }).click();
  await expect(first).toContainText("cookies went in warm");
  await expect(page.getByText("Chill the cut tray until firm")).toBeVisible();
  await page.getByRole("button", { name: "Add to the next bake" }).click();
  await expect(page.getByText(/You.ll see it at the bench/)).toBeVisible();
  // Worked on the day, it is there.
  const [{ date }] = (await (await page.request.get(`${bakery.address}/api/days`)).json()) as [{ date: string }];
  const { id } = (await (await page.request.post(`${bakery.address}/api/runs`, { data: { date, rehearsal: true } })).json()) as { id: number };
  await page.goto(`${bakery.address}/bench/${id}`);
  await expect(page.getByRole("list", { name: "Tests today" })).toContainText("10 min");
  await page.getByRole("link", { name: "Enter the result" }).click();
  await page.getByRole("button", { name: "It helped" }).click();
  await expect(page.getByText(/^Most likely now: cookies went in warm, \d+%/)).toBeVisible();
  await page.getByRole("button", { name: "Measure again" }).click();
  await page.getByRole("button", { name: "It made no difference" }).click();
  await expect(page.getByText(/^Most likely now: /)).not.toContainText("warm");
});

test("a trial is sized, laid out, measured and told in words", async ({ page, bakery }) => {
  await open(page, bakery, "ledger/trials");
  await expect(page.getByText(/^\d+ cookies of each, on 1 tray/)).toBeVisible();
  // What is too fine says what could be seen.
  await field(page, /^Smallest difference that matters/).fill("0.1 mm");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText(/Look for/);
  await field(page, /^Smallest difference that matters/).fill("1 mm");
  await page.keyboard.press("Enter");
  await field(page, /^What are you testing/).fill("Powdered sugar");
  await field(page, /^B: the change/).fill("half of it powdered");
  await page.getByRole("button", { name: "Plan the test" }).click();
  await expect(page.getByRole("heading", { name: "1 test planned" })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Tray 1: \d+ of A, as usual; \d+ of B, half of it powdered/ })).toBeVisible();
  await page.getByText("Enter measurements").click();
  await field(page, /^A: as usual/).fill("97.0 97.3 96.8 97.1");
  await field(page, /^B: half of it powdered/).fill("96.0 96.2 wide");
  await page.getByRole("button", { name: "See the result" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  // What was typed is still there after a look elsewhere.
  await page.getByRole("link", { name: "All bakes" }).click();
  await page.getByRole("link", { name: "Tests" }).click();
  await field(page, /^B: half of it powdered/).fill("96.0 96.2 95.9 96.3");
  await page.getByRole("button", { name: "See the result" }).click();
  await expect(page.getByText(/^half of it powdered is .+ narrower than as usual/)).toBeVisible();
  await expect(page.getByRole("img", { name: /^B, half of it powdered: .* likely/ })).toBeVisible();
});

test("bakes are looked for, set side by side, taken out as a table and read back", async ({ page, bakery }) => {
  await open(page, bakery, "ledger/all");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  await page.getByRole("searchbox", { name: "Job, recipe or notes" }).fill("freezer");
  await expect(page.getByRole("heading", { name: "1 bake" })).toBeVisible();
  await page.getByRole("searchbox", { name: "Job, recipe or notes" }).fill("");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  const days = (await (await page.request.get(`${bakery.address}/api/book`)).json()) as { records: { recorded_at: string }[] };
  await set(page.getByLabel("To", { exact: true }), days.records[1]!.recorded_at.slice(0, 10));
  await expect(page.getByRole("heading", { name: "1 bake" })).toBeVisible();
  await set(page.getByLabel("To", { exact: true }), "");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  for (const i of [0, 1]) await page.getByRole("button", { name: /for side by side/ }).nth(i).click();
  const beside = page.getByRole("region", { name: "Side by side" });
  await expect(beside).toContainText("Doneness");
  await expect(beside.getByRole("row", { name: /^Edge/ })).toContainText("just golden");
  const taken = page.waitForEvent("download");
  await page.getByRole("link", { name: "Export CSV" }).click();
  const path = await (await taken).path();
  expect(readFileSync(path, "utf8").split("\r\n")).toHaveLength(4);
  await page.getByLabel("Import bakes into this job (CSV or JSON)").setInputFiles({ name: "bakes.csv", mimeType: "text/csv", buffer: readFileSync(path) });
  await expect(page.getByRole("status").filter({ hasText: "2 bakes added" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "4 bakes" })).toBeVisible();
  await page.getByLabel("Import bakes into this job (CSV or JSON)").setInputFiles({ name: "bakes.csv", mimeType: "text/csv", buffer: Buffer.from("widths_mm,edge_colour\nwide,golden") });
  await expect(page.getByRole("alert")).toContainText("Use a number");
  await settled(page);
});
