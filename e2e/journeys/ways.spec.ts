import { expect, field, figure, open, set, test } from "../bakery";

test.describe("a bakery without the demo", () => {
  test.use({ demo: false });

  test("goes from a pasted recipe and a cutter of its own to a run sheet", async ({ page, bakery }) => {
    await page.goto(bakery.address);
    await expect(page.getByRole("heading", { level: 1, name: "Your first job" })).toBeVisible();
    await page.getByRole("link", { name: /^Paste a recipe/ }).click();
    await page.getByRole("textbox", { name: "Recipe", exact: true }).fill("Slipway rounds\n300 g flour\n200 g butter\n100 g sugar\n1 egg\n2 g salt");
    await page.getByRole("button", { name: "Save recipe" }).click();
    await expect(page.getByRole("radio", { name: "Slipway rounds" })).toHaveAttribute("aria-checked", "true");
    await page.getByRole("button", { name: "Add a cutter: SVG or photo" }).click();
    await page.getByRole("dialog").getByRole("textbox", { name: "Name" }).fill("Slipway round");
    await page.getByRole("button", { name: "Add cutter" }).click();
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(page.getByRole("radio", { name: "Slipway round", exact: true })).toHaveAttribute("aria-checked", "true");
    await page.getByRole("button", { name: "Make the plan" }).click();
    await expect(page).toHaveURL(/\/order$/);
    await page.getByRole("navigation", { name: "Stations of this job" }).getByRole("link", { name: /^Order/ }).click();
    await set(field(page, /^Cookies$/), "30");
    await expect(figure(page, "Order")).toContainText("30 cookies");
    await page.getByRole("navigation", { name: "Stations of this job" }).getByRole("link", { name: /^Clock/ }).click();
    await page.emulateMedia({ media: "print" });
    await expect(page.getByRole("heading", { name: /^Schedule/ })).toBeVisible();
    await expect(page.getByText("Weigh and mix the dough")).toBeVisible();
  });
});

test("a piece is dragged by a finger, and told when it lies too near", async ({ browser, bakery }) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 1024, height: 768 } });
  const page = await context.newPage();
  await page.goto(`${bakery.address}/jobs/1/shape/nest`);
  await expect(page.locator('[data-piece="2"] path').first()).toBeVisible();
  const middle = async (n: number) => {
    const b = await page.locator(`[data-piece="${n}"] path`).first().boundingBox();
    if (!b) throw new Error(`piece ${n} is not drawn`);
    return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
  };
  const [from, onto] = [await middle(1), await middle(2)];
  const finger = await context.newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", at?: { x: number; y: number }) => finger.send("Input.dispatchTouchEvent", { type, touchPoints: at ? [at] : [] });
  await touch("touchStart", from);
  for (const share of [0.15, 0.3, 0.45]) await touch("touchMove", { x: from.x + (onto.x - from.x) * share, y: from.y + (onto.y - from.y) * share });
  await touch("touchEnd");
  await expect(page.getByRole("alert")).toContainText("too close to another or");
  await context.close();
});

test("paper is white, in the dark scheme too", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await page.getByRole("button", { name: "Dark theme" }).click();
  const ground = () => page.evaluate(() => [document.body, document.documentElement].map((e) => getComputedStyle(e).backgroundColor).find((c) => !c.endsWith(", 0)")) ?? "rgb(255, 255, 255)");
  const lightness = async () => {
    const [r = 0, g = 0, b = 0] = (await ground()).match(/[\d.]+/g)?.map(Number) ?? [];
    return (r + g + b) / 3;
  };
  await expect.poll(lightness).toBeLessThan(90);
  await page.emulateMedia({ media: "print" });
  await expect.poll(lightness).toBeGreaterThan(240);
  await expect(page.getByRole("heading", { name: "Cut list: Regatta gulls" })).toBeVisible();
  const ink = await page.getByRole("heading", { name: "Cut list: Regatta gulls" }).evaluate((h) => getComputedStyle(h).color);
  expect(Math.max(...(ink.match(/[\d.]+/g)?.map(Number) ?? []).slice(0, 3))).toBeLessThan(110);
});

test("an older version is kept by one job, and made the newest again for all", async ({ page, bakery }) => {
  const formulas = (await (await page.request.get(`${bakery.address}/api/formulas`)).json()) as { id: number; name: string; lines: { ingredient: string; grams: number }[] }[];
  const own = formulas.find((f) => f.id === 1);
  if (!own) throw new Error("the demo has no first formula");
  const lines = own.lines.map((l) => (l.ingredient === "butter" ? { ...l, grams: l.grams + 30 } : l));
  await page.request.put(`${bakery.address}/api/formulas/1`, { data: { name: own.name, lines } });
  await open(page, bakery, "dough/versions");
  const versions = page.getByRole("main").getByRole("listitem");
  const second = versions.filter({ has: page.getByRole("heading", { name: /^Version 2/ }) });
  await expect(second).toContainText("this job");
  await expect(second).toContainText(/unsalted butter/i);
  const first = versions.filter({ has: page.getByRole("heading", { name: /^Version 1/ }) });
  const butter = async () => {
    await open(page, bakery, "dough/mix");
    const text = await page.getByRole("list", { name: "Steps" }).innerText();
    await open(page, bakery, "dough/versions");
    return text;
  };
  const withMore = await butter();
  await first.getByRole("button", { name: "Use in this job" }).click();
  await expect(first).toContainText("this job");
  expect(await butter(), "the first version weighs out less butter").not.toBe(withMore);
  await first.getByRole("button", { name: "Use this version again" }).click();
  await expect(versions.filter({ has: page.getByRole("heading", { name: /^Version 3/ }) })).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(versions.filter({ has: page.getByRole("heading", { name: /^Version 3/ }) })).toHaveCount(0);
});

test("eggs are used whole, and all else follows them", async ({ page, bakery }) => {
  await open(page, bakery, "dough/size");
  await page.getByRole("radio", { name: "Whole eggs" }).click();
  await expect(page.getByRole("radio", { name: "Whole eggs" })).toBeChecked();
  await expect(page.getByRole("button", { name: /^Undo whole eggs/ })).toBeVisible();
  await open(page, bakery, "dough/mix");
  // A US large egg without its shell is taken at 50 g (USDA FoodData Central, SR Legacy 01123).
  await expect(page.getByRole("list", { name: "Steps" }).getByText(/^50\sg$/)).toBeVisible();
  await page.getByRole("button", { name: /^Undo whole eggs/ }).click();
  await expect(page.getByRole("list", { name: "Steps" }).getByText(/^50\sg$/)).toHaveCount(0);
});

test("a part of the dough is tinted, and more than all of it is refused", async ({ page, bakery }) => {
  await open(page, bakery, "dough/mix");
  await page.getByRole("textbox", { name: "Color" }).fill("coral");
  await page.getByRole("textbox", { name: "Share of the dough" }).fill("25");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  const tint = page.getByRole("list", { name: "Steps" }).getByRole("listitem").filter({ hasText: /Divide and color/ });
  await expect(tint).toContainText(/coral/i);
  await set(field(page, "coral, share of the dough"), "120");
  await expect(page.getByRole("alert").first()).toContainText("100");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Remove coral" }).click();
  await expect(tint).toHaveCount(0);
});
