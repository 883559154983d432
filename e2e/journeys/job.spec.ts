import { readFileSync } from "node:fs";
import ICAL from "ical.js";
import { expect, field, figure, open, set, test, units } from "../bakery";

test("a changed thickness moves dough, cold and trays, and undo brings them back", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await expect(figure(page, "Clock")).toContainText("Start");
  const before = {
    dough: await figure(page, "Dough").innerText(),
    shape: await figure(page, "Shape").innerText(),
    oven: await figure(page, "Oven").innerText(),
    clock: await figure(page, "Clock").innerText(),
  };
  expect(before.dough).toMatch(/711\sg/);
  await page.getByRole("radio", { name: "10 mm" }).click();
  await expect(figure(page, "Shape")).toContainText("10 mm");
  await expect(figure(page, "Dough")).not.toHaveText(before.dough);
  await expect(figure(page, "Dough")).toContainText("kg");
  await expect(figure(page, "Oven")).not.toHaveText(before.oven);
  await expect(figure(page, "Clock")).not.toHaveText(before.clock);
  await page.keyboard.press("3");
  await expect(page).toHaveURL(/\/cold$/);
  await expect(page.getByRole("heading", { level: 2, name: "disc, 22 mm" })).toBeVisible();
  await page.getByRole("button", { name: /^Undo thickness from 6\smm to 10\smm/ }).click();
  await expect.poll(() => figure(page, "Dough").innerText()).toBe(before.dough);
  await expect.poll(() => figure(page, "Clock").innerText()).toBe(before.clock);
  await page.getByRole("button", { name: /^Redo/ }).click();
  await expect(figure(page, "Shape")).toContainText("10 mm");
});

test("units are typed freely and shown either way", async ({ page, bakery }) => {
  await open(page, bakery, "shape");
  const web = field(page, "Gap");
  await set(web, "1/8 in");
  await expect(web).toHaveValue("3.2 mm");
  await units(page, "US");
  await expect(web).toHaveValue("⅛ in");
  await expect(figure(page, "Dough")).toContainText("lb");
  await expect(figure(page, "Oven")).toContainText("350°F");
  await open(page, bakery, "oven");
  await set(page.getByRole("textbox", { name: "Oven set to", exact: true }), "350");
  await expect(page.getByRole("textbox", { name: "Oven set to", exact: true })).toHaveValue("350°F");
  await units(page, "Metric");
  await expect(page.getByRole("textbox", { name: "Oven set to", exact: true })).toHaveValue("177°");
});

test("bad values show their error and lose nothing", async ({ page, bakery }) => {
  await open(page, bakery, "oven");
  await expect(figure(page, "Oven")).toContainText("min at");
  const before = await figure(page, "Oven").innerText();
  const oven = page.getByRole("textbox", { name: "Oven set to", exact: true });
  await set(oven, "400");
  await expect(page.getByRole("alert")).toContainText(/Use 100 to 260\s°C\. You typed 400\s°C/);
  await expect(oven).toHaveValue("400");
  await set(oven, "warm");
  await expect(page.getByRole("alert")).toContainText("Can’t read");
  await expect(oven).toHaveValue("warm");
  expect(await figure(page, "Oven").innerText()).toBe(before);
  await oven.press("Escape");
  await expect(oven).toHaveValue("175°");
  await expect(page.getByRole("alert")).toHaveCount(0);
  await page.keyboard.press("Tab");
  await open(page, bakery, "order");
  await set(field(page, /^Cookies$/), "0");
  await expect(page.getByRole("alert")).toContainText("1 to 20000");
  await set(field(page, /^Cookies$/), "4 dozen");
  await expect(field(page, /^Cookies$/)).toHaveValue("48");
});

test("a cutter comes from an SVG file and the whole job follows it", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  await page.getByRole("tab", { name: "SVG file" }).click();
  const dialog = page.getByRole("dialog");
  const file = (name: string, body: string) => ({ name, mimeType: "image/svg+xml", buffer: Buffer.from(body) });
  const chooser = dialog.locator("input[type=file]");
  await chooser.setInputFiles(file("bad.svg", "<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>"));
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(dialog.getByRole("alert")).toContainText("script");
  const star = "M50 5 61 39 97 39 68 60 79 95 50 74 21 95 32 60 3 39 39 39Z";
  await chooser.setInputFiles(file("compass star.svg", `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 100 100"><path d="${star}"/></svg>`));
  await field(dialog, "Name").fill("Compass star");
  await set(field(dialog, /Width/), "70");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole("heading", { level: 2, name: "48 × Compass star" })).toBeVisible();
  await expect(page.getByRole("heading", { level: 2, name: "70 mm wide" })).toBeVisible();
  await expect(page.getByRole("radio", { name: /Compass star/ })).toBeChecked();
  await page.keyboard.press("4");
  await expect(page.getByRole("img", { name: /Sheets of Compass star/ })).toBeVisible();
});

