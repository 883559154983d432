import { readFileSync } from "node:fs";
import { expect, field, figure, open, set, test, unfold } from "../bakery";

const MESSY = `Pier-end shortcakes
Makes about 3 dozen

INGREDIENTS
2 1/4 cups (280 g) all-purpose flour, plus more for dusting
3/4 cup caster sugar
1 cup (2 sticks) cold butter, cut into cubes
1 large egg, room temperature
1 1/2 tsp vanilla
a handful of walnuts, chopped
1,200 g cornstarch
½ tsp fine salt

For the icing:
2 cups icing sugar

Method
1. Cream the butter and sugar.
2. Bake 10 minutes.`;

test("a messy recipe is pasted, its two flagged lines settled, and it ends as a mixing sheet", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  await page.keyboard.press("r");
  await expect(page).toHaveURL(/\/read\?job=1$/);
  const text = page.getByRole("textbox", { name: "Recipe", exact: true });
  await expect(text).toBeFocused();
  await text.fill(MESSY);
  const lines = page.getByRole("list", { name: "Lines as read" });
  await expect(lines.getByRole("listitem").filter({ hasText: "All-purpose flour" })).toContainText("280 g");
  await expect(page.getByText("2 lines need an answer before they count.")).toBeVisible();
  const keep = page.getByRole("button", { name: "Use this for Regatta gulls" });
  await expect(keep).toBeDisabled();
  const walnuts = lines.getByRole("listitem").filter({ hasText: "handful" });
  await expect(walnuts).toContainText("How much does a handful of chopped walnuts weigh?");
  await walnuts.getByRole("textbox", { name: /Weight of a handful/ }).fill("2 oz");
  await walnuts.getByRole("button", { name: "Use this" }).click();
  await expect(page.getByText("1 line needs an answer before it counts.")).toBeVisible();
  const starch = lines.getByRole("listitem").filter({ hasText: "1,200 g cornstarch" });
  await expect(starch).toContainText("could be 1,200 or 1.2");
  await starch.getByRole("textbox", { name: /Weight of 1,200/ }).fill("30");
  await starch.getByRole("button", { name: "Use this" }).click();
  await expect(lines.getByRole("listitem").filter({ hasText: "Powdered sugar" })).toContainText("not in the dough", { ignoreCase: true });
  await keep.click();
  await expect(page).toHaveURL(/\/jobs\/1\/dough\/mix$/);
  const steps = page.getByRole("list", { name: "Steps" });
  await expect(steps.getByRole("listitem").filter({ hasText: "Mix-ins last" })).toContainText("Chopped walnuts");
  await expect(steps.getByRole("listitem").filter({ hasText: "Cream just to combine" })).toContainText("Unsalted butter");
  await expect(page.getByRole("heading", { level: 2, name: "Pier-end shortcakes" })).toBeVisible();
  await expect(page.getByText("Dough after mixing")).toBeVisible();
  // The job goes on with it, and one undo brings the old formula back.
  await page.getByRole("button", { name: /^Undo .*recipe/ }).click();
  await expect(page.getByRole("heading", { level: 2, name: "Lemon-thyme" })).toBeVisible();
});

test("how flour gets into the cup moves the grams, and the two amounts of a line must agree", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/read`);
  const text = page.getByRole("textbox", { name: "Recipe", exact: true });
  await text.fill("2 cups flour\n150 g butter\n1 cup (400 g) sugar");
  const lines = page.getByRole("list", { name: "Lines as read" });
  const flour = lines.getByRole("listitem").filter({ hasText: "All-purpose flour" });
  await expect(flour).toContainText("250 g");
  await page.getByRole("radio", { name: "Scooped" }).click();
  await expect(flour).toContainText("300 g");
  await page.getByRole("radio", { name: "Metric" }).click();
  await expect(flour).toContainText("317 g");
  const sugar = lines.getByRole("listitem").filter({ hasText: "(400 g) sugar" });
  await expect(sugar).toContainText("Which is right?");
  await sugar.getByRole("button", { name: /^400\sg/ }).click();
  await expect(page.getByRole("button", { name: "Save recipe" })).toBeEnabled();
});

test("a whole formula is entered and kept by keyboard alone", async ({ page, bakery }) => {
  await page.goto(bakery.address);
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  await page.keyboard.press("r");
  await expect(page.getByRole("textbox", { name: "Recipe", exact: true })).toBeFocused();
  await page.keyboard.type("Ferry slices\n\nIngredients\n360 flour-ap\n", { delay: 1 });
  // A bare key of the program is no name of the trade: it asks. Written as a baker says it, it is taken.
  await page.keyboard.press("Control+a");
  await page.keyboard.type("Ferry slices\n\nIngredients\n360 g flour\n240 g butter\n120 g icing sugar\n2 yolks\n3 g salt", { delay: 1 });
  await expect(page.getByText("1 : 0.5 : 1.5 butter, sugar, flour")).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("radio", { name: "Ferry slices" })).toContainText("1 : 0.5 : 1.5");
});

test("what no one can read is kept with a clear message", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/read`);
  const text = page.getByRole("textbox", { name: "Recipe", exact: true });
  await text.fill("<html><script>window.hurt = 1</script><body>nothing</body></html>");
  await expect(page.getByRole("alert")).toContainText("find the recipe in this page");
  expect(await page.evaluate(() => "hurt" in window)).toBe(false);
  await text.evaluate((node: HTMLTextAreaElement) => {
    const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, "value")?.set;
    set?.call(node, "1 g salt\n".repeat(555_000));
    node.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await expect(page.getByRole("alert")).toContainText("Too long: 4,995");
  await expect(text).toHaveValue(/window.hurt/);
  await text.fill("1 cup moon dust\n小麦粉 200 g\n300 g flour\n150 g butter");
  const lines = page.getByRole("list", { name: "Lines as read" });
  await expect(lines.getByRole("img", { name: "needs an answer" })).toHaveCount(2);
  await expect(lines.getByRole("img", { name: "sure" })).toHaveCount(2);
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Recipe", exact: true })).toHaveValue(/moon dust/);
});

