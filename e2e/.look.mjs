// node /tmp/look.mjs steps.json : [{patch:{job:1,body:{}}, path, name, full, narrow, us, empty, act: [["click role name"]]}]
import { launch, newBakery, serve } from "./server.mjs";
import { readFileSync, mkdirSync } from "node:fs";
const steps = JSON.parse(readFileSync(process.argv[2], "utf8"));
mkdirSync("/tmp/now", { recursive: true });
const b = newBakery();
const server = serve({ db: b.db, demo: !steps[0]?.empty });
const base = await server.address;
const browser = await launch();
for (const s of steps) {
  if (s.patch) { const r = await fetch(`${base}/api/${s.thing ?? "jobs/1"}`, { method: s.method ?? "PATCH", headers: { "content-type": "application/json" }, body: JSON.stringify(s.patch) }); if (!r.ok) console.log(await r.text()); }
  if (!s.name) continue;
  const context = await browser.newContext({ viewport: s.narrow ? { width: 390, height: 844 } : { width: 1280, height: 800 } });
  const page = await context.newPage();
  page.on("console", (m) => m.type() === "error" && console.log(m.text()));
  if (s.us) await page.addInitScript(() => localStorage.setItem("units", "us"));
  await page.goto(base + s.path);
  await page.getByRole("main").waitFor();
  await page.waitForLoadState("networkidle");
  for (const [role, name] of s.click ?? []) { await page.getByRole(role, { name }).first().click(); await page.waitForTimeout(600); }
  for (const [label, text] of s.fill ?? []) { await page.getByLabel(label).first().fill(text); }
  for (const [role, name] of s.then ?? []) { await page.getByRole(role, { name }).first().click(); await page.waitForTimeout(900); }
  await page.screenshot({ path: `/tmp/now/${s.name}.png`, fullPage: s.full ?? false, animations: "disabled" });
  await context.close();
}
await browser.close(); await server.stop();
