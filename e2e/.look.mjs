import { newBakery, serve, launch } from "./server.mjs";
const b = newBakery();
const server = serve({ ...b, binary: "/tmp/rs-bin4" });
const address = await server.address;
const browser = await launch();
for (const size of [{ width: 1280, height: 800 }, { width: 390, height: 844 }]) {
  const page = await browser.newPage({ viewport: size });
  page.on("console", (m) => m.type() === "error" && console.log(m.text()));
  await page.goto(`${address}/jobs/1/ledger/evenness`);
  await page.waitForTimeout(1500);
  if (size.width > 500) {
    await page.screenshot({ path: "/tmp/e0.png" });
    for (let t = 0; t < 12; t += 1) {
      const widths_mm = Array.from({ length: 6 }, (_, i) => 97 + Math.sin(t * 7 + i * 3) * 0.5 + (t > 8 ? 1.2 : 0) + (t % 3) * 0.2);
      await page.request.post(`${address}/api/jobs/1/records`, { headers: { origin: address }, data: { widths_mm, edge_colour: "golden", baked_min: 12 } });
    }
    await page.reload();
    await page.waitForTimeout(1500);
  }
  await page.screenshot({ path: `/tmp/e-${size.width}.png`, fullPage: true });
}
await browser.close(); await server.stop(); process.exit(0);
