import type { APIRequestContext, Page } from "@playwright/test";
import { expect, settled, test } from "../bakery";

const POST = (address: string) => ({ "content-type": "application/json", origin: address });

interface Run {
  id: number;
  now_min: number;
  finished: boolean;
  hands: { task: number; now: boolean; end_min: number; step: string; does: string }[];
  timers: { tasks: number[]; begins: number[]; state: string; step: string; to_begin: boolean }[];
  lots: { name: string; late_min: number; done: boolean }[];
  bars: { task: number; step: string; tray?: number | null; lot: number; state: string; start_min: number; end_min: number }[];
  baked: { tray: number; lot: string }[];
}

/** The gulls alone, planned so that their day was to begin some minutes ago; their run. */
async function begun(request: APIRequestContext, address: string, ago_min: number): Promise<Run> {
  const headers = POST(address);
  for (const id of [2, 3, 4]) await request.delete(`${address}/api/jobs/${id}`, { headers });
  const plan = (await (await request.get(`${address}/api/jobs/1/plan`)).json()) as { clock: { total_min: number } };
  await request.patch(`${address}/api/kitchen`, { headers, data: { zone: "UTC" } });
  const ready = new Date(Date.now() + (plan.clock.total_min - ago_min) * 60_000).toISOString().slice(0, 16);
  await request.patch(`${address}/api/jobs/1`, { headers, data: { ready_by: ready } });
  return (await (await request.post(`${address}/api/runs`, { headers, data: { date: ready.slice(0, 10) } })).json()) as Run;
}

const timer = (page: Page, name: RegExp) => page.getByRole("article", { name });
const hands = (page: Page) => page.getByRole("region", { name: "What to do now" });

test("a day of three jobs lies on one board, its flag is moved, and each Clock shows the same", async ({ page, bakery }) => {
  await page.goto(`${bakery.address}/`);
  await page.getByRole("link", { name: "Days", exact: true }).click();
  await expect(page).toHaveURL(/\/days\/\d{4}-\d\d-\d\d$/);
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  const flag = page.getByRole("slider", { name: "Regatta gulls, ready-by time" });
  await expect(flag).toHaveAttribute("aria-valuetext", "14:00");
  await flag.focus();
  // Two presses are one move, and a drag that begins before the day is laid out goes on from there.
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowRight");
  await expect(flag).toHaveAttribute("aria-valuetext", "14:05");
  const box = (await flag.boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 8, { steps: 4 });
  // While it is held the day lies as it would be, and nothing is kept of it.
  const about = page.getByRole("complementary", { name: "About this day" });
  const held = (await flag.getAttribute("aria-valuetext")) ?? "";
  await expect(about.getByRole("listitem").filter({ hasText: "Regatta gulls" }).last()).toContainText(`ready by ${held}`);
  const job = (await (await page.request.get(`${bakery.address}/api/jobs/1`)).json()) as { ready_by: string };
  expect(job.ready_by).toMatch(/T14:05$/);
  await page.mouse.up();
  await expect(flag).not.toHaveAttribute("aria-valuetext", "14:05");
  await expect(flag).toHaveAttribute("aria-valuetext", /^1[4-6]:[0-5][05]$/);
  await settled(page);
  const begins = /start (\d+:\d\d)/.exec((await about.getByRole("listitem").filter({ hasText: "Regatta gulls" }).last().textContent()) ?? "")?.[1] ?? "";
  await about.getByRole("link", { name: "Regatta gulls" }).click();
  await expect(page.getByRole("navigation", { name: "Stations of this job" }).getByRole("link", { name: /^Clock/ })).toContainText(`Start ${begins}`);
  await expect(page.getByText(/Planned with/)).toBeAttached();
  // The day in print is one list with boxes.
  await page.goBack();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByText("□").first()).toBeVisible();
});

