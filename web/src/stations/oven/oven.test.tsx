// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { MemoryRouter, Outlet, Route, Routes } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Job, Plan } from "../../api/client";
import type { Lever } from "../../api/levers";
import type { JobContext } from "../../app/JobFrame";
import { SettingsProvider } from "../../kit/settings";
import { BakeSheet } from "./BakeSheet";
import { Levers } from "./Levers";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({ matches: false, addEventListener: () => undefined, removeEventListener: () => undefined })) as never;
});

const OUTLINE = [[-20, -20], [20, -20], [20, 20], [-20, 20]];
const FORECAST = { bake_min: 9.6, done_by: "rim", spread_percent: 12, growth_mm: 2.4, thickness_mm: 5.4, profile: "flat", rim_colour: 20, middle_colour: 9, under_colour: 19, core_c: 120, loss_percent: 11, dull_after_min: 5, set_after_min: 4, fat_after_min: 2, start_c: 6, curve: [] };
const TASK = { lot: 0, mix: null, oven: 1, start_min: 0, end_min: 0, why: "" };
const PLAN = {
  ready_by: "2026-11-28T14:00", cutter: { name: "Buoy", width_mm: 40, height_mm: 40, outline_mm: OUTLINE, holes_mm: [] },
  shape: { trays: { fill: [12, 5] } },
  oven: { oven_c: 175, bake_least_min: 8, bake_most_min: 11, look_after_min: 7, look_for: "Done when the rim is golden.", cool_on_tray_min: 8, warnings: ["So thin a piece goes from golden to brown within a minute: stand by it."], forecast: FORECAST },
  clock: { start_at: "2026-11-28T11:00", tasks: [
    { ...TASK, step: "preheat", lane: "oven", tray: null, start_at: "2026-11-28T13:10", end_at: "2026-11-28T13:30" },
    { ...TASK, step: "bake", lane: "oven", tray: 1, start_at: "2026-11-28T13:30", end_at: "2026-11-28T13:41" },
    { ...TASK, step: "bake", lane: "oven", tray: 2, start_at: "2026-11-28T13:41", end_at: "2026-11-28T13:52" },
  ] },
} as unknown as Plan;
const JOB = { id: 1, name: "Harbour tins", bake_end: "golden", liner: "parchment", method: "just_combined" } as unknown as Job;

function show(view: ReactElement, plan: Plan = PLAN): void {
  const context: JobContext = { job: JOB, plan, day: plan.clock, dim: false };
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>
        <MemoryRouter>
          <Routes>
            <Route element={<Outlet context={context} />}>
              <Route path="*" element={view} />
            </Route>
          </Routes>
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}

const lever = (number: number, more: Partial<Lever>): Lever => ({ number, of: 2, group: "oven", name: `lever ${number}`, bake_min: 9.6, spread_percent: 12, growth_mm: 2.4, thickness_mm: 5.4, rim_at_same_time: 20, under_colour: 19, why_not: null, ...more });

/** The board as the server streams it, cut where no event ends. */
function streamed(levers: readonly Lever[]): Response {
  const text = [...levers.map((l) => `event: lever\ndata: ${JSON.stringify(l)}\n\n`), `event: done\ndata: {"after_s":0.4}\n\n`].join("");
  const bytes = new TextEncoder().encode(text);
  return new Response(new ReadableStream({
    start(c) {
      for (let i = 0; i < bytes.length; i += 50) c.enqueue(bytes.slice(i, i + 50));
      c.close();
    },
  }), { status: 200, headers: { "content-type": "text/event-stream" } });
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the board of levers", () => {
  it("tells each lever against the plan, in the server's order, and what it does not know", async () => {
    vi.spyOn(globalThis, "fetch").mockResolvedValue(streamed([lever(1, { bake_min: null, spread_percent: null, rim_at_same_time: null, why_not: "beyond" }), lever(0, { spread_percent: 9.5, bake_min: 8.3, rim_at_same_time: 44 })]));
    show(<Levers />);
    expect(await screen.findByText("2 levers, one notch each")).toBeTruthy();
    const rows = screen.getAllByRole("row").filter((r) => r.textContent?.includes("lever "));
    expect(rows.map((r) => r.textContent)).toEqual(["lever 0−2.5 points−1.3 mindarker", "lever 1beyond what the forecast knows"]);
  });

  it("pins up to three and draws them beside the plan", async () => {
    vi.spyOn(globalThis, "fetch").mockResolvedValue(streamed([0, 1, 2, 3].map((n) => lever(n, { of: 4, growth_mm: 3 + n }))));
    show(<Levers />);
    await screen.findByText("4 levers, one notch each");
    const user = userEvent.setup();
    for (const n of [2, 0, 1, 3]) await user.click(screen.getByRole("button", { name: new RegExp(`lever ${n}$`) }));
    expect(screen.getAllByRole("img").map((i) => i.getAttribute("aria-label"))).toEqual([
      "As planned: grows 2.4 mm all round", "A: lever 2: grows 5 mm all round", "B: lever 0: grows 3 mm all round", "C: lever 1: grows 4 mm all round",
    ]);
    await user.click(screen.getByRole("button", { name: /lever 2$/ }));
    expect(screen.getAllByRole("img")).toHaveLength(3);
  });

  it("says so where there is no forecast to compare with", () => {
    const fetched = vi.spyOn(globalThis, "fetch").mockResolvedValue(streamed([]));
    show(<Levers />, { ...PLAN, oven: { ...PLAN.oven, forecast: null } } as Plan);
    expect(screen.getByText(/The forecast does not reach this bake/)).toBeTruthy();
    expect(fetched).not.toHaveBeenCalled();
  });
});

describe("the bake sheet", () => {
  it("says for each tray when it goes in, when to look, when it is out and racked", () => {
    show(<BakeSheet />);
    const rows = screen.getAllByRole("row").slice(1).map((r) => [...r.querySelectorAll("td")].map((d) => d.textContent));
    expect(rows).toEqual([["1: 12", "13:30", "13:37", "13:38–13:41", "13:49"], ["2: 5", "13:41", "13:48", "13:49–13:52", "14:00"]]);
    expect(screen.getByText("13:10")).toBeTruthy();
    expect(screen.getByText("Done when the rim is golden.")).toBeTruthy();
    expect(screen.getByText(/stand by it/)).toBeTruthy();
  });
});
