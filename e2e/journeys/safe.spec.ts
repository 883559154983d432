/** The bakery is kept safe: a copy taken away is brought back elsewhere. */
import { execFileSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, field, figure, open, set, settled, test } from "../bakery";
import { BINARY, newBakery, serve } from "../server.mjs";

const run = (...args: string[]): string => execFileSync(BINARY, args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });

/** Served from another file on another port, the bakery is as it was; then that one is cleared away. */
async function standsElsewhere(page: Page, other: ReturnType<typeof newBakery>): Promise<void> {
  const server = serve({ db: other.db, demo: false });
  await page.goto(`${await server.address}/jobs/1/order`);
  await expect(figure(page, "Order")).toContainText("48 cookies");
  await page.goto("about:blank");
  await server.stop();
  other.clear();
}

test("a copy is taken away, the bakery goes on, and the copy is brought back on another port", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/kitchen`);
  const safe = page.getByRole("region", { name: "Backups" });
  // One was made by itself when the program was started on this day.
  await expect(safe.getByRole("status")).toContainText("Last backup today");
  await safe.getByRole("button", { name: "Back up now" }).click();
  await expect(safe.getByText("All 2")).toBeVisible();
  const taken = page.waitForEvent("download");
  await safe.getByRole("link", { name: "Download a copy" }).click();
  const other = newBakery();
  const copy = join(other.db, "..", "copy.db");
  const download = await taken;
  expect(download.suggestedFilename()).toMatch(/^tern-street-bakehouse-\d{4}-\d\d-\d\d-\d{4}\.db$/);
  await download.saveAs(copy);
  // The bakery goes on; the copy is as it was.
  await open(page, bakery, "order");
  await set(field(page, /^Cookies$/), "96");
  await expect(figure(page, "Order")).toContainText("96 cookies");
  await settled(page);
  expect(run("check", copy)).toContain("is OK");
  // While it is served, nobody puts another file in its place.
  expect(() => run("restore", copy, "--db", bakery.db)).toThrow(/This bakery is/);
  expect(run("restore", copy, "--db", other.db)).toContain("Restored");
  await standsElsewhere(page, other);
});

test("the open archive goes out with a press and is read on another machine, where all of it is again", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/kitchen`);
  const taken = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download an open archive" }).click();
  const download = await taken;
  expect(download.suggestedFilename()).toMatch(/\.zip$/);
  const other = newBakery();
  const archive = join(other.db, "..", "bakery.zip");
  await download.saveAs(archive);
  expect(run("import", archive, "--db", other.db)).toContain("Imported");
  // As much of everything as here.
  const copy = join(other.db, "..", "copy.db");
  run("backup", copy, "--db", bakery.db);
  const holds = (file: string) => run("check", file).replace(/^.* is OK: /, "");
  expect(holds(other.db)).toBe(holds(copy));
  await standsElsewhere(page, other);
});

test("among many jobs one is found by its name, and the earlier ones stand behind those to come", async ({ page, bakery }) => {
  const like = (await (await page.request.get(`${bakery.address}/api/jobs/1`)).json()) as Record<string, unknown>;
  const { id: _id, revision: _revision, sheet_key: _key, lot_of: _lot, dough_with: _dough, ...body } = like;
  for (let n = 1; n <= 44; n++) {
    const day = `2019-${String(1 + (n % 12)).padStart(2, "0")}-${String(1 + (n % 28)).padStart(2, "0")}T10:00`;
    const made = await page.request.post(`${bakery.address}/api/jobs`, { data: { ...body, name: `Harbour tin ${n}`, ready_by: day } });
    expect(made.ok()).toBe(true);
  }
  await page.goto(bakery.address);
  const jobs = page.getByRole("region", { name: "Jobs" });
  // What is to come stands first.
  await expect(jobs.getByRole("listitem").first()).toContainText("Regatta gulls");
  await expect(jobs.getByRole("listitem")).toHaveCount(40);
  await jobs.getByRole("button", { name: /^Show more of 48$/ }).click();
  await expect(jobs.getByRole("listitem")).toHaveCount(48);
  await jobs.getByRole("searchbox", { name: "Find a job" }).fill("tin 44");
  await expect(jobs.getByRole("listitem")).toHaveCount(1);
  await jobs.getByRole("searchbox", { name: "Find a job" }).fill("teapot");
  await expect(jobs.getByRole("status")).toContainText("named “teapot”");
});

test("a full disk is said, keeps nothing by half, and the edit is made once there is room", async ({ browser }) => {
  const { db, clear } = newBakery();
  const [shim, full] = [join(db, "..", "full-disk.so"), join(db, "..", "full")];
  execFileSync("cc", ["-shared", "-fPIC", "-o", shim, join(import.meta.dirname, "..", "full-disk.c")]);
  const server = serve({ db, env: { LD_PRELOAD: shim, DISK_FULL: full } });
  const address = await server.address;
  const page = await browser.newPage();
  await page.goto(`${address}/jobs/1/order`);
  await expect(figure(page, "Order")).toContainText("48 cookies");
  writeFileSync(full, "");
  await set(field(page, /^Cookies$/), "96");
  const told = page.getByRole("status").filter({ hasText: /Disk full.*1 change/ });
  await expect(told).toBeVisible();
  // It can be read meanwhile, and is as it was.
  const pieces = async () => ((await (await page.request.get(`${address}/api/jobs/1`)).json()) as { pieces: number }).pieces;
  expect(await pieces()).toBe(48);
  await expect(field(page, /^Cookies$/)).toHaveValue("96");
  rmSync(full);
  // It is made by itself, and so is the next.
  await expect(figure(page, "Order")).toContainText("96 cookies");
  await expect.poll(pieces).toBe(96);
  await expect(told).toHaveCount(0);
  await set(field(page, /^Cookies$/), "97");
  await expect.poll(pieces).toBe(97);
  await page.close();
  await server.stop();
  expect(run("check", db)).toContain("is OK");
  clear();
});