test("a day is worked: done, too soft, taken back, and the same on another device", async ({ page, browser, bakery, request }) => {
  const run = await begun(request, bakery.address, 5);
  await page.goto(`${bakery.address}/bench/${run.id}`);
  await expect(hands(page).getByRole("heading", { level: 1 })).toHaveText("Weigh and mix the dough");
  await page.getByRole("button", { name: "Mixed", exact: true }).click();
  await expect(hands(page).getByRole("heading", { level: 1 })).toContainText("Press into");
  await page.getByRole("button", { name: /^Shaped, in the fridge$/ }).click();
  await expect(timer(page, /^Fridge, the dough/)).toContainText("(forecast)");
  // Another device shows the same, without being asked.
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${bakery.address}/bench/${run.id}`);
  await expect(timer(other, /^Fridge, the dough/)).toBeVisible();
  await other.getByText("Notes so far").click();
  await other.getByRole("button", { name: /^Undo: The dough: shaped/ }).click();
  await expect(hands(page).getByRole("heading", { level: 1 })).toContainText("Press into");
  await other.close();
  // Nothing can be too soft that is not on the bench yet.
  await page.getByRole("button", { name: /^Shaped, in the fridge$/ }).click();
  await expect(hands(page)).toContainText("Next, at");
  await expect(hands(page).getByRole("button", { name: "Too soft" })).toHaveCount(0);
});

test("dough that got too soft waits, and the day behind it moves", async ({ page, bakery, request }) => {
  const run = await begun(request, bakery.address, 90);
  const find = (step: string) => run.bars.find((b) => b.step === step)!.task;
  const events = ["mix", "form"].map((step, i) => ({ press: step, at_min: 13 + 2 * i, what: { kind: "done", task: find(step) } }));
  await request.post(`${bakery.address}/api/runs/${run.id}/events`, { headers: POST(bakery.address), data: events });
  await page.goto(`${bakery.address}/bench/${run.id}`);
  await expect(hands(page)).toContainText("Now");
  await hands(page).getByRole("button", { name: "Too soft" }).click();
  await expect(hands(page)).toContainText("Next, at");
  await page.getByText("Notes so far").click();
  await expect(page.getByRole("listitem").filter({ hasText: /too soft, back in the cold for 15\smin/ })).toBeVisible();
  await expect(page.getByRole("status").filter({ hasText: /too soft, back in the cold for 15\smin\. .*ready .* later/ })).toBeVisible();
  await expect(page.getByRole("status").filter({ hasText: /late$/ })).toBeVisible();
});

test("what is pressed while the server is killed is taken at once and sent when it is back", async ({ page, bakery, request }) => {
  const run = await begun(request, bakery.address, 5);
  await page.goto(`${bakery.address}/bench/${run.id}`);
  await page.getByRole("button", { name: "Mixed", exact: true }).click();
  await expect(hands(page).getByRole("heading", { level: 1 })).toContainText("Press into");
  // It has come to the server before that is killed.
  await expect.poll(async () => ((await (await request.get(`${bakery.address}/api/runs/${run.id}`)).json()) as Run).bars.some((b) => b.step === "mix" && b.state === "done")).toBe(true);
  await bakery.restart("SIGKILL", async () => {
    await page.getByRole("button", { name: /^Shaped, in the fridge$/ }).click();
    await expect(hands(page).getByRole("heading", { level: 1 })).toContainText("Roll and cut tray 1");
    await expect(page.getByText(/(1 tap|2 taps) will be sent once/)).toBeVisible();
  });
  await expect(page.getByText(/will be sent when it is back/)).toHaveCount(0);
  await expect(timer(page, /^Fridge, the dough/)).toBeVisible();
  const now = (await (await request.get(`${bakery.address}/api/runs/${run.id}`)).json()) as Run;
  expect(now.bars.filter((b) => ["mix", "form"].includes(b.step) && b.state === "done")).toHaveLength(2);
});

test("nothing that is pressed is lost while the server is busy, full, does not know the device, or is killed", async ({ page, bakery, request }) => {
  const run = await begun(request, bakery.address, 5);
  // What the server cannot take at the moment, as it says so itself (docs/running.md).
  let answers = 503;
  const refused: number[] = [];
  await page.route("**/api/runs/*/events", async (route) => {
    if (answers === 200) return route.continue();
    refused.push(answers);
    const problem = { title: "no", status: answers, detail: `it answers ${answers}`, errors: [] };
    return route.fulfill({ status: answers, contentType: "application/problem+json", body: JSON.stringify(problem) });
  });
  await page.goto(`${bakery.address}/bench/${run.id}`);
  await page.getByRole("button", { name: "Mixed", exact: true }).click();
  await expect(page.getByText("1 tap")).toBeVisible();
  answers = 507;
  await page.getByRole("button", { name: /^Shaped, in the fridge$/ }).click();
  await expect(page.getByText("2 taps")).toBeVisible();
  // The page is opened anew meanwhile: they are there, and stand as done.
  await page.reload();
  await expect(hands(page).getByRole("heading", { level: 1 })).toContainText("Roll and cut tray 1");
  answers = 401;
  await page.getByText("Something else happened").click();
  await page.getByRole("button", { name: "Oven was off for" }).click();
  await expect(page.getByRole("alert")).toContainText("Connect this device again to send 3 taps.");
  await expect(page.getByRole("link", { name: "Enter a code" })).toHaveAttribute("href", `/pair?to=%2Fbench%2F${run.id}`);
  await bakery.restart("SIGKILL", async () => {
    answers = 200;
    await hands(page).getByRole("button", { name: "More time" }).click();
    await expect(page.getByText("4 taps")).toBeVisible();
  });
  const events = async () => ((await (await request.get(`${bakery.address}/api/runs/${run.id}`)).json()) as { events: { at_min: number; says: { text: string } }[] }).events;
  await expect.poll(async () => (await events()).length).toBe(4);
  await expect(page.getByText(/will be sent/)).toHaveCount(0);
  const kept = (await events()).toReversed();
  expect(kept.map((e) => /mixed|shaped|oven off|longer/.exec(e.says.text)?.[0])).toEqual(["mixed", "shaped", "oven off", "longer"]);
  // Each at the time at which it was pressed, not at which it was taken.
  expect(kept.map((e) => e.at_min)).toEqual(kept.map((e) => e.at_min).toSorted((a, b) => a - b));
  expect(kept[3]!.at_min - kept[0]!.at_min).toBeGreaterThan(1 / 60);
  expect(refused).toEqual(expect.arrayContaining([503, 507, 401]));
});

test("a tray out of the oven opens its record with what is known of it", async ({ page, bakery, request }) => {
  const run = await begun(request, bakery.address, 90);
  const headers = POST(bakery.address);
  const find = (step: string) => run.bars.find((b) => b.step === step && b.tray === 1)!.task;
  const events = [
    { press: "a", at_min: 48, what: { kind: "done", task: find("cut") } },
    { press: "b", at_min: 70, what: { kind: "started", task: find("bake") } },
  ];
  await request.post(`${bakery.address}/api/runs/${run.id}/events`, { headers, data: events });
  await page.goto(`${bakery.address}/bench/${run.id}`);
  // It has been in for twenty minutes: it says so, loudly.
  const oven = timer(page, /^Oven, tray 1/);
  await expect(oven).toContainText("Take it out now");
  await expect(oven).toContainText("over");
  await oven.getByRole("button", { name: "Silence" }).click();
  await oven.getByRole("button", { name: "Out of the oven", exact: true }).click();
  await page.getByText("Trays out: 1").click();
  await page.getByRole("link", { name: "Record this bake" }).click();
  await expect(page.getByRole("textbox", { name: "Time in the oven" })).toHaveValue(/^2\d(\.\d)? min$/);
  await expect(page.getByText("Tray 1 of the day at the bench")).toBeVisible();
  // It was in the freezer for 22 minutes: what was not as planned is open, and says how cold it went in.
  await expect(page.getByLabel("Cookies went in at")).toHaveValue(/^[−-]\d/);
  // Kept, it belongs to that tray of that day.
  await page.getByRole("textbox", { name: /^Widths of a few cookies/ }).fill("96.4 96.9");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByRole("link", { name: "tray 1" }).click();
  await expect(page.getByRole("main", { name: /^Bench: / })).toBeVisible();
});

test("a rehearsal is played through with a delay and a dropped tray, and ends as it was planned anew", async ({ page, bakery, request }) => {
  test.setTimeout(240_000);
  const headers = POST(bakery.address);
  const { address } = bakery;
  for (const id of [2, 3, 4]) await request.delete(`${address}/api/jobs/${id}`, { headers });
  // Two trays, chilled in the freezer: a short day.
  await request.patch(`${address}/api/jobs/1`, { headers, data: { pieces: 30, chill_place: "freezer" } });
  const [day] = (await (await request.get(`${address}/api/days`)).json()) as { date: string }[];
  await page.goto(`${address}/days/${day!.date}`);
  await page.getByRole("button", { name: /^Rehearse it/ }).click();
  await expect(page).toHaveURL(/\/bench\/\d+$/);
  await expect(page.getByText(/Rehearsal, 60/)).toBeVisible();
  const id = Number(page.url().split("/").at(-1));
  let n = 0;
  const note = async (events: { kind: string; task: number; min?: number }[]) =>
    (await (await request.post(`${address}/api/runs/${id}/events`, { headers, data: events.map((what) => ({ press: `p${n++}`, what })) })).json()) as Run;
  let run = (await (await request.get(`${address}/api/runs/${id}`)).json()) as Run;
  let delayed = false;
  let dropped = false;
  let foretold = 0;
  await expect.poll(async () => {
    run = (await (await request.get(`${address}/api/runs/${id}`)).json()) as Run;
    const events: { kind: string; task: number; min?: number }[] = [];
    const hand = run.hands.find((h) => h.now && h.end_min <= run.now_min + 0.5);
    if (hand && hand.step === "cut" && !delayed) {
      delayed = true;
      events.push({ kind: "more_time", task: hand.task, min: 10 });
    } else if (hand) events.push({ kind: "done", task: hand.task });
    const tray = run.timers.find((t) => t.step === "tray_chill");
    if (tray && delayed && !dropped) {
      dropped = true;
      events.push({ kind: "dropped", task: tray.tasks[0]! });
    }
    for (const t of run.timers.filter((one) => one.state === "due" || one.state === "over")) {
      if (t.begins.length > 0) events.push(...t.begins.map((task) => ({ kind: "started", task })));
      else events.push(...t.tasks.map((task) => ({ kind: t.to_begin ? "started" : "done", task })));
    }
    if (events.length > 0) run = await note(events);
    // Once both have happened the day is planned anew; what it says then is how it ends.
    if (dropped && foretold === 0) foretold = Math.max(...run.bars.map((b) => b.end_min));
    return run.finished;
  }, { timeout: 220_000, intervals: [150] }).toBe(true);
  expect(delayed && dropped).toBe(true);
  const ended = Math.max(...run.bars.map((b) => b.end_min));
  // A second of this machine is a minute of the day, and every press may be one late.
  expect(Math.abs(ended - foretold)).toBeLessThan(25);
  const trays = new Set(run.bars.filter((b) => b.step === "cut").map((b) => b.tray));
  expect(run.baked).toHaveLength(trays.size - 1);
  await expect(page.getByText("All done.").first()).toBeVisible();
  await page.getByRole("button", { name: "End the day" }).first().click();
  await expect(page).toHaveURL(/\/days\//);
});

test("the bench is used on a phone without sideways scrolling, its buttons as large as a knuckle", async ({ page, bakery, request }) => {
  const run = await begun(request, bakery.address, 50);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${bakery.address}/bench/${run.id}`);
  await expect(hands(page)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBeLessThanOrEqual(0);
  for (const button of await page.getByRole("button").all()) {
    const box = await button.boundingBox();
    if (box) expect(box.height, (await button.textContent()) ?? "").toBeGreaterThanOrEqual(55.5);
  }
  const small = await page.evaluate(() =>
    [...document.querySelectorAll("main :is(p, span, h1, button, li)")].filter((e) => e.textContent?.trim() && e.getClientRects().length > 0 && Number.parseFloat(getComputedStyle(e).fontSize) < 16).map((e) => e.textContent?.slice(0, 40)),
  );
  expect(small).toEqual([]);
});
