/** Forecasts told as they are: beside practice, by firmness, by one spread, and without minutes where they have none. */
import { expect, field, figure, open, set, test, unfold } from "../bakery";

test("the forecast stands beside practice, and its spread is told one way", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  await expect(page.getByRole("img", { name: /^9 in 10 bakes: \d+–\d+\smin forecast, usual \d+–\d+\smin/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Spread of a plain round: [\d.]+–[\d.]+% forecast, usual [\d.]+–[\d.]+%/ })).toBeVisible();
  await expect(page.getByText("Growth all around")).toBeVisible();
  await expect(page.getByText("Thickness, cut → baked")).toBeVisible();
  await unfold(page);
  await expect(page.getByText(/^6\smm thick when cut, [67](\.\d)?\smm baked/)).toBeVisible();
  // The dough by itself is told by a named piece, from the same model.
  await open(page, bakery, "dough");
  await expect(page.getByText("Spread of a 65 mm round").first()).toBeVisible();
});

test("a piece that never gets its colour has no minutes, and practice stands alone", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  await set(field(page, /^Oven set to/), "140");
  await page.getByRole("radio", { name: "Brown" }).click();
  await unfold(page);
  await set(field(page, /^Thermometer reading/), "115");
  await expect(page.getByRole("heading", { name: /^Bake time/, level: 2 })).toBeVisible();
  await expect(page.getByText(/in 5\d\smin: the oven is too cool/).first()).toBeVisible();
  await expect(figure(page, "Oven")).toContainText("min at 140°");
});

test("dough that is cold enough is told to be still setting, and a rubbed-in one rests for its flour", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  await unfold(page);
  await expect(page.getByText(/Cold enough after \d+\smin\. The butter keeps setting \d+\smin more\./)).toBeVisible();
  await expect(page.getByText("how firm it feels")).toBeVisible();
  const rest = field(page, /^Minimum flour rest/);
  await expect(rest).toHaveValue("0 min");
  const before = (await figure(page, "Clock").textContent()) ?? "";
  await set(rest, "90");
  await expect(page.getByText(/Rest it at least 90\smin/)).toBeVisible();
  await expect(figure(page, "Clock")).not.toHaveText(before);
  await set(rest, "5000");
  await expect(page.getByRole("alert")).toContainText("0 to 720");
  await page.keyboard.press("Escape");
});
