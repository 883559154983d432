/** The shape station beyond the sheet: logs and bars, patterned bars. */
import { expect, field, open, set, test } from "../bakery";

test("any two of a log's five measures follow from the other three", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await page.getByRole("link", { name: "Log or bar" }).click();
  const slices = page.getByRole("complementary").locator(".answer");
  await expect(slices).toHaveText("44");
  await set(field(page, /^Dough in it/), "450 g");
  await expect(page.getByRole("img", { name: /^A log .* cut into 3\d slices of 6 mm$/ })).toBeVisible();
  // Slices become given: what was typed longest ago gives way.
  await set(field(page, /^Slices(: follows)?$/), "12");
  await expect(slices).toHaveText("12");
  await expect(field(page, /^Across: follows|^Slices, thick: follows|^Dough in it: follows/).first()).toBeVisible();
  await set(field(page, /^Across/), "3 mm");
  await expect(page.getByRole("alert")).toContainText("8 to 250 mm");
  await page.keyboard.press("Escape");
  await page.getByRole("radio", { name: "Oblong" }).click();
  await expect(field(page, "High")).toBeVisible();
  // The view has its own address, and the strip is saved at its true size.
  await page.goto(`${bakery.address}/jobs/1/shape/log?form=round&mass_g=450&width_mm=48&slice_mm=6`);
  await expect(page.getByText(/turn it/i)).toBeVisible();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Ruler strip, 1 : 1" }).click();
  const file = await (await saved).createReadStream();
  let text = "";
  for await (const chunk of file) text += String(chunk);
  expect(text).toMatch(/width="2\d\dmm"/);
});

test("a pinwheel is formed: its sheets, its masses, its steps", async ({ page, bakery }) => {
  await open(page, bakery, "shape/pattern");
  await expect(page.getByRole("img", { name: /^Section of the checkerboard, 36 mm by 36 mm/ })).toBeVisible();
  await page.getByRole("radio", { name: "Pinwheel" }).click();
  await expect(page.getByText("1 sheet, 239 mm × 4 mm").first()).toBeVisible();
  await expect(page.getByText(/both 239 mm by 200 mm, between papers/)).toBeVisible();
  await set(page.getByRole("textbox", { name: "Across", exact: true }), "60 mm");
  await expect(page.getByText(/1 sheet, 347 mm/).first()).toBeVisible();
  await set(field(page, "First turn, across"), "80 mm");
  await expect(page.getByRole("alert")).toContainText("0 to 30 mm");
});
