/** The shape station beyond the sheet: logs and bars, patterned bars. */
import { expect, field, open, set, test } from "../bakery";

test("any two of a log's five measures follow from the other three", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  await page.getByRole("navigation", { name: "Shape views" }).getByRole("button", { name: "More" }).click();
  await page.getByRole("link", { name: "Log", exact: true }).click();
  const slices = page.getByRole("complementary").locator(".answer");
  await expect(slices).toHaveText("44");
  await set(field(page, /^Dough weight/), "450 g");
  await expect(page.getByRole("img", { name: /^A log .* cut into 3\d slices of 6\smm$/ })).toBeVisible();
  // Slices become given: what was typed longest ago gives way.
  await set(field(page, /^Number of slices(: follows)?$/), "12");
  await expect(slices).toHaveText("12");
  await expect(field(page, /^Width: follows|^Slice thickness: follows|^Dough weight: follows/).first()).toBeVisible();
  await set(field(page, /^Width/), "3 mm");
  await expect(page.getByRole("alert")).toContainText("8 to 250 mm");
  await page.keyboard.press("Escape");
  await page.getByRole("radio", { name: "Oblong" }).click();
  await expect(field(page, "Height")).toBeVisible();
  // The view has its own address, and the strip is saved at its true size.
  await page.goto(`${bakery.address}/jobs/1/shape/log?form=round&mass_g=450&width_mm=48&slice_mm=6`);
  await expect(page.getByText(/turn it/i)).toBeVisible();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save or print" }).click();
  await page.getByRole("button", { name: "Save ruler strip" }).click();
  const file = await (await saved).createReadStream();
  let text = "";
  for await (const chunk of file) text += String(chunk);
  expect(text).toMatch(/width="2\d\dmm"/);
});

test("a pinwheel is formed: its sheets, its masses, its steps", async ({ page, bakery }) => {
  await open(page, bakery, "shape/pattern");
  await expect(page.getByRole("img", { name: /^Section of the checkerboard, 36\smm by 36\smm/ })).toBeVisible();
  await page.getByRole("radio", { name: "Pinwheel" }).click();
  await expect(page.getByText("1 sheet, 23.9 cm × 4 mm").first()).toBeVisible();
  await expect(page.getByText(/both 23\.9 × 20\scm\. Use sheets of parchment/)).toBeVisible();
  await set(page.getByRole("textbox", { name: "Diameter", exact: true }), "60 mm");
  await expect(page.getByText(/1 sheet, 34\.7\scm/).first()).toBeVisible();
  await set(field(page, "First turn"), "80 mm");
  await expect(page.getByRole("alert")).toContainText("0 to 30 mm");
});

