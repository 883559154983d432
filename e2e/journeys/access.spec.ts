/** On a network each device is let in with a code, as far as its role goes, until it is shut out. */
import { copyFileSync } from "node:fs";
import { expect, test, type BrowserContext, type Page } from "@playwright/test";
import { newBakery, serve } from "../server.mjs";

let there: { db: string; clear(): void };
let server: ReturnType<typeof serve>;
let at: string;

test.beforeEach(async () => {
  there = newBakery();
  if (process.env.SEEDED) copyFileSync(process.env.SEEDED, there.db);
  server = serve({ db: there.db, host: "0.0.0.0" });
  at = `http://127.0.0.1:${new URL(await server.address).port}`;
});

test.afterEach(async () => {
  await server.stop();
  there.clear();
});

async function letIn(page: Page, path: string, code: string, name: string): Promise<void> {
  await page.goto(at + path);
  await expect(page).toHaveURL(/\/pair/);
  await page.getByLabel("Code", { exact: true }).fill(code);
  await page.getByLabel("Device name").fill(name);
  await page.getByRole("button", { name: "Connect" }).click();
  await expect(page).toHaveURL(at + path);
}

const page = async (context: BrowserContext): Promise<Page> => context.newPage();

test("the code of the start lets the office in, its own code a phone for the bench, and the phone is shut out while it watches", async ({ browser }) => {
  await expect.poll(() => server.said()).toContain("and enter");
  const code = /enter (\d{4} \d{4} \d{4})/.exec(server.said())?.[1] ?? "";
  const [first, second] = [await browser.newContext(), await browser.newContext({ viewport: { width: 390, height: 800 } })];
  const [office, phone] = [await page(first), await page(second)];

  // A wrong code is told, and the right one brings the device to where it was going.
  await office.goto(`${at}/kitchen`);
  await office.getByLabel("Code", { exact: true }).fill("0000 0000 0000");
  await office.getByRole("button", { name: "Connect" }).click();
  await expect(office.getByRole("alert")).toContainText("Wrong code");
  await letIn(office, "/kitchen", code, "Office");
  const devices = office.getByRole("region", { name: "Devices" });
  await expect(devices.getByLabel("This device")).toHaveValue("Office");
  const cookies = await first.cookies();
  expect(cookies).toMatchObject([{ httpOnly: true, sameSite: "Strict" }]);

  await devices.getByRole("button", { name: "Get a code" }).click();
  const shown = devices.getByText(/^\d{4} \d{4} \d{4}$/);
  await letIn(phone, "/live", await shown.innerText(), "Phone at the oven");
  // The code is used up: the list shows who came in with it.
  await expect(devices.getByLabel("Device name", { exact: true })).toHaveValue("Phone at the oven");
  await expect(shown).toHaveCount(0);

  // The phone reads all and plans nothing.
  const tried = await phone.evaluate(async () => {
    const asked = (path: string, method: string, body?: string) => fetch(path, { method, ...(body ? { body } : {}) }).then((r) => r.status);
    return [await asked("/api/jobs/1", "GET"), await asked("/api/jobs/1", "PATCH", '{"pieces":1}'), await asked("/api/devices", "GET"), await asked("/api/backups/now", "GET")];
  });
  expect(tried).toEqual([200, 403, 403, 403]);

  // Shut out, it is taken to where it could give a code; nothing answers it.
  await devices.getByRole("button", { name: "Disconnect Phone at the oven" }).click();
  await expect(devices.getByLabel("Device name", { exact: true })).toHaveCount(0);
  await expect(phone).toHaveURL(/\/pair/, { timeout: 15_000 });
  expect(await phone.evaluate(() => fetch("/api/jobs").then((r) => r.status))).toBe(401);
  await Promise.all([first.close(), second.close()]);
});
