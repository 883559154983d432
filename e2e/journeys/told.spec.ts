/** A recipe that somebody told: read, kept with what it says of its method, baked, and learnt from without a press. */
import { expect, field, open, settled, test, units } from "../bakery";

const TOLD = `Okay so for the gulls I take two sticks of butter, the salted one, no, the unsalted, and a cup of sugar. One egg. Then three cups of flower, a teaspoon of vanilla
and half a teaspoon of salt. Cream it just until combined. Chill it for an hour, roll it a quarter inch thick, and bake at three fifty for eight to ten minutes. It makes about two dozen.`;

test.describe("an empty bakery, in US units", () => {
  test.use({ demo: false });

  test("a told recipe becomes a job; what it says stands beside our figures, and its bake moves them", async ({ page, bakery }) => {
    await page.goto(`${bakery.address}/read`);
    const text = page.getByRole("textbox", { name: "Recipe", exact: true });
    await text.fill(TOLD);
    const lines = page.getByRole("list", { name: "Lines as read" });
    for (const food of ["Unsalted butter", "Granulated sugar", "Whole egg", "All-purpose flour", "Vanilla extract", "Salt"]) {
      await expect(lines.getByText(food, { exact: false }).first()).toBeVisible();
    }
    const says = page.getByRole("complementary");
    await expect(says).toContainText("Bake8 min to 10 min");
    await expect(says).toContainText("Chill1 h");
    await page.getByRole("textbox", { name: "Name" }).fill("Harbor gulls");
    await expect(page.getByRole("button", { name: "Save recipe" })).toBeEnabled();
    await page.getByRole("button", { name: "Save recipe" }).click();
    // The new job takes over what the recipe says; one of it is refused, and taken back.
    await expect(page).toHaveURL(/\/new\?recipe=1/);
    const group = page.getByRole("group", { name: "As the recipe says" });
    await expect(group.getByRole("button")).toHaveCount(4);
    await expect(field(page, /^Cookies$/)).toHaveValue("24");
    const thick = group.getByRole("button", { name: /thick$/ });
    await thick.click();
    await expect(thick).toHaveAttribute("aria-pressed", "false");
    await settled(page);
    await expect(field(page, /^Thick/)).toHaveValue(/^6/);
    await thick.click();
    await expect(field(page, /^Thick/)).toHaveValue(/^6[.,]4/);
    await page.getByRole("button", { name: "Make the plan" }).click();
    await expect(page).toHaveURL(/\/jobs\/1\/order/);
    await open(page, bakery, "cold");
    await expect(page.getByText(/^Recipe: 1\sh\. You can roll after \d+\smin\.$/)).toBeVisible();
    await open(page, bakery, "oven");
    await units(page, "US");
    await expect(page.getByText(/^Recipe: 8 to 10\smin\. Yours: about \d+\smin\./)).toBeVisible();
    await expect(page.getByRole("textbox", { name: "Oven set to", exact: true })).toHaveValue(/350/);
    // A bake is recorded: it says what it moved, and can be left out and put back.
    await open(page, bakery, "ledger");
    await field(page, /^Widths/).fill("3 1/16; 3 1/8; 3 1/16");
    await field(page, "Time in the oven").fill("14");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await expect(page.getByText(/^Moved your forecast: (still about )?\d+/)).toBeVisible();
    const out = page.getByRole("button", { name: /^Leave out (the )?bake of/ }).first();
    await out.click();
    await expect(page.getByText("Left out: the forecast doesn’t use it.")).toBeVisible();
    await page.getByRole("button", { name: /^Put back (the )?bake of/ }).first().click();
    await expect(page.getByText(/^Moved your forecast/)).toBeVisible();
  });
});
