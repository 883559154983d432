/** Ways in which bakers work, said on the screens and found again in the run sheet. */
import { expect, field, figure, open, set, settled, test, unfold } from "../bakery";
import type { Page } from "@playwright/test";

const choose = async (page: Page, group: string, name: string) => {
  const choice = page.getByRole("radiogroup", { name: group }).getByRole("radio", { name, exact: true });
  await choice.click();
  await expect(choice).toBeChecked();
};

/** The steps of the day as the run sheet tells them. */
async function runSheet(page: Page, bakery: Parameters<typeof open>[1]): Promise<string> {
  await open(page, bakery, "clock");
  await expect(page.getByRole("heading", { name: "Schedule", exact: true })).toBeVisible();
  await settled(page);
  return page.getByRole("region", { name: "Schedule" }).innerText();
}

test("royal icing in two colours on half of them, dry and packed by a time", async ({ page, bakery }) => {
  await open(page, bakery, "oven/finish");
  await page.getByRole("button", { name: "Royal icing", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Royal icing", exact: true })).toBeVisible();
  await set(field(page, "How many of 48"), "24");
  await expect(page.getByText(/24 of 48 cookies/)).toBeVisible();
  for (const [colour, share] of [["red", "30"], ["pale blue", "20"]] as const) {
    await page.getByRole("textbox", { name: "Color" }).fill(colour);
    await page.getByRole("textbox", { name: "Share of the icing", exact: true }).fill(share);
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await expect(page.getByText(new RegExp(`${colour}: start with .* color paste`))).toBeVisible();
  }
  await set(field(page, "red, share of the icing"), "90");
  await expect(page.getByRole("alert").first()).toContainText("100");
  await page.keyboard.press("Escape");
  await expect(page.getByText(/for the outline/)).toBeVisible();
  await expect(page.getByText(/Dry to the touch in 1.h.30.min, all the way in 10.h/)).toBeVisible();
  await open(page, bakery, "order");
  await choose(page, "Ready means", "Dry to the touch");
  await expect(page.getByText(/to the last cookie dry to the touch/)).toBeVisible();
  await choose(page, "Ready means", "Packed");
  const steps = await runSheet(page, bakery);
  expect(steps).toMatch(/Royal icing: tray 1/);
  expect(steps).toMatch(/dry, in one layer/);
  expect(steps).toMatch(/Pack tray 3/);
});

test("a log's dough chills as a lump first, or comes from the freezer", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await choose(page, "How they’re made", "Sliced");
  await open(page, bakery, "cold");
  await choose(page, "How long the lump chills", "Until ready");
  await expect(page.getByText(/The lump is firm in/)).toBeVisible();
  const twice = await runSheet(page, bakery);
  expect(twice).toMatch(/in the fridge, in one lump[\s\S]*Shape into (a log|logs)[\s\S]*Put the logs? in the fridge/);
  await open(page, bakery, "cold");
  await choose(page, "Fresh or frozen dough", "Frozen: thaw on the bench");
  await expect(page.getByText(/Never thaw it in warm water/)).toBeVisible();
  const thawed = await runSheet(page, bakery);
  expect(thawed).toMatch(/take it out of the freezer|from freezer to bench/);
  expect(thawed).not.toMatch(/Weigh and mix/);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText(/Weigh and mix/)).toBeVisible();
});

test("a sheet is cut on the tray's paper and pricked, and its scraps are marbled with another's", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await choose(page, "Where it is cut", "On the tray’s paper");
  await unfold(page);
  await expect(page.getByText(/Lift away the scraps/)).toBeVisible();
  await page.getByRole("checkbox", { name: "Prick with a fork before baking" }).check();
  await expect(page.getByText(/a fork’s width apart/)).toBeVisible();
  const steps = await runSheet(page, bakery);
  expect(steps).toMatch(/cut tray 1 on its parchment: \d+ cookies, prick/);
  await open(page, bakery, "shape/marbled");
  await set(field(page, "This dough"), "300");
  await set(field(page, "Other dough"), "200");
  await expect(page.getByRole("img", { name: /^Sheets of/ })).toBeVisible();
  await expect(page.getByText(/Label the allergens of both doughs:/)).toBeVisible();
  await set(field(page, "Other dough"), "1");
  await expect(page.getByRole("alert").first()).toContainText("5");
});

test("spoonfuls, stamped pieces and a bar of any three measures", async ({ page, bakery }) => {
  await open(page, bakery, "shape/portion?kind=spoon");
  await page.getByRole("radio", { name: "Teaspoon, level" }).click();
  // 4.9 mL of a dough of some 1.2 g/mL, packed at nine tenths.
  await expect(field(page, "One weighs")).toHaveValue(/^5(\.\d)?.g$/);
  await set(field(page, "One weighs"), "7");
  await page.getByRole("button", { name: /^Use this: \d+ drop cookies$/ }).click();
  await expect(page.getByRole("heading", { name: /drop cookies$/ })).toBeVisible();
  await expect(figure(page, "Dough")).toBeVisible();
  await open(page, bakery, "shape/portion?kind=stamped");
  await expect(field(page, "Stamp, across")).toHaveValue(/60/);
  await open(page, bakery, "shape/log?form=oblong&mass_g=600&length_mm=250&width_mm=60");
  await expect(field(page, /^Height/)).toHaveValue(/3\d(\.\d)?.mm/);
  await set(field(page, /^Slice thickness/), "8");
  await expect(field(page, /^Number of slices:/)).toHaveValue("30");
  await choose(page, "The ends", "Ends baked too");
  await expect(field(page, /^Number of slices:/)).toHaveValue("31");
});