test("a cutter too large for the tray says so and offers the way back", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await page.getByRole("button", { name: "Add a cutter" }).click();
  const dialog = page.getByRole("dialog");
  await field(dialog, "Name").fill("Platter");
  await set(field(dialog, "Diameter"), "390");
  await expect(page.getByRole("alert")).toContainText("fit the sheet");
  await page.locator("label", { hasText: "Anchor" }).click();
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.getByRole("heading", { level: 2, name: "Anchor" })).toBeVisible();
});

test("a formula is changed on the scale and everything is weighed anew", async ({ page, bakery }) => {
  await open(page, bakery, "dough");
  const row = page.getByRole("row", { name: /Unsalted butter/ });
  const before = await row.innerText();
  await set(field(page, "Unsalted butter in the recipe"), "300");
  await expect.poll(() => row.innerText()).not.toBe(before);
  await page.getByLabel("Add an ingredient").selectOption("vanilla");
  await set(field(page, "Vanilla extract in the recipe"), "4 g");
  await expect(page.getByRole("row", { name: /Vanilla extract/ })).toContainText("%");
  await page.getByRole("button", { name: "Remove All-purpose flour" }).click();
  // The rows below move up.
  await expect(page.getByRole("row", { name: /All-purpose flour/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Remove Cornstarch" }).click();
  await expect(page.getByRole("alert")).toContainText("Dough needs flour");
  await expect(page.getByRole("row", { name: /Cornstarch/ })).toBeVisible();
});

test("what came out is kept beside what was expected", async ({ page, bakery }) => {
  await open(page, bakery, "ledger");
  await field(page, /Widths of a few cookies/).fill("99.5 100 wide");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("Can’t read");
  await expect(field(page, /Widths of a few cookies/)).toHaveValue("99.5 100 wide");
  await field(page, /Widths of a few cookies/).fill("99.5 100 99");
  await field(page, "Thicknesses, if measured").fill("6.6");
  await field(page, "Time in the oven").fill("11");
  await page.getByRole("radio", { name: "Golden", exact: true }).click();
  await field(page, "Notes").fill("middle rack");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("heading", { level: 2, name: "3 bakes" })).toBeVisible();
  await expect(page.getByRole("paragraph").filter({ hasText: "middle rack" })).toBeVisible();
  await expect(page.getByText("Spread 3.6%", { exact: true })).toBeVisible();
  await expect(figure(page, "Ledger")).toContainText("last spread 3.6%");
});

test("a job leaves as a file and is read back as a new job", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save job file" }).click();
  const path = await (await download).path();
  const file = JSON.parse(readFileSync(path, "utf8")) as { format: string; job: { pieces: number; name: string } };
  expect(file.format).toBe("ready-slab-job");
  file.job.pieces = 36;
  file.job.name = "Regatta gulls, again";
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  const chooser = page.getByLabel("Job file");
  await chooser.setInputFiles({ name: "broken.json", mimeType: "application/json", buffer: Buffer.from("{") });
  await expect(page.getByRole("alert")).toContainText("a job file");
  await chooser.setInputFiles({ name: "job.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(file)) });
  await expect(page).toHaveURL(/\/jobs\/8\/order$/);
  await expect(page.getByRole("heading", { level: 2, name: "36 × Gull" })).toBeVisible();
  await page.keyboard.press("7");
  await expect(page.getByRole("heading", { level: 2, name: "2 bakes" })).toBeVisible();
});

test("everything is there again after a restart and after a kill", async ({ page, bakery }) => {
  await open(page, bakery, "order");
  await set(field(page, /^Cookies$/), "60");
  await expect(figure(page, "Order")).toContainText("60 cookies");
  await expect(figure(page, "Dough")).not.toContainText("710 g");
  const dough = await figure(page, "Dough").innerText();
  await bakery.restart("SIGKILL");
  await page.reload();
  await expect(figure(page, "Order")).toContainText("60 cookies");
  expect(await figure(page, "Dough").innerText()).toBe(dough);
  await set(field(page, /^Cookies$/), "72");
  await expect(figure(page, "Order")).toContainText("72 cookies");
  await bakery.restart("SIGTERM");
  await page.reload();
  await expect(figure(page, "Order")).toContainText("72 cookies");
  await page.getByRole("button", { name: /^Undo cookies from 60 to 72/ }).click();
  await expect(figure(page, "Order")).toContainText("60 cookies");
});

test("a bakery whose jobs are done says how to plan the next", async ({ page, bakery }) => {
  await page.goto(bakery.address);
  await page.getByRole("button", { name: "Delete Regatta gulls" }).click();
  await page.getByRole("button", { name: "Delete Awards-night boats" }).click();
  await page.getByRole("button", { name: "Delete Boxes: fish" }).click();
  await page.getByRole("button", { name: "Delete Harbor café tins" }).click();
  await expect(page.getByText("No job is planned")).toBeVisible();
  await page.getByRole("button", { name: /^Undo job Harbor/ }).click();
  await expect(page.getByRole("link", { name: "Harbor café tins" })).toBeVisible();
  await page.getByRole("link", { name: "New job" }).click();
  await expect(page).toHaveURL(/\/new$/);
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
});

test("the kitchen's sizes move every job", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  await expect(figure(page, "Clock")).toContainText("Start");
  const before = await figure(page, "Clock").innerText();
  await page.keyboard.press("k");
  await set(field(page, "Temperature, by a thermometer"), "7");
  await expect(field(page, "Temperature, by a thermometer")).toHaveValue("7°");
  await set(field(page, "Add a thickness"), "12 mm");
  await expect(page.getByRole("button", { name: "Remove 12 mm" })).toBeVisible();
  await set(field(page, "Add a thickness"), "90 mm");
  await expect(page.getByRole("alert")).toContainText("1 to 40 mm");
  await page.goBack();
  await expect(page.getByText(/in the fridge at 7/)).toBeVisible();
  await expect(figure(page, "Clock")).not.toHaveText(before);
  await open(page, bakery, "order");
  await page.getByRole("radio", { name: "12 mm" }).click();
  await expect(page.getByRole("heading", { level: 2, name: "12 mm thick" })).toBeVisible();
});

test("another way to chill is taken with one press", async ({ page, bakery }) => {
  await open(page, bakery, "cold/ways?place=freezer");
  await page.getByRole("radio", { name: /^Sheet, 6\smm, freezer/ }).click();
  await page.getByRole("button", { name: "Use this" }).click();
  await expect(page.getByText("This is your plan.")).toBeVisible();
  await expect(page.getByText("freezer, your plan")).toBeVisible();
  await page.getByRole("link", { name: "When it’s ready" }).click();
  await expect(page.getByRole("heading", { level: 2, name: /sheet, 6\smm/ })).toBeVisible();
  await expect(page.getByRole("radio", { name: "Rolled first" })).toBeChecked();
  await open(page, bakery, "clock");
  await expect(page.getByText("between parchment")).toBeVisible();
  await expect(page.getByText(/^Cut tray 1/)).toBeVisible();
});

test("a measured dough temperature is typed in, and taken back", async ({ page, bakery }) => {
  await open(page, bakery, "dough/mix");
  await expect(figure(page, "Cold")).toContainText("Ready");
  const cold = await figure(page, "Cold").innerText();
  await set(field(page, "Measured dough temperature"), "75F");
  await expect(field(page, "Measured dough temperature")).toHaveValue("23.9°");
  await expect(figure(page, "Clock")).toContainText("Start");
  await page.getByRole("button", { name: "Use the forecast" }).click();
  await expect(field(page, "Measured dough temperature")).toHaveValue("");
  await expect.poll(() => figure(page, "Cold").innerText()).toBe(cold);
});

test("a deep link opens one roll, and a link to nothing says so", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/jobs/1/shape?roll=1`);
  await expect(page.getByRole("heading", { level: 2, name: "Re-roll" })).toBeVisible();
  await page.getByRole("radio", { name: "All" }).click();
  await expect(page).toHaveURL(/\/shape$/);
  await page.goto(`${bakery.address}/jobs/99/cold`);
  await expect(page.getByRole("heading", { name: "Nothing here" })).toBeVisible();
  await page.goto(`${bakery.address}/nowhere`);
  await expect(page.getByRole("heading", { name: "Nothing here" })).toBeVisible();
});

test("a dropped SVG becomes a cutter", async ({ page, bakery }) => {
  await page.goto(bakery.address);
  await page.getByRole("button", { name: "Add a cutter" }).click();
  await page.getByRole("tab", { name: "SVG file" }).click();
  const dialog = page.getByRole("dialog");
  const dropped = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    const svg = "<svg xmlns='http://www.w3.org/2000/svg' width='60mm' height='60mm' viewBox='0 0 60 60'><circle cx='30' cy='30' r='25'/></svg>";
    data.items.add(new File([svg], "porthole.svg", { type: "image/svg+xml" }));
    return data;
  });
  await dialog.getByText("Drop an SVG file here").dispatchEvent("drop", { dataTransfer: dropped });
  await expect(dialog.getByText("porthole.svg")).toBeVisible();
  await expect(field(dialog, "Name")).toHaveValue("porthole");
  await dialog.getByRole("button", { name: "Add cutter" }).click();
  await expect(page.getByRole("button", { name: "Remove porthole" })).toBeVisible();
  await page.getByRole("button", { name: "Remove Gull" }).click();
  await expect(page.getByRole("alert")).toContainText("used by 1 job");
  await page.getByRole("button", { name: "Remove porthole" }).click();
  await expect(page.getByRole("button", { name: "Remove porthole" })).toHaveCount(0);
});

test("a wanted time tells how thick to press, and pressing it so makes it", async ({ page, bakery }) => {
  await open(page, bakery, "cold");
  const ways = page.getByRole("list", { name: "Ways to be ready in time" });
  await set(field(page, "Goes in at"), "12:20");
  await set(field(page, "Ready to roll by"), "1240");
  await expect(field(page, "Ready to roll by")).toHaveValue("12:40");
  await expect(page.getByText("20 min to chill")).toBeVisible();
  const disc = ways.getByRole("listitem").filter({ hasText: /^Disc.*fridge/ });
  await expect(disc).toContainText(/In time at 1\d(\.5)?\smm/);
  await disc.getByRole("button", { name: /^Press to/ }).click();
  await expect(disc).toContainText("In by 12:");
  await expect(figure(page, "Cold")).toContainText(/disc, 1\d/);
  await set(field(page, "Ready to roll by"), "half past");
  await expect(page.getByRole("alert")).toContainText("Type a time, like 2 pm");
});

test("the run sheet goes into a calendar, each step with its alarm", async ({ page, bakery }) => {
  await open(page, bakery, "clock");
  const steps = page.getByRole("region", { name: "Schedule" }).getByRole("listitem");
  await expect(steps.first()).toBeVisible();
  const count = await steps.count();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save or print" }).click();
  await page.getByRole("link", { name: "Save to calendar" }).click();
  const file = await saved;
  expect(file.suggestedFilename()).toBe("Regatta gulls.ics");
  const read = new ICAL.Component(ICAL.parse(readFileSync(await file.path(), "utf8")) as unknown[]);
  const events = read.getAllSubcomponents("vevent").map((event) => new ICAL.Event(event));
  expect(events.length).toBe(count);
  expect(new Set(events.map((event) => event.uid)).size).toBe(count);
  // As the sheet has them: the first and its time, by the clocks of the kitchen.
  const first = events[0]!;
  expect(first.summary).toBe("Weigh and mix the dough · Regatta gulls");
  await expect(steps.first()).toContainText(first.startDate.toJSDate().toISOString().slice(11, 16));
  await expect(steps.first()).toContainText(`${first.duration.toSeconds() / 60} min`);
  // Whoever has to be there is called; what lies on a rack is not.
  const alarms = (event: ICAL.Event) => event.component.getAllSubcomponents("valarm");
  const of = (words: string) => events.filter((event) => event.summary.includes(words));
  expect(of("in the oven").map((event) => alarms(event).length)).toEqual([2, 2, 2]);
  expect(of("to the rack").flatMap(alarms)).toEqual([]);
  expect(alarms(first).map((alarm) => String(alarm.getFirstPropertyValue("trigger")))).toEqual(["-PT15M", "P0D"].map((t) => expect.stringMatching(t === "P0D" ? /^P(0D|T0S)$/ : /^-PT(15M|900S)$/)));
});
