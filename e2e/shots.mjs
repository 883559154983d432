/**
 * Renews the pictures in docs/screenshots from the demo data: `make shots`.
 * `node shots.mjs FOLDER [NAME...]` puts them elsewhere, or only some.
 */
import { mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { launch, newBakery, serve } from "./server.mjs";
import { underWay } from "./under-way.mjs";

const folder = resolve(process.argv[2] ?? "../docs/screenshots");
const only = process.argv.slice(3);
const WIDE = { width: 1280, height: 800 };
const NARROW = { width: 390, height: 844 };
const VIEWS = [
  { name: "first", path: "/", empty: true },
  { name: "shelf", path: "/" },
  { name: "order", path: "/jobs/1/order" },
  { name: "dough", path: "/jobs/1/dough" },
  {
    name: "read",
    path: "/read",
    act: async (page) => {
      await page.getByRole("button", { name: "See a messy example" }).click();
      await page.getByText("1 line needs an answer").waitFor();
    },
  },
  { name: "cold", path: "/jobs/1/cold" },
  { name: "live", path: "/live", live: true },
  { name: "shape", path: "/jobs/1/shape" },
  {
    name: "shape-nest",
    // Fish gain one in two seconds; the demo's gulls lie as tight in rows.
    path: "/jobs/4/shape/nest",
    act: async (page) => {
      await page.getByRole("button", { name: "Find a tighter layout" }).click();
      await page.getByText("Time’s up").waitFor({ timeout: 60_000 });
    },
  },
  { name: "oven", path: "/jobs/1/oven" },
  { name: "clock", path: "/jobs/1/clock" },
  { name: "day", path: "/days", act: (page) => page.getByRole("heading", { name: "Jobs" }).waitFor() },
  { name: "bench", busy: true },
  { name: "ledger", path: "/jobs/1/ledger" },
  {
    name: "ledger-photo",
    path: "/jobs/1/ledger/photo",
    act: async (page) => {
      await page.getByRole("button", { name: "Try a sample photo" }).click();
      await page.getByRole("button", { name: /^Use these/ }).waitFor({ timeout: 60_000 });
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  {
    name: "ledger-evenness",
    path: "/jobs/4/ledger/evenness",
    act: async (page) => {
      // A dozen trays of another job, so that the pictures of the others stay as they are.
      const { origin } = new URL(page.url());
      for (let tray = 0; tray < 12; tray += 1) {
        const widths_mm = Array.from({ length: 6 }, (_, i) => 84.4 + Math.sin(tray * 7 + i * 3) * 0.5 + (tray === 9 ? 1.1 : 0) + (tray % 3) * 0.15);
        await page.request.post(`${origin}/api/jobs/4/records`, { headers: { origin }, data: { widths_mm, edge_colour: "golden", baked_min: 12 } });
      }
      await page.reload();
      await page.getByRole("img", { name: /tray by tray/ }).waitFor();
    },
  },
  {
    name: "ledger-why",
    path: "/jobs/3/ledger",
    act: async (page) => {
      const { origin } = new URL(page.url());
      const far = await page.request.post(`${origin}/api/jobs/3/records`, { headers: { origin }, data: { widths_mm: [74.4, 75.1, 74.2, 74.8], edge_colour: "pale", baked_min: 12, notes: "The third tray was the worst." } });
      const { id } = await far.json();
      await page.goto(`${origin}/jobs/3/ledger/why/${id}`);
      await page.getByRole("button", { name: "spread too far" }).click();
      await page.getByRole("button", { name: /^Yes: Was the first tray fine/ }).click();
      await page.getByRole("button", { name: "Add to the next bake" }).waitFor();
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  {
    name: "ledger-trial",
    path: "/jobs/3/ledger/trials",
    act: async (page) => {
      const { origin } = new URL(page.url());
      const plan = async (name, ways) => (await page.request.post(`${origin}/api/jobs/3/tries`, { headers: { origin }, data: { name, ways, measure: "width", difference_mm: 1 } })).json();
      const cold = await plan("Ten minutes in the freezer", ["as usual", "ten minutes colder"]);
      const pieces = (middle) => Array.from({ length: 6 }, (_, i) => Math.round((middle + Math.sin(i * 2.7 + middle) * 0.45) * 10) / 10);
      await page.request.post(`${origin}/api/tries/${cold.id}/noted`, { headers: { origin }, data: { kind: "trial", trays_mm: cold.trial.trays.map(() => [pieces(73.4), pieces(72.3)]) } });
      await plan("Powdered sugar", ["as usual", "half the sugar powdered"]);
      await page.reload();
      await page.getByText("Past tests").waitFor();
    },
  },
  {
    name: "oven-finish",
    path: "/jobs/3/oven/finish",
    act: async (page) => {
      await page.getByRole("button", { name: "Royal icing", exact: true }).click();
      for (const [colour, share] of [["Red", "30"], ["Pale blue", "20"]]) {
        await page.getByRole("textbox", { name: "Color" }).fill(colour);
        await page.getByRole("textbox", { name: "Share of the icing", exact: true }).fill(share);
        await page.getByRole("button", { name: "Add", exact: true }).click();
        await page.getByText(new RegExp(`${colour}: .* color paste`)).waitFor();
      }
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
];
// For looking, not kept in docs: any view at 390 wide, and whole pages.
const MORE = [
  {
    name: "oven-levers",
    path: "/jobs/1/oven/levers",
    act: async (page) => {
      await page.getByText(/changes, one step each/).waitFor({ timeout: 30_000 });
      await page.getByRole("button", { name: "greased tray" }).click();
      await page.getByRole("button", { name: "10% more flour" }).click();
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  {
    name: "kitchen-oven",
    path: "/kitchen/oven",
    act: async (page) => {
      await page.getByRole("button", { name: "Use the simulated thermometer" }).click();
      await page.getByRole("button", { name: "Use this", exact: true }).waitFor({ timeout: 30_000 });
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  { name: "cold-ways", path: "/jobs/1/cold/ways?place=both" },
  { name: "shape-log", path: "/jobs/1/shape/log" },
  { name: "shape-tray", path: "/jobs/1/shape/trays" },
  { name: "new", path: "/new" },
  {
    name: "dough-change",
    path: "/jobs/1/dough/change?lever=flour",
    act: async (page) => {
      await page.getByRole("combobox", { name: "becomes" }).selectOption({ label: "Unsweetened cocoa" });
      await page.getByRole("table", { name: "Recipe weights" }).waitFor();
    },
  },
  { name: "pantry", path: "/pantry" },
  { name: "kitchen", path: "/kitchen" },
  { name: "oven-tray", path: "/jobs/1/oven/tray" },
  { name: "oven-tray-done", path: "/jobs/1/oven/tray?show=done", read: true },
  { name: "oven-lots-tray", path: "/jobs/4/oven/tray?show=done" },
  { name: "oven-boats", path: "/jobs/3/oven" },
  { name: "shape-portion", path: "/jobs/1/shape/portion?kind=rope" },
  { name: "lots-order", path: "/jobs/4/order" },
  { name: "lots-clock", path: "/jobs/4/clock" },
  { name: "lots-log", path: "/jobs/6/shape" },
  { name: "lots-balls", path: "/jobs/7/shape" },
  { name: "lots-balls-order", path: "/jobs/7/order" },
  {
    name: "lots-mixed",
    path: "/jobs/4/shape/mixed",
    act: async (page) => {
      await page.getByRole("button", { name: "Lay them out" }).click();
      await page.getByText("All fit on").waitFor({ timeout: 60_000 });
    },
  },
  {
    name: "shape-round",
    path: "/jobs/1/shape",
    act: async (page) => {
      await page.getByRole("radio", { name: "Round", exact: true }).click();
      await page.getByText("covers a round of").waitFor();
    },
  },
  { name: "shape-bar", path: "/jobs/1/shape/portion?kind=tray_bar" },
  { name: "shape-even", path: "/jobs/1/shape/even", read: true },
  { name: "shape-figure", path: "/jobs/1/shape/portion?kind=figure" },
  { name: "shape-thumb", path: "/jobs/1/shape/portion?kind=thumbprint" },
  { name: "shape-pattern", path: "/jobs/1/shape/pattern?pattern=pinwheel" },
  { name: "shape-board", path: "/jobs/1/shape/pattern" },
  { name: "cold-trouble", path: "/jobs/1/cold/trouble" },
  { name: "cold-learnt", path: "/jobs/1/cold/learnt", live: true },
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

/** Two pieces with readings, as a working morning leaves them. */
async function piecesInTheCold() {
  const ask = async (method, path, body) => {
    const answer = await fetch(base + path, { method, headers: { "content-type": "application/json" }, body: body && JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const ago = (minutes) => new Date(Date.now() - minutes * 60_000).toISOString();
  const disc = await ask("POST", "/api/jobs/1/chills", { name: "Disc 1", put_in_at: ago(14) });
  const shown = [[12, 21.7], [9, 21.1], [7, 38.2], [5, 20.3], [3, 19.9], [1, 19.4]];
  await ask("POST", `/api/chills/${disc.id}/readings`, shown.map(([m, shows_c]) => ({ shows_c, spot: "core", read_at: ago(m) })));
  const log = { kind: "log", diameter_mm: 50 };
  await ask("POST", "/api/jobs/2/chills", { name: "Log 1", piece: log, place: "freezer", put_in_at: ago(34) });
}

mkdirSync(folder, { recursive: true });
const bakery = newBakery();
const server = serve({ db: bakery.db });
const base = await server.address;
// A bakery in which nobody has done anything yet.
const nothing = newBakery();
const fresh = serve({ db: nothing.db, demo: false });
// A bakery in the middle of a day.
const working = newBakery();
const busy = serve({ db: working.db });
const browser = await launch();
const wanted = only.length > 0 ? [...VIEWS, ...MORE, ...EXTRA].filter((v) => only.includes(v.name)) : VIEWS;
if (wanted.some((v) => v.live)) await piecesInTheCold();
let bench;
for (const view of wanted) {
  const context = await browser.newContext({ viewport: view.size ?? WIDE, colorScheme: view.dark ? "dark" : "light" });
  const page = await context.newPage();
  page.on("console", (m) => {
    if (m.type() === "error") console.error(`${view.name}: ${m.text()}`);
  });
  if (view.us) await page.addInitScript(() => localStorage.setItem("units", "us"));
  await page.goto(view.busy ? (await busy.address) + (bench ??= await underWay(await busy.address, { into_min: 118, late_min: 4 })) : (view.empty ? await fresh.address : base) + view.path);
  await page.getByRole("main").waitFor();
  await page.waitForLoadState("networkidle");
  await page.evaluate(() => document.fonts.ready);
  if (view.read) {
    const measured = [{ columns: 3, rows: 4, read_mm: [6.1, 6, 5.8, 6.2, 6.4, 6, 6, 6.5, 6.1, 5.5, 5.9, 6] }];
    await fetch(`${base}/api/jobs/1`, { method: "PATCH", headers: { "content-type": "application/json" }, body: JSON.stringify({ measured }) });
    await page.reload();
    await page.getByRole("main").waitFor();
    await page.waitForLoadState("networkidle");
  }
  if (view.act) await view.act(page);
  await page.waitForLoadState("networkidle");
  await page.screenshot({ path: join(folder, `${view.name}.png`), fullPage: view.full ?? false, animations: "disabled" });
  console.log(`${view.name}.png`);
  await context.close();
}
await browser.close();
await server.stop();
await fresh.stop();
await busy.stop();
working.clear();
bakery.clear();
nothing.clear();
