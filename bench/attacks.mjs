/** What small requests that ask for much cost: time, answer and memory. `make bench-attacks` runs it on the release build. */
import { readFileSync } from "node:fs";
import { deflateSync } from "node:zlib";
import { newBakery, serve } from "../e2e/server.mjs";

const { db, clear } = newBakery();
const server = serve({ db });
const at = await server.address;
const pid = server.pid;

const memory = (field) => Number(new RegExp(`${field}:\\s+(\\d+)`).exec(readFileSync(`/proc/${pid}/status`, "utf8"))[1]) / 1000;
const svg = (inside, more = "") => `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 100 100"${more}>${inside}</svg>`;
const look = (text) => () => fetch(`${at}/api/cutters/look`, { method: "POST", body: JSON.stringify({ kind: "svg", name: "x", svg: text, width_mm: 90 }) });
const star = (n) => svg(`<path d="M${Array.from({ length: n }, (_, i) => [i % 2 ? 41 : 45, (2 * Math.PI * i) / n]).map(([r, a]) => `${(50 + r * Math.cos(a)).toFixed(3)} ${(50 + r * Math.sin(a)).toFixed(3)}`).join("L")}Z"/>`);
const read = (text) => () => fetch(`${at}/api/recipes/read`, { method: "POST", body: JSON.stringify({ text }) });
const times = (n, f) => Array.from({ length: n }, (_, i) => f(i)).join("");
const all = (n, f) => async () => {
  const answers = await Promise.all(Array.from({ length: n }, () => f().then(async (r) => (await r.arrayBuffer(), r.status))));
  const counts = {};
  for (const s of answers) counts[s] = (counts[s] ?? 0) + 1;
  return { status: Object.entries(counts).map(([s, c]) => `${c} × ${s}`).join(", "), arrayBuffer: async () => undefined };
};

/** A grey picture of so many pixels a side, PNG (ISO/IEC 15948). */
function grey(side) {
  const crcs = Array.from({ length: 256 }, (_, n) => Array.from({ length: 8 }).reduce((c) => (c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1), n));
  const crc = (bytes) => (bytes.reduce((c, b) => crcs[(c ^ b) & 255] ^ (c >>> 8), 0xffffffff) ^ 0xffffffff) >>> 0;
  const chunk = (kind, data) => {
    const body = Buffer.concat([Buffer.from(kind), data]);
    const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    check.writeUInt32BE(crc(body));
    return Buffer.concat([length, body, check]);
  };
  const rows = Buffer.alloc(side * (side * 3 + 1), 128);
  for (let row = 0; row < side; row++) rows[row * (side * 3 + 1)] = 0; // no filter
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]), chunk("IHDR", head), chunk("IDAT", deflateSync(rows)), chunk("IEND", Buffer.alloc(0))]);
}

const picture = grey(6300);
const photo = () => fetch(`${at}/api/cutters/photo?paper=a4&edge=outside&corners=0,0,1,0,1,1,0,1`, { method: "POST", headers: { "content-type": "image/png" }, body: picture });
const foreign = (path) => () => fetch(at + path, { headers: { "sec-fetch-site": "cross-site" } });

const ATTACKS = [
  ["1,000 nested svg elements", look(times(1000, () => svg("").replace("</svg>", "")) + "</svg>".repeat(1000))],
  ["400 patterns, each filled with the next", look(svg(times(400, (i) => `<pattern id="p${i}" width="9" height="9"><rect width="9" height="9" fill="url(#p${i + 1})"/></pattern>`) + '<rect width="90" height="90" fill="url(#p0)"/>'))],
  ["6,000 clip paths, each clipped by the next", look(svg(times(6000, (i) => `<clipPath id="c${i}" clip-path="url(#c${i + 1})"><rect width="9" height="9"/></clipPath>`) + '<rect width="90" height="90" clip-path="url(#c0)"/>'))],
  ["10,000 nested tspans", look(svg(`<text>${"<tspan>".repeat(10000)}x${"</tspan>".repeat(10000)}</text>`))],
  ["a blur of 1e9 px", look(svg('<filter id="f"><feGaussianBlur stdDeviation="1e9"/></filter><rect width="90" height="90" filter="url(#f)"/>'))],
  ["markers at 100,000 points", look(svg(`<marker id="m"><path d="M0 0h9v9z"/></marker><path marker-mid="url(#m)" d="M0 0${"h1v1".repeat(50000)}z"/>`))],
  ["an outline of 900 points of a star", look(star(900))],
  ["of 2,000", look(star(2000))],
  ["of 5,000", look(star(5000))],
  ["a page of 10,000 nested lists", read(`<html><body>${"<ul><li>".repeat(10000)}flour${"</li></ul>".repeat(10000)}</body></html>`)],
  ["markup inside a JSON-LD ingredient", read(`<script type="application/ld+json">${JSON.stringify({ "@type": "Recipe", name: "x", recipeIngredient: ["<b>".repeat(20000) + "100 g flour"] })}</script>`)],
  ["one photo of 8,000 x 8,000", () => fetch(`${at}/api/cutters/photo?paper=a4&edge=outside&corners=0,0,1,0,1,1,0,1`, { method: "POST", headers: { "content-type": "image/png" }, body: grey(8000) })],
  ["ten photos of 6,300 x 6,300 at once", all(10, photo)],
  ["24 times what bakes teach at once", all(24, () => fetch(`${at}/api/jobs/1/bakes-teach`))],
  ["24 times all levers at once", all(24, () => fetch(`${at}/api/jobs/1/levers`))],
  ["levers from a foreign page", foreign("/api/jobs/1/levers")],
  ["the whole bakery from a foreign page", foreign("/api/backups/now")],
];

console.log("request | answer | ms | a plan meanwhile, ms | memory, MB | most so far, MB");
for (const [name, run] of ATTACKS) {
  const began = performance.now();
  let status = "none";
  const done = run().then(async (r) => (await r.arrayBuffer(), (status = r.status))).catch((e) => (status = String(e.cause?.code ?? e)));
  await new Promise((r) => setTimeout(r, 20));
  const asked = performance.now();
  const plan = await fetch(`${at}/api/jobs/1/plan`).then(async (r) => (await r.arrayBuffer(), performance.now() - asked)).catch(() => Number.NaN);
  await done;
  console.log(`${name} | ${status} | ${(performance.now() - began).toFixed(0)} | ${plan.toFixed(0)} | ${memory("VmRSS").toFixed(0)} | ${memory("VmHWM").toFixed(0)}`);
}
await server.stop();
clear();
