/**
 * Renews the pictures in docs/screenshots from the demo data: `make shots`.
 * `node shots.mjs FOLDER [NAME...]` puts them elsewhere, or only some.
 */
import { mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { launch, newBakery, serve } from "./server.mjs";

const folder = resolve(process.argv[2] ?? "../docs/screenshots");
const only = process.argv.slice(3);
const WIDE = { width: 1280, height: 800 };
const NARROW = { width: 390, height: 844 };
const VIEWS = [
  { name: "shelf", path: "/" },
  { name: "kitchen", path: "/kitchen" },
  { name: "order", path: "/jobs/1/order" },
  { name: "dough", path: "/jobs/1/dough" },
  { name: "dough-mix", path: "/jobs/1/dough/mix" },
  {
    name: "dough-change",
    path: "/jobs/1/dough/change?lever=flour",
    act: async (page) => {
      await page.getByRole("combobox", { name: "becomes" }).selectOption({ label: "Unsweetened cocoa" });
      await page.getByRole("table", { name: "Grams in the formula" }).waitFor();
    },
  },
  {
    name: "read",
    path: "/read",
    act: async (page) => {
      await page.getByRole("button", { name: "Try it with a messy one" }).click();
      await page.getByText("One line asks").waitFor();
    },
  },
  { name: "pantry", path: "/pantry" },
  { name: "cold", path: "/jobs/1/cold" },
  { name: "shape", path: "/jobs/1/shape" },
  { name: "oven", path: "/jobs/1/oven" },
  { name: "clock", path: "/jobs/1/clock" },
  { name: "ledger", path: "/jobs/1/ledger" },
  { name: "cold-dark", path: "/jobs/1/cold", dark: true },
  { name: "cold-390", path: "/jobs/1/cold", size: NARROW },
  { name: "shape-390", path: "/jobs/1/shape", size: NARROW },
  { name: "clock-390", path: "/jobs/1/clock", size: NARROW },
];
// For looking, not kept in docs: any view at 390 wide, and whole pages.
const MORE = [
  { name: "dough-size", path: "/jobs/1/dough/size" },
  { name: "dough-label", path: "/jobs/1/dough/label" },
  { name: "dough-versions", path: "/jobs/1/dough/versions" },
];
const EXTRA = [...VIEWS, ...MORE].filter((v) => !v.size && !v.dark).flatMap((v) => [
  { ...v, name: `${v.name}-narrow`, size: NARROW, full: true },
  { ...v, name: `${v.name}-full`, full: true },
  { ...v, name: `${v.name}-night`, dark: true },
  { ...v, name: `${v.name}-us`, us: true },
]);

mkdirSync(folder, { recursive: true });
const bakery = newBakery();
const server = serve({ db: bakery.db });
const base = await server.address;
const browser = await launch();
const wanted = only.length > 0 ? [...VIEWS, ...MORE, ...EXTRA].filter((v) => only.includes(v.name)) : VIEWS;
for (const view of wanted) {
  const context = await browser.newContext({ viewport: view.size ?? WIDE, colorScheme: view.dark ? "dark" : "light" });
  const page = await context.newPage();
  page.on("console", (m) => {
    if (m.type() === "error") console.error(`${view.name}: ${m.text()}`);
  });
  if (view.us) await page.addInitScript(() => localStorage.setItem("units", "us"));
  await page.goto(base + view.path);
  await page.getByRole("main").waitFor();
  await page.waitForLoadState("networkidle");
  await page.evaluate(() => document.fonts.ready);
  if (view.act) await view.act(page);
  await page.waitForLoadState("networkidle");
  await page.screenshot({ path: join(folder, `${view.name}.png`), fullPage: view.full ?? false, animations: "disabled" });
  console.log(`${view.name}.png`);
  await context.close();
}
await browser.close();
await server.stop();
bakery.clear();