test("a lever shows both doughs before it is kept, and undo takes it back", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  await page.getByRole("navigation", { name: "Dough views" }).getByRole("link", { name: "Change" }).click();
  await page.getByRole("combobox", { name: "for", exact: true }).selectOption({ label: "Shortening" });
  const grams = page.getByRole("table", { name: "Recipe weights" });
  await expect(grams.getByRole("row", { name: /^Shortening/ })).toContainText("182 g");
  await expect(grams.getByRole("row", { name: /^Water/ })).toContainText("39 g");
  await unfold(page);
  await expect(page.getByText("Fat, water and salt stay the same.")).toBeVisible();
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page).toHaveURL(/\/dough$/);
  await expect(page.getByRole("row", { name: /^Shortening/ })).toBeVisible();
  await page.getByRole("navigation", { name: "Dough views" }).getByRole("button", { name: "More" }).click();
  await page.getByRole("navigation", { name: "Dough views" }).getByRole("link", { name: "Versions" }).click();
  await expect(page.getByRole("heading", { name: /Version 2/ })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "Version 2" })).toContainText("Unsalted butter 225 g → out");
  await page.getByRole("button", { name: /^Undo recipe Lemon-thyme/ }).click();
  await expect(page.getByRole("heading", { name: /Version 2/ })).toHaveCount(0);
});

test("eggs are changed by count and size, and butter and flour follow", async ({ page, bakery }) => {
  await open(page, bakery, "dough/change?lever=egg");
  // One press for one egg or two.
  await page.getByRole("radio", { name: "2 eggs" }).click();
  await expect(page.getByRole("table", { name: "Recipe weights" }).getByRole("row", { name: /^Whole egg/ })).toContainText("100 g");
  await page.getByRole("textbox", { name: "or so many" }).fill("1");
  await page.getByRole("combobox", { name: "Egg size" }).selectOption("EU large");
  await page.getByRole("button", { name: "Show it" }).first().click();
  const grams = page.getByRole("table", { name: "Recipe weights" });
  await expect(grams.getByRole("row", { name: /^Whole egg/ })).toContainText("60 g");
  await expect(grams.getByRole("row", { name: /^Unsalted butter/ })).toContainText("−");
  await expect(grams.getByRole("row", { name: /^All-purpose flour/ })).toContainText("+");
  await page.getByRole("button", { name: "High altitude" }).click();
  await page.getByRole("textbox", { name: /Altitude/ }).fill("1600 m");
  await page.getByRole("button", { name: "Show it" }).click();
  await unfold(page);
  await expect(page.getByText(/At 1,600\sm \(5,250 ft\), water boils at 94\.7\s°C\./)).toBeVisible();
  await page.getByRole("textbox", { name: /Altitude/ }).fill("9000");
  await page.getByRole("button", { name: "Show it" }).click();
  await expect(page.getByRole("alert")).toContainText("Use 0 to 4000");
});

