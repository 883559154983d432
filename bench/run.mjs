/**
 * Prints median times of a full plan, a chill run, a sheet layout, server start and page load to interactive.
 * `make bench` builds in release and runs it. Figures of one run on one machine stand in bench/README.md.
 */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { performance } from "node:perf_hooks";
import { fileURLToPath } from "node:url";
import { launch, newBakery, serve } from "../e2e/server.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const binary = resolve(ROOT, "target/release/ready-slab");

const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];

async function times(count, work) {
  const found = [];
  for (let i = 0; i < count; i += 1) {
    const start = performance.now();
    await work();
    found.push(performance.now() - start);
  }
  return median(found);
}

function say(name, ms) {
  console.log(`${name.padEnd(52)} ${ms.toFixed(1).padStart(8)} ms`);
}

console.log("In the core, one thread (median of 21):");
for (const line of execFileSync(resolve(ROOT, "target/release/examples/measure"), { encoding: "utf8" }).trim().split("\n")) {
  const [name, ms] = line.split("\t");
  say(`  ${name}`, Number(ms));
}

console.log("Days planned, six made-up ones of each size:");
console.log(execFileSync(resolve(ROOT, "target/release/examples/day"), { encoding: "utf8" }).trim());

const bakery = newBakery();
console.log("Over HTTP on loopback (median):");
const starts = [];
for (let i = 0; i < 5; i += 1) {
  const start = performance.now();
  const server = serve({ db: bakery.db, binary });
  await server.address;
  starts.push(performance.now() - start);
  await server.stop();
}
say("  server start, bakery there already", median(starts.slice(1)));

const server = serve({ db: bakery.db, binary });
const base = await server.address;
const ask = (path, body) => async () => {
  const answer = await fetch(base + path, body ? { method: "POST", body: JSON.stringify(body) } : {});
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  await answer.arrayBuffer();
};

/** A day of so many trays of gulls, and the answer to a press in the middle of it. */
async function runOf(trays) {
  const send = async (method, path, body) => {
    const answer = await fetch(base + path, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  await send("PATCH", "/api/jobs/1", { pieces: trays * 20 });
  const [{ date }] = await (await fetch(`${base}/api/days`)).json();
  const day = await times(5, async () => {
    // A change of anything plans the date anew.
    await send("PATCH", "/api/jobs/1", { name: `Regatta gulls ${Math.random()}`.slice(0, 30) });
    await ask(`/api/jobs/1/plan`)();
  });
  say(`  day with ${trays} trays of gulls changed and planned`, day);
  const run = await send("POST", "/api/runs", { date, rehearsal: true });
  const mix = run.bars.find((b) => b.step === "mix").task;
  let n = 0;
  say(`  a press in a run with ${trays} such trays, planned anew`, await times(11, () => send("POST", `/api/runs/${run.id}/events`, [{ press: `p${n++}`, what: { kind: "more_time", task: mix, min: 0.5 } }])));
  await send("POST", `/api/runs/${run.id}/end`, {});
}
const composition = { water: 0.1457, fat: 0.2018, protein: 0.0575, carbohydrate: 0.5799, ash: 0.0035, fibre: 0.0116, fat_kind: "butter" };
const chill = (piece) => ({
  composition, piece, wrap: "wrapped", support: { kind: "rack" }, start_c: 20.5, place: { air_c: 4, film_w_m2k: 7 }, target: { kind: "rolling" },
});
say("  full plan", await times(31, ask("/api/jobs/1/plan")));
say("  chill, 22 mm disc, with its band", await times(31, ask("/api/compute/chill", chill({ kind: "disc", thickness_mm: 22, diameter_mm: 180 }))));
say("  chill, 6 mm sheet, with its band", await times(31, ask("/api/compute/chill", chill({ kind: "sheet", thickness_mm: 6 }))));
say(
  "  sheet layout, 65 mm rounds",
  await times(31, ask("/api/compute/sheet", { cutter: { kind: "builtin", name: "Round", form: "round", width_mm: 65 }, width_mm: 310, length_mm: 440, web_mm: 3, edge_mm: 4 })),
);
say("  other ways to chill", await times(31, ask("/api/jobs/1/cold/ways")));
say("  the inside of one", await times(31, ask("/api/jobs/1/cold/section?way=disc-fridge")));
say("  ways to have it ready at a time", await times(31, ask("/api/jobs/1/cold/wanted?in_at=2026-11-28T12:20&ready_at=2026-11-28T12:40")));
const heard = { first: [], all: [] };
for (let i = 0; i < 11; i += 1) {
  const start = performance.now();
  const answer = await fetch(`${base}/api/jobs/1/levers`);
  let first;
  for await (const _ of answer.body) first ??= performance.now() - start;
  heard.first.push(first);
  heard.all.push(performance.now() - start);
}
say("  levers of a bake, the first bar", median(heard.first));
say("  levers of a bake, all of them", median(heard.all));
say("  points of a piece that bake ahead", await times(31, ask("/api/jobs/1/parts-ahead")));
say("  a tray, piece by piece", await times(31, ask("/api/jobs/1/tray-times")));
say("  a job of four lots planned together", await times(31, ask("/api/jobs/4/together")));
say("  what two recorded bakes teach", await times(11, ask("/api/jobs/1/bakes-teach")));
const put = await fetch(`${base}/api/jobs/1/chills`, { method: "POST", body: JSON.stringify({ name: "Disc 1" }) });
const { id } = await put.json();
const reading = [{ shows_c: 21.4, spot: "core" }];
say("  a reading posted", await times(31, ask(`/api/chills/${id}/readings`, reading)));
say("  a followed piece after a new reading", await times(31, async () => {
  await ask(`/api/chills/${id}/readings`, reading)();
  await ask(`/api/chills/${id}`)();
}));

const twenty = readFileSync(resolve(ROOT, "crates/core/examples/twenty_lines.txt"), "utf8");
say("  a recipe of twenty lines, read", await times(31, ask("/api/recipes/read", { text: twenty, way: "spooned", cups: "us", eggs: "us_large" })));
say("  mixing sheet", await times(31, ask("/api/jobs/1/mixing")));
say("  a formula beside its nearest", await times(31, ask("/api/formulas/1/beside")));

const browser = await launch();
const loads = [];
let script = 0;
for (let i = 0; i < 7; i += 1) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  // Interactive: the plan is drawn, a press is made at once and has been answered. By the page's own clock from the start
  // of navigation, so that the test tool's way to the browser does not count.
  await page.addInitScript(() => {
    const seen = new MutationObserver(() => {
      const button = [...document.querySelectorAll("[role=radio]")].find((e) => e.textContent === "First roll");
      if (!button) return;
      if (button.getAttribute("aria-checked") === "true") {
        seen.disconnect();
        globalThis.interactive_ms = performance.now();
      } else button.click();
    });
    seen.observe(document, { childList: true, subtree: true, attributes: true });
  });
  await page.goto(`${base}/jobs/1/shape`);
  loads.push(await (await page.waitForFunction(() => globalThis.interactive_ms)).jsonValue());
  script = await page.evaluate(() => performance.getEntriesByType("resource").filter((r) => r.name.endsWith(".js") && r.startTime < performance.getEntriesByType("navigation")[0].loadEventEnd).reduce((sum, r) => sum + r.encodedBodySize, 0));
  await context.close();
}
say("  page load to a pressed button, new browser profile", median(loads));
console.log(`First JavaScript as sent (gzip): ${(script / 1000).toFixed(0)} kB`);
await browser.close();
for (const trays of [3, 8, 24, 40]) await runOf(trays);
await server.stop();
bakery.clear();
