/** Forecasts told as they are: beside practice, by firmness, by one spread, and without minutes where they have none. */
import { expect, field, figure, open, set, test } from "../bakery";

test("the forecast stands beside practice, and its spread is told one way", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  await expect(page.getByRole("img", { name: /^Nine of ten bakes: forecast \d+–\d+\smin, common practice \d+–\d+\smin/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Baked so, a round of this dough spreads: forecast [\d.]+–[\d.]+\s%, common practice [\d.]+–[\d.]+\s%/ })).toBeVisible();
  await expect(page.getByText("Grows all round")).toBeVisible();
  await expect(page.getByText("Height, cut → baked")).toBeVisible();
  await expect(page.getByText(/Cut at 6\smm it comes out [67](\.\d)?\smm high at 0\.\d+\sg\/cm³/)).toBeVisible();
  // The dough by itself is told by a named piece, from the same model.
  await open(page, bakery, "dough");
  await expect(page.getByText("Spread of a 65 mm round").first()).toBeVisible();
});

test("a piece that never gets its colour has no minutes, and practice stands alone", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  await set(field(page, /^Set to/), "140");
  await page.getByRole("radio", { name: "Brown" }).click();
  await set(field(page, /^Thermometer in it/), "115");
  await expect(page.getByRole("heading", { name: /^In the oven/, level: 2 })).toBeVisible();
  await expect(page.getByText(/Not done within 5\d\smin by the forecast/).first()).toBeVisible();
  await expect(figure(page, "Oven")).toContainText("min at 140°");
});

test("dough that is cold enough is told to be still setting, and a rubbed-in one rests for its flour", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  await expect(page.getByText(/It is cold enough after \d+\smin; its butter goes on setting for \d+\smin more\./)).toBeVisible();
  await expect(page.getByText("as firm as at: fat sets later than it cools")).toBeVisible();
  const rest = field(page, /^Rests for its flour at least/);
  await expect(rest).toHaveValue("0 min");
  const before = (await figure(page, "Clock").textContent()) ?? "";
  await set(rest, "90");
  await expect(page.getByText(/It rests 90\smin at least for its flour/)).toBeVisible();
  await expect(figure(page, "Clock")).not.toHaveText(before);
  await set(rest, "5000");
  await expect(page.getByRole("alert")).toContainText("0 to 720");
  await page.keyboard.press("Escape");
});
