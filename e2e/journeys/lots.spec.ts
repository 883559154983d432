/** Jobs of several lots: cut, sliced and portioned, of several doughs, made in one day. */
import { expect, field, open, set, test, unfold } from "../bakery";

test("a lot is added, made of balls, and the whole day follows", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add an item" }).click();
  const tabs = page.getByRole("navigation", { name: "Items in this job" });
  await expect(tabs.getByRole("link", { name: /Item 2/ })).toHaveAttribute("aria-current", "page");
  await set(field(page, "Job name"), "Regatta balls");
  await page.getByRole("radio", { name: "Portioned" }).click();
  await expect(page.getByRole("heading", { name: "12 × ball" })).toBeVisible();
  await page.getByLabel("Recipe", { exact: true }).selectOption({ label: "Black sesame" });
  await page.getByRole("link", { name: "at Shape" }).click();
  await expect(page.getByRole("heading", { name: "12 balls" })).toBeVisible();
  await set(field(page, "Weight each"), "25 g");
  await unfold(page);
  await expect(page.getByText(/12 portions, 25\sg each/)).toBeVisible();
  await set(field(page, "Weight each"), "900 g");
  await expect(page.getByRole("alert")).toContainText("2 to 500 g");
  await page.keyboard.press("Escape");
  // Both lots stand in one day, and begin no later than the gulls alone.
  await page.getByRole("link", { name: /^Clock/ }).click();
  await expect(page.getByText("Portion the dough")).toBeVisible();
  await expect(page.getByText("· Regatta gulls").first()).toBeVisible();
  await expect(page.getByText("· Regatta balls").first()).toBeVisible();
  // It is undone as it was done, and becomes a job of its own.
  await page.getByRole("link", { name: /^Order/ }).click();
  await page.getByRole("button", { name: "Make it a separate job" }).click();
  await expect(tabs).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(tabs.getByRole("link", { name: /Regatta balls/ })).toBeVisible();
});

test("fish and buoys of one dough are cut from one sheet, kept and printed", async ({ page, bakery }) => {
  await open(page, bakery, "shape/mixed", 4);
  await page.getByRole("button", { name: "Lay them out" }).click();
  await expect(page.getByText(/They all fit on/)).toBeVisible({ timeout: 30_000 });
  const ticket = page.getByRole("complementary");
  await expect(ticket.getByText("18/18")).toHaveCount(2);
  await page.getByRole("button", { name: "Save these sheets" }).click();
  await expect(page.getByText(/its share of these sheets/)).toBeVisible();
  const pdf = await page.request.get(`${bakery.address}/api/jobs/4/template.pdf?paper=a4&mixed=0`);
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  // The sheet shows only the lot's own pieces; one piece more, and the sheets are not used any longer, which is said.
  await page.getByRole("link", { name: "Sheet and cutter" }).click();
  await expect(page.getByText("18/18").first()).toBeVisible();
  await page.getByRole("link", { name: /^Order/ }).click();
  await set(field(page, /^Cookies$/), "19");
  await page.getByRole("link", { name: /^Shape/ }).click();
  await expect(page.getByText(/Your saved shared sheets can.t be used/)).toBeVisible();
});

test("a log beside the plan becomes the lot, and goes back to the cutter", async ({ page, bakery }) => {
  await open(page, bakery, "shape/log?form=round&mass_g=450&width_mm=48&slice_mm=6");
  await page.getByRole("button", { name: /^Use this: \d+ slices/ }).click();
  await expect(page.getByRole("heading", { name: "One log" })).toBeVisible();
  await expect(page.getByRole("link", { name: /^Cold.*log, fridge/ })).toBeVisible();
  await page.getByRole("radio", { name: "Half-round" }).click();
  await expect(page.getByRole("link", { name: /^Cold.*log, fridge/ })).toBeVisible();
  await page.getByRole("link", { name: /^Clock/ }).click();
  await expect(page.getByText(/^Slice tray 1: /)).toBeVisible();
  await page.getByRole("link", { name: /^Order/ }).click();
  await page.getByRole("radio", { name: "Cut out", exact: true }).click();
  await expect(page.getByRole("radiogroup", { name: "Cutter" })).toBeVisible();
});

test("sheets are rolled round, and a ring leaves its hole", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await page.getByRole("radio", { name: "Round", exact: true }).click();
  await unfold(page);
  await expect(page.getByText(/a [\d.]+\scm round/)).toBeVisible();
  await set(field(page, "Maximum diameter"), "240 mm");
  await expect(page.getByText(/a 2[0-4][\d.]*\scm round/)).toBeVisible();
  await page.getByRole("link", { name: "Tighter layout" }).click();
  await page.getByRole("button", { name: "Find a tighter layout" }).click();
  await expect(page.getByText(/Time.s up|as tight as it gets/)).toBeVisible({ timeout: 20_000 });
  await page.goto(`${bakery.address}/jobs/1/order`);
  await page.getByRole("button", { name: "Add a cutter" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("radio", { name: "Ring" }).click();
  await dialog.getByRole("textbox", { name: "Name" }).fill("Lifebelt");
  await dialog.getByRole("textbox", { name: "Hole diameter" }).fill("28 mm");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("heading", { name: "48 × Lifebelt" })).toBeVisible();
});