test("a cutter is dropped in, its sheet nested, a piece dragged, the rest improved, kept and printed", async ({ page, bakery }) => {
  const star = [...Array(10).keys()].map((i) => {
    const [r, a] = [i % 2 ? 13 : 30, (i * Math.PI) / 5];
    return `${(40 + r * Math.sin(a)).toFixed(2)} ${(40 - r * Math.cos(a)).toFixed(2)}`;
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><path d="M${star.join("L")}Z"/></svg>`;
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  await page.getByRole("tab", { name: "SVG file" }).click();
  await page.setInputFiles('input[type="file"][accept*="svg"]', { name: "harbour star.svg", mimeType: "image/svg+xml", buffer: Buffer.from(svg) });
  await page.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(page.getByText("harbour star").first()).toBeVisible();
  await page.goto(`${bakery.address}/jobs/1/shape/nest`);
  const answer = page.getByRole("complementary").locator(".answer");
  const rows = Number(await answer.textContent());
  await page.getByRole("button", { name: "Find a tighter layout" }).click();
  await expect(page.getByRole("progressbar", { name: "Search" })).toBeVisible();
  await expect(page.getByText(/Time.s up|as tight as it gets/)).toBeVisible();
  const nested = Number(await answer.textContent());
  expect(nested).toBeGreaterThanOrEqual(rows);
  // A piece dragged onto another is told at once, and cannot be kept so.
  const box = (n: number) => page.locator(`[data-piece="${n}"] path`).first().boundingBox();
  const middle = async (n: number) => {
    const b = await box(n);
    if (!b) throw new Error(`piece ${n} is not drawn`);
    return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
  };
  const [from, onto] = [await middle(1), await middle(2)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + onto.x) / 2, (from.y + onto.y) / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole("alert")).toContainText("too close to another or");
  await expect(page.getByRole("button", { name: "Save layout" })).toBeDisabled();
  // The held piece stays, the rest goes around it.
  await page.getByRole("button", { name: "Improve the rest" }).click();
  await expect(page.getByText(/Time.s up|as tight as it gets/)).toBeVisible();
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.locator("#nest-desc")).toContainText("1 locked");
  await page.getByRole("button", { name: "Save layout" }).click();
  await expect(page.getByText(/^Saved/)).toBeVisible();
  // It comes back from the file, and its template prints.
  await page.reload();
  await expect(page.getByRole("button", { name: "Back to rows" })).toBeVisible();
  const print = await page.request.get(`${bakery.address}/api/jobs/1/template.pdf`);
  expect((await print.body()).subarray(0, 5).toString()).toBe("%PDF-");
  await page.getByRole("button", { name: "Back to rows" }).click();
  await expect(page.getByText("Back to rows.")).toBeVisible();
});

test("a search is stopped, and the server answers meanwhile", async ({ page, bakery }) => {
  await open(page, bakery, "shape/nest", 3);
  await page.getByRole("radio", { name: "30 s" }).click();
  await page.getByRole("button", { name: "Find a tighter layout" }).click();
  await expect(page.getByRole("progressbar", { name: "Search" })).toBeVisible();
  const plan = await page.request.get(`${bakery.address}/api/jobs/1/plan`);
  expect(plan.ok()).toBe(true);
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped. This is the best so far.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Find a tighter layout" })).toBeVisible();
  // By the keyboard alone: a piece is chosen, nudged and taken back.
  await page.getByRole("button", { name: "Next cookie" }).press("Enter");
  await expect(page.getByText(/^Cookie 1 of/)).toBeVisible();
  await page.getByRole("button", { name: "Right 1 mm" }).press("Enter");
  await expect(page.locator("#nest-desc")).toContainText("1 locked");
  await page.getByRole("button", { name: "Undo last move" }).press("Enter");
  await expect(page.locator("#nest-desc")).toContainText("0 locked");
});

test("the dough is portioned: by mass, by figure, across the tray", async ({ page, bakery }) => {
  await open(page, bakery, "shape/portion");
  const pieces = page.getByRole("complementary").locator(".answer");
  await expect(pieces).toHaveText("23");
  await set(field(page, "Weight each"), "20 g");
  await expect(pieces).toHaveText("35");
  await page.getByRole("radio", { name: "Figure" }).click();
  // Each part in the units shown, and as many as the figure has.
  await set(field(page, "Part 1"), "x");
  await expect(page.getByRole("alert")).toContainText("Can’t read");
  await set(field(page, "Part 1"), "20 g");
  for (const [at, mass] of ["8 g", "2 g"].entries()) await set(field(page, `Part ${at + 2}`), mass);
  const none = page.getByRole("button", { name: "No part 4" });
  await none.click();
  await expect(none).toHaveCount(0);
  await page.getByRole("button", { name: "Add a part" }).click();
  await expect(field(page, "Part 4")).toHaveValue("2 g");
  await expect(pieces).toHaveText("22");
  await page.getByRole("radio", { name: "Bars" }).click();
  await expect(page.getByText(/Full pan:/)).toBeVisible();
});

test("a cutter is read from a photo of it on paper, and its pair put beside it", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  // The photo: a sheet of A4, a little turned, with a dark flag on it, 60 mm long and 40 high.
  const png = await page.evaluate(async () => {
    const canvas = document.createElement("canvas");
    canvas.width = 1000;
    canvas.height = 1300;
    const on = canvas.getContext("2d");
    if (!on) throw new Error("no canvas");
    on.fillStyle = "#8a6a48";
    on.fillRect(0, 0, 1000, 1300);
    on.translate(500, 650);
    on.rotate(0.06);
    on.scale(3.6, 3.6);
    on.fillStyle = "#f2f0ea";
    on.fillRect(-105, -148.5, 210, 297);
    on.fillStyle = "#333";
    on.beginPath();
    for (const [x, y] of [[-30, -20], [30, -20], [18, 0], [30, 20], [-30, 20]] as const) on.lineTo(x, y);
    on.fill();
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
    return [...new Uint8Array(await (blob as Blob).arrayBuffer())];
  });
  const corner = (x: number, y: number) => {
    const [c, s] = [Math.cos(0.06), Math.sin(0.06)];
    return [(500 + 3.6 * (x * c - y * s)) / 1000, (650 + 3.6 * (x * s + y * c)) / 1300] as const;
  };
  await page.getByRole("button", { name: "Add a cutter" }).click();
  await page.getByRole("tab", { name: "Photo" }).click();
  await page.setInputFiles('input[accept*="image/jpeg"]', { name: "harbour flag.png", mimeType: "image/png", buffer: Buffer.from(png) });
  const stage = page.getByRole("group", { name: /four handles/ });
  await expect(stage).toBeVisible();
  // Handles at places where no closed outline lies tell so; laid on the paper's corners they find the flag.
  const at = [corner(-105, -148.5), corner(105, -148.5), corner(105, 148.5), corner(-105, 148.5)];
  for (const [i, [x, y]] of at.entries()) {
    const handle = page.getByRole("slider", { name: `Corner ${i + 1}` });
    await handle.scrollIntoViewIfNeeded();
    const [h, box] = [await handle.boundingBox(), await stage.boundingBox()];
    if (!h || !box) throw new Error("no handle");
    await page.mouse.move(h.x + h.width / 2, h.y + h.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + x * box.width, box.y + y * box.height, { steps: 3 });
    await page.mouse.up();
  }
  await page.getByRole("button", { name: "Find the outline" }).click();
  const said = page.getByRole("dialog").locator(".answer");
  await expect(said).toHaveText(/^(59|60|61)\smm × (39|40|41)\smm$/);
  await page.getByRole("checkbox", { name: /mirror image/ }).check();
  await page.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const shelf = await (await page.request.get(`${bakery.address}/api/cutters`)).json() as { name: string; origin: string }[];
  expect(shelf.filter((c) => c.origin === "outline").map((c) => c.name)).toEqual(["harbour flag", "harbour flag, mirrored"]);
  await expect(page.getByText("harbour flag").first()).toBeVisible();
});

test("a sheet's thickness is read at the bench and its thin and thick spots are shown", async ({ page, bakery }) => {
  await open(page, bakery, "shape/even");
  await expect(page.getByText("No readings yet.", { exact: false })).toBeVisible();
  await set(field(page, "Thickness, 1 along, 1 down"), "6 mm");
  await set(field(page, "Thickness, 4 along, 3 down"), "4.4");
  await set(field(page, "Thickness, 2 along, 2 down"), "7.5 mm");
  await expect(page.getByRole("complementary").locator(".answer")).toHaveText("4.4–7.5");
  await expect(page.getByRole("img", { name: /4\.4\smm thin/ })).toBeVisible();
  await expect(page.getByText("better apart")).toBeVisible();
  await set(field(page, "Thickness, 2 along, 2 down"), "75 mm");
  await expect(page.getByRole("alert")).toContainText("0.5 to 40 mm");
  await page.keyboard.press("Escape");
  await page.reload();
  await expect(field(page, "Thickness, 4 along, 3 down")).toHaveValue("4.4 mm");
});

test("a tray is laid by hand, and the trays are filled like it", async ({ page, bakery }) => {
  await open(page, bakery, "shape/trays");
  await expect(page.getByText(/Tray 1: \d+ of the first roll/)).toBeVisible();
  const full = Number(await page.getByRole("complementary").locator(".answer").textContent());
  await page.getByRole("button", { name: "Next cookie" }).click();
  await page.getByRole("button", { name: "Remove" }).click();
  await page.getByRole("button", { name: "Save layout" }).click();
  await expect(page.getByText("Saved. Every tray follows this layout.")).toBeVisible();
  await page.reload();
  await expect(page.getByRole("complementary").locator(".answer")).toHaveText(String(full - 1));
  await page.getByRole("radio", { name: "As cut" }).click();
  await page.getByRole("button", { name: "Back to rows" }).click();
  await expect(page.getByRole("complementary").locator(".answer")).toHaveText(String(full));
});

test("a built-in shape is chosen by its picture, and a letter by its sign", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("radio")).toHaveCount(16);
  await dialog.getByRole("radio", { name: "Heart" }).click();
  // It is called what it is, in the size it is sold as, until somebody says otherwise.
  await expect(field(dialog, "Name")).toHaveValue("Heart");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("heading", { level: 2, name: "48 × Heart" })).toBeVisible();

  await page.getByRole("button", { name: "Add a cutter" }).click();
  await dialog.getByRole("radio", { name: "Letter" }).click();
  await field(dialog, "Letter or number").fill("?");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Use A to Z");
  await field(dialog, "Letter or number").fill("r");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("heading", { level: 2, name: "48 × Letter R" })).toBeVisible();
});
