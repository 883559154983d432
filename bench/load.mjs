/** How long a plan takes while nothing else goes on, and while every kind of heavy work does. `make bench-load` runs it on the release build. */
import { setMaxListeners } from "node:events";
import { newBakery, serve } from "../e2e/server.mjs";

const TIMES = 120;
const { db, clear } = newBakery();
const server = serve({ db });
const at = await server.address;

const star = (points) => {
  const corner = (i) => {
    const [a, r] = [(2 * Math.PI * i) / points, i % 2 ? 41 : 45];
    return `${(50 + r * Math.cos(a)).toFixed(3)} ${(50 + r * Math.sin(a)).toFixed(3)}`;
  };
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path d="M${Array.from({ length: points }, (_, i) => corner(i)).join("L")}Z"/></svg>`;
};
const batch = (id, trays) => ({
  id, n_trays: trays, mix_min: 12, form_min: 4, chill_min: 40, chill_max: 120, temper_min: 10, roll_cut_min: 8, work_window_min: 25,
  tray_chill_min: 10, tray_chill_max: 120, bake_temp_c: 175, bake_min: 12, cool_on_tray_min: 6,
});
const DAY = {
  kitchen: { hands: 2, mixers: 1, fridge_slots: 8, freezer_slots: 6, trays: 10, ovens: 2, racks_per_oven: 2, preheat_min: 20, temp_change_min: 10, rechill_min: 15, cooling_slots: 6 },
  batches: [1, 2, 3, 4, 5, 6].map((n) => batch(n, 4)),
  seconds: 1,
};

let over = false;
const stop = new AbortController();
setMaxListeners(0, stop.signal);
const ask = (path, body) =>
  fetch(at + path, { signal: stop.signal, ...(body === undefined ? {} : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) }) });
// A book of 24 bakes of one dough, none in an oven or of pieces as another.
for (let n = 0; n < 24; n++) {
  const widths_mm = Array.from({ length: 6 }, (_, i) => 66 + ((n * 7 + i * 5) % 11) / 10);
  const conditions = { oven_c: 165 + n, start_c: 2 + n / 4 };
  const kept = await ask("/api/jobs/1/records", { widths_mm, thicknesses_mm: [], baked_min: 12 + ((n * 3) % 7) / 2, edge_colour: "just_golden", notes: "", conditions });
  if (!kept.ok) throw new Error(await kept.text());
}
const KINDS = {
  "look at an outline of 5,000 points": () => ask("/api/cutters/look", { kind: "svg", name: "star", svg: star(5000), width_mm: 90 }),
  levers: () => ask("/api/jobs/1/levers"),
  "what 24 bakes teach": () => ask("/api/jobs/1/bakes-teach"),
  nest: () => ask("/api/jobs/1/nest", { width_mm: 400, length_mm: 600, seconds: 5 }),
  "plan a day of 24 trays": () => ask("/api/compute/schedule", DAY),
  "whole bakery as an archive": () => ask("/api/backups/archive"),
};

async function plans() {
  const took = [];
  for (let i = 0; i < TIMES; i++) {
    const began = performance.now();
    await (await ask("/api/jobs/1/plan")).arrayBuffer();
    took.push(performance.now() - began);
  }
  took.sort((a, b) => a - b);
  return { p50: took[TIMES / 2], p95: took[Math.floor(TIMES * 0.95)] };
}

const ms = (n) => `${n.toFixed(0)} ms`;
const alone = {};
for (const [kind, run] of Object.entries(KINDS)) {
  const began = performance.now();
  const answer = await run();
  await answer.arrayBuffer();
  alone[kind] = `${answer.status}, ${ms(performance.now() - began)}`;
}
await plans();
const quiet = await plans();
const answers = {};
const loops = Object.entries(KINDS).flatMap(([kind, run]) =>
  [1, 2].map(async () => {
    while (!over) {
      const status = await run().then(async (r) => (await r.arrayBuffer(), r.status)).catch(() => "stopped");
      const of = (answers[kind] ??= {});
      of[status] = (of[status] ?? 0) + 1;
      if (status === 503) await new Promise((r) => setTimeout(r, 500));
    }
  }),
);
await new Promise((r) => setTimeout(r, 2000));
const busy = await plans();
over = true;
stop.abort();
await Promise.all(loops);
console.log("each alone:", alone);
console.log("answers while all go on, twice each:", answers);
console.log(`a plan, quiet: p50 ${ms(quiet.p50)}, p95 ${ms(quiet.p95)}; under load: p50 ${ms(busy.p50)}, p95 ${ms(busy.p95)}; p95 times ${(busy.p95 / quiet.p95).toFixed(2)}`);
await server.stop();
clear();
