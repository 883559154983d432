/** Why a bake came out so; what is tried on purpose; the book of all bakes. */
import { readFileSync } from "node:fs";
import { expect, field, open, settled, test } from "../bakery";

test("a cause is found, its test stands on the bench, and reads itself out", async ({ page, bakery }) => {
  await open(page, bakery, "ledger");
  await field(page, /^Widths of some pieces/).fill("100.2 100.8 99.9 100.5");
  await field(page, /^Time in the oven/).fill("11");
  await page.getByRole("radio", { name: "Pale", exact: true }).click();
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("heading", { name: "3 bakes" })).toBeVisible();
  // The last bake against its forecast, at a glance.
  await expect(page.getByRole("region", { name: "The last bake" })).toContainText("more than expected");
  await page.getByRole("link", { name: /^Why so/ }).first().click();
  await page.getByRole("button", { name: "spread too far" }).click();
  const suspects = page.getByRole("list", { name: /^What may be behind it/ });
  await expect(suspects.getByRole("heading")).toHaveCount(5);
  const first = suspects.getByRole("listitem").first();
  // What the baker answers moves it.
  await page.getByRole("button", { name: /^No: Did the colour come late/ }).click();
  await page.getByRole("button", { name: /^Yes: Was the first tray fine/ }).click();
  await expect(first).toContainText("pieces went in warm");
  await expect(page.getByText("Chill the cut tray until it is firm")).toBeVisible();
  await page.getByRole("button", { name: "Put it into the next bake" }).click();
  await expect(page.getByText(/^It stands on the bench/)).toBeVisible();
  // Worked on the day, it is there.
  const [{ date }] = (await (await page.request.get(`${bakery.address}/api/days`)).json()) as [{ date: string }];
  const { id } = (await (await page.request.post(`${bakery.address}/api/runs`, { data: { date, rehearsal: true } })).json()) as { id: number };
  await page.goto(`${bakery.address}/bench/${id}`);
  await expect(page.getByRole("list", { name: "To try today" })).toContainText("freezer ten minutes before");
  await page.getByRole("link", { name: "Read it out" }).click();
  await page.getByRole("button", { name: "It helped" }).click();
  await expect(page.getByText(/^Now first: pieces went in warm, \d+\s%, up from/)).toBeVisible();
  await page.getByRole("button", { name: "Measure anew" }).click();
  await page.getByRole("button", { name: "It made no difference" }).click();
  await expect(page.getByText(/^Now first: /)).not.toContainText("warm");
});

test("a trial is sized, laid out, measured and told in words", async ({ page, bakery }) => {
  await open(page, bakery, "ledger/trials");
  await expect(page.getByText(/^\d+ pieces of each way, on one tray/)).toBeVisible();
  // What is too fine says what could be seen.
  await field(page, /^A difference worth seeing/).fill("0.1 mm");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText(/can be seen/);
  await field(page, /^A difference worth seeing/).fill("1 mm");
  await page.keyboard.press("Enter");
  await field(page, /^What is it about/).fill("Powdered sugar");
  await field(page, /^B, done otherwise/).fill("half of it powdered");
  await page.getByRole("button", { name: "Lay it out" }).click();
  await expect(page.getByRole("heading", { name: "One thing to try" })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Tray 1: \d+ of A, as always; \d+ of B, half of it powdered/ })).toBeVisible();
  await page.getByText("Write down what was measured").click();
  await field(page, /^A: as always/).fill("97.0 97.3 96.8 97.1");
  await field(page, /^B: half of it powdered/).fill("96.0 96.2 wide");
  await page.getByRole("button", { name: "Read it out" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  // What was typed is still there after a look elsewhere.
  await page.getByRole("link", { name: "All bakes" }).click();
  await page.getByRole("link", { name: "Tried on purpose" }).click();
  await field(page, /^B: half of it powdered/).fill("96.0 96.2 95.9 96.3");
  await page.getByRole("button", { name: "Read it out" }).click();
  await expect(page.getByText(/^“half of it powdered” comes out .+ narrower than “as always”/)).toBeVisible();
  await expect(page.getByRole("img", { name: /^B, half of it powdered: .* between/ })).toBeVisible();
});

test("bakes are looked for, set side by side, taken out as a table and read back", async ({ page, bakery }) => {
  await open(page, bakery, "ledger/all");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  await page.getByRole("searchbox", { name: "Job, dough or notes" }).fill("freezer");
  await expect(page.getByRole("heading", { name: "One bake" })).toBeVisible();
  await page.getByRole("searchbox", { name: "Job, dough or notes" }).fill("");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  const days = (await (await page.request.get(`${bakery.address}/api/book`)).json()) as { records: { recorded_at: string }[] };
  await page.getByLabel("Until").fill(days.records[1]!.recorded_at.slice(0, 10));
  await expect(page.getByRole("heading", { name: "One bake" })).toBeVisible();
  await page.getByLabel("Until").fill("");
  await expect(page.getByRole("heading", { name: "2 bakes" })).toBeVisible();
  for (const i of [0, 1]) await page.getByRole("button", { name: /for side by side/ }).nth(i).click();
  const beside = page.getByRole("region", { name: "Side by side" });
  await expect(beside).toContainText("How far they were baked");
  await expect(beside.getByRole("row", { name: /^Edge/ })).toContainText("just golden");
  const taken = page.waitForEvent("download");
  await page.getByRole("link", { name: "As a table (CSV)" }).click();
  const path = await (await taken).path();
  expect(readFileSync(path, "utf8").split("\r\n")).toHaveLength(4);
  await page.getByLabel("A table or JSON of bakes").setInputFiles({ name: "bakes.csv", mimeType: "text/csv", buffer: readFileSync(path) });
  await expect(page.getByRole("status").filter({ hasText: "2 bakes were added" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "4 bakes" })).toBeVisible();
  await page.getByLabel("A table or JSON of bakes").setInputFiles({ name: "bakes.csv", mimeType: "text/csv", buffer: Buffer.from("widths_mm,edge_colour\nwide,golden") });
  await expect(page.getByRole("alert")).toContainText("is no number");
  await settled(page);
});