test("a formula without a job begins one from the shelf, and goes when it is not wanted", async ({ page, bakery }) => {
  await page.goto(bakery.address);
  await page.getByRole("button", { name: "Remove Black sesame" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Black sesame" })).toHaveCount(0);
  await page.getByRole("link", { name: "Start a job with Rye-caraway" }).click();
  await expect(page.getByRole("radio", { name: "Rye-caraway" })).toHaveAttribute("aria-checked", "true");
  await page.getByRole("button", { name: "Make the plan" }).click();
  await expect(page).toHaveURL(/\/jobs\/8\/order$/);
  await expect(page.getByRole("combobox", { name: "Recipe" })).toHaveValue("3");
});

test("dough is sized by what is on hand, frozen in part and shared with another job", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  await page.getByRole("navigation", { name: "Dough views" }).getByRole("button", { name: "More" }).click();
  await page.getByRole("navigation", { name: "Dough views" }).getByRole("link", { name: "Batch size" }).click();
  await set(page.getByRole("textbox", { name: "Unsalted butter on hand" }), "340");
  await expect(page.getByText("Unsalted butter runs out first.")).toBeVisible();
  const order = page.getByRole("button", { name: /^Make \d+/ });
  const pieces = Number(/\d+/.exec(await order.innerText())?.[0]);
  expect(pieces).toBeGreaterThan(80);
  await order.click();
  await expect(figure(page, "Order")).toContainText(`${pieces} cookies`);
  await set(field(page, "Frozen as dough"), "40");
  await expect(page.getByRole("img", { name: /Batches, and/ })).toContainText("40 for the freezer");
  const before = await figure(page, "Dough").innerText();
  const together = page.getByRole("switch", { name: /Mix with Awards-night boats/ });
  await together.click();
  // As the server has it: the figure alone may still be moving from the edit before.
  await expect(together).toBeChecked();
  await expect(figure(page, "Dough")).not.toHaveText(before);
  await open(page, bakery, "dough/size", 3);
  await expect(page.getByText(/Its dough is mixed with/)).toContainText("Regatta gulls");
  await open(page, bakery, "dough/size");
  await set(field(page, "Frozen as dough"), "999");
  await expect(page.getByRole("alert")).toContainText("cookies");
});

test("the bowl is asked, answered, noted, and teaches the formula", async ({ page, bakery }) => {
  await open(page, bakery, "dough/mix");
  await set(field(page, "Held-back flour"), "12");
  await expect(page.getByRole("list", { name: "Steps" })).toContainText("Held-back flour, by feel");
  await page.getByRole("radio", { name: "Too sticky" }).click();
  await page.getByRole("radio", { name: "sticks" }).click();
  await expect(page.getByText(/^Add 7\sg of flour/)).toBeVisible();
  await page.getByRole("button", { name: "Save note" }).click();
  await expect(page.getByRole("list", { name: "Notes on batches" })).toContainText("7 g all-purpose flour");
  await page.getByRole("radio", { name: "Too warm" }).click();
  await page.getByRole("radio", { name: "smears" }).click();
  await expect(page.getByText(/^Add nothing/)).toBeVisible();
  await page.getByRole("link", { name: "Use this in the recipe" }).click();
  await page.getByRole("button", { name: "Show it" }).click();
  await expect(page.getByRole("table", { name: "Recipe weights" })).toContainText("All-purpose flour");
});

test("cost and label follow the pantry, and an own ingredient is made, used and read by its name", async ({ page, bakery }) => {
  await open(page, bakery, "dough/label");
  await expect(page.getByText("No price yet: fresh thyme leaves")).toBeVisible();
  await expect(page.getByText(/^All-purpose flour \(WHEAT\), unsalted butter \(MILK\)/)).toBeVisible();
  await set(field(page, "Price of a kilogram of Fresh thyme leaves"), "40");
  await expect(page.getByRole("heading", { name: "Per cookie" })).toBeVisible();
  await set(field(page, "Price of a kilogram of Fresh thyme leaves"), "dear");
  await expect(page.getByRole("alert")).toContainText("Type a price, like 9.50");
  await page.goto(`${bakery.address}/pantry?item=butter`);
  await page.getByRole("button", { name: "Make your own version" }).click();
  await set(field(page, "Name, as recipes write it"), "Cliff dairy butter");
  await expect(page.getByRole("button", { name: /^Cliff dairy butter/ })).toBeVisible();
  await set(field(page, /^Water/), "60");
  await expect(page.getByRole("alert").first()).toContainText("Use 98 to 102");
  await page.goto(`${bakery.address}/read`);
  await page.getByRole("textbox", { name: "Recipe", exact: true }).fill("300 g flour\n2 sticks cliff dairy butter");
  await expect(page.getByRole("listitem").filter({ hasText: "Cliff dairy butter" })).toContainText("227 g");
});

test("a formula leaves in open formats and is read back", async ({ page, bakery }) => {
  await open(page, bakery, "dough/versions");
  for (const [name, format, ending] of [["Recipe data", "read as recipe data (JSON-LD)", "jsonld"], ["Spreadsheet (CSV)", "read as spreadsheet (CSV)", "csv"], ["Recipe file", "read as recipe file", "json"], ["Text", "read as text", "txt"]] as const) {
    await page.goto(`${bakery.address}/jobs/1/dough/versions`);
    const leaving = page.waitForEvent("download");
    await page.getByRole("link", { name, exact: true }).click();
    const file = await leaving;
    expect(file.suggestedFilename()).toBe(`recipe.${ending}`);
    await page.goto(`${bakery.address}/read`);
    await page.getByLabel("Recipe file").setInputFiles({ name: `formula.${ending}`, mimeType: "text/plain", buffer: readFileSync(await file.path()) });
    await expect(page.getByText(format)).toBeVisible();
    await expect(page.getByText("1 : 0.8 : 2.0 butter, sugar, flour")).toBeVisible();
    await expect(page.getByText("937 g", { exact: true })).toBeVisible();
  }
});
