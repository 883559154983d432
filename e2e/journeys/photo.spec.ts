/** Baked pieces are measured from a photo, recorded with it, and the next plan is another. */
import { expect, settled, test } from "../bakery";

test("a photo is measured, put right, recorded, and what it teaches changes the next plan", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/jobs/1/ledger`);
  const oven = page.getByRole("navigation", { name: "Stations of this job" }).getByRole("link", { name: /^Oven/ });
  const before = (await oven.textContent()) ?? "";
  await page.getByRole("link", { name: "Measure with a photo" }).last().click();
  await expect(page).toHaveURL(/\/ledger\/photo$/);
  await page.getByRole("button", { name: "Try a sample photo" }).click();
  await expect(page.getByRole("heading", { name: /^4 cookies, spread about/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("checkbox", { checked: true })).toHaveCount(4);
  // One is left out, and taken in again with the keyboard.
  const first = page.getByRole("checkbox", { name: /^1: cookie/ });
  await first.click();
  await expect(page.getByRole("button", { name: "Use these 3 cookies" })).toBeVisible();
  await first.focus();
  await page.keyboard.press("Space");
  // A place without a piece is told as such.
  await page.getByRole("button", { name: /^Add a missed cookie/ }).click({ position: { x: 8, y: 8 } });
  await expect(page.getByText("Nothing but paper where you pointed")).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Use these 4 cookies" }).click();
  await expect(page.getByText("4 widths from the photo")).toBeVisible();
  await page.getByLabel("Time in the oven").fill("13 min");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  const photo = page.getByRole("img", { name: /^Cookies of .* on paper$/ });
  await expect(photo).toBeVisible({ timeout: 30_000 });
  // What is kept says nothing of camera or place.
  const record = ((await (await page.request.get(`${bakery.address}/api/jobs/1/records`)).json()) as { id: number; has_photo: boolean; widths_mm: number[] }[])[0]!;
  expect(record.has_photo).toBe(true);
  expect(record.widths_mm).toHaveLength(4);
  const file = await (await page.request.get(`${bakery.address}/api/records/${record.id}/photo.jpg`)).body();
  expect(file.subarray(0, 2).toString("hex")).toBe("ffd8");
  expect(file.includes("Exif")).toBe(false);
  await expect(page.getByText(/^Moved (your forecast|nothing)/)).toBeVisible();
  await expect(oven).not.toHaveText(before);
  await settled(page);
  await page.getByRole("button", { name: "Remove photo" }).click();
  await expect(photo).toHaveCount(0);
});

test("a picture without paper asks for its corners, and what is no picture says what to do", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/jobs/1/ledger/photo`);
  const choose = page.getByLabel("Choose a photo of the cookies");
  await choose.setInputFiles({ name: "letter.jpg", mimeType: "image/jpeg", buffer: Buffer.from("Dear sir") });
  await expect(page.getByText(/Can.t read this file/i)).toBeVisible();
  await choose.setInputFiles({ name: "phone.heic", mimeType: "image/heic", buffer: Buffer.from("\0\0\0\x18ftypheic\0\0\0\0mif1heic", "latin1") });
  await expect(page.getByText(/HEIC or AVIF.*share the photo as JPEG/i)).toBeVisible();
  const wall = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    canvas.width = 900;
    canvas.height = 700;
    const draw = canvas.getContext("2d")!;
    draw.fillStyle = "#6b4a2f";
    draw.fillRect(0, 0, 900, 700);
    return canvas.toDataURL("image/png").split(",")[1]!;
  });
  await choose.setInputFiles({ name: "table.png", mimeType: "image/png", buffer: Buffer.from(wall, "base64") });
  await expect(page.getByText(/Can’t find the paper/)).toBeVisible();
  await expect(page.getByRole("slider", { name: "Corner 1" })).toBeVisible();
  // A real one, shown by hand.
  const file = await (await page.request.get(`${bakery.address}/api/jobs/1/photo/made-up?paper=a4&seed=7`)).body();
  await choose.setInputFiles({ name: "bake.jpg", mimeType: "image/jpeg", buffer: file });
  await expect(page.getByRole("heading", { name: /^4 cookies/ })).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Set the corners by hand" }).click();
  const corner = page.getByRole("slider", { name: "Corner 1" });
  await corner.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowLeft");
  await page.getByRole("button", { name: "Measure", exact: true }).click();
  await expect(page.getByRole("heading", { name: /^4 cookies/ })).toBeVisible({ timeout: 30_000 });
  // Letter where A4 lies is noticed.
  await page.getByRole("radio", { name: "Letter" }).click();
  await expect(page.getByText(/fit the other paper size/)).toBeVisible({ timeout: 30_000 });
});

test("trays are charted once there are three, and what chance does not explain is named", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/jobs/1/ledger`);
  await page.getByRole("link", { name: "How even they are" }).click();
  await expect(page.getByRole("heading", { name: "Not enough trays yet" })).toBeVisible();
  for (let tray = 0; tray < 8; tray += 1) {
    const widths_mm = Array.from({ length: 6 }, (_, i) => 96.6 + 0.1 * i + (tray < 7 ? 0 : 1.5));
    await page.request.post(`${bakery.address}/api/jobs/1/records`, { headers: { origin: bakery.address }, data: { widths_mm, edge_colour: "golden" } });
  }
  await page.reload();
  await expect(page.getByRole("img", { name: /^Widths tray by tray/ })).toBeVisible();
  await expect(page.getByText("wider than usual")).toBeVisible();
  const before = (await page.getByRole("heading", { name: /beyond ±1 mm/ }).textContent()) ?? "";
  const off = page.getByRole("textbox", { name: "Tolerance, ±" });
  await off.fill("0.5 mm");
  await off.press("Enter");
  await expect(page.getByRole("heading", { name: /beyond ±0.5 mm/ })).not.toHaveText(before);
  await page.getByRole("radio", { name: "Thicknesses" }).click();
  await expect(page.getByText(/Measure thickness with a caliper at each bake/)).toBeVisible();
});
