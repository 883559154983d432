/** The bakery is kept safe: a copy taken away is brought back elsewhere. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, field, figure, open, set, settled, test } from "../bakery";
import { BINARY, newBakery, serve } from "../server.mjs";

const run = (...args: string[]): string => execFileSync(BINARY, args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });

test("a copy is taken away, the bakery goes on, and the copy is brought back on another port", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/kitchen`);
  const safe = page.getByRole("region", { name: "Kept safe" });
  // One was made by itself when the program was started on this day.
  await expect(safe.getByRole("status")).toContainText("Last backup today");
  await safe.getByRole("button", { name: "Back up now" }).click();
  await expect(safe.getByText("All 2")).toBeVisible();
  const taken = page.waitForEvent("download");
  await safe.getByRole("link", { name: "Take a copy away" }).click();
  const other = newBakery();
  const copy = join(other.db, "..", "copy.db");
  const download = await taken;
  expect(download.suggestedFilename()).toMatch(/^tern-street-bakehouse-\d{4}-\d\d-\d\d-\d{4}\.db$/);
  await download.saveAs(copy);
  // The bakery goes on; the copy is as it was.
  await open(page, bakery, "order");
  await set(field(page, /^Pieces$/), "96");
  await expect(figure(page, "Order")).toContainText("96 pieces");
  await settled(page);
  expect(run("check", copy)).toContain("is whole");
  // While it is served, nobody puts another file in its place.
  expect(() => run("restore", copy, "--db", bakery.db)).toThrow(/another program has this bakery open/);
  expect(run("restore", copy, "--db", other.db)).toContain("again");
  const brought = serve({ db: other.db, demo: false });
  await page.goto(`${await brought.address}/jobs/1/order`);
  await expect(figure(page, "Order")).toContainText("48 pieces");
  await page.goto("about:blank");
  await brought.stop();
  other.clear();
});
