// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Job, Plan } from "../../api/client";
import type { Lever } from "../../api/levers";
import { showView } from "../../kit/showView";
import { BakeSheet } from "./BakeSheet";
import { FinishPage } from "./Finish";
import { Levers } from "./Levers";
import { stacked, TimesStrip } from "./TimesStrip";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const OUTLINE = [
  [-20, -20],
  [20, -20],
  [20, 20],
  [-20, 20],
];
const FORECAST = {
  rim_screen: "#d2a66e",
  middle_screen: "#e0c48c",
  under_screen: "#c08a4a",
  rim_apart_de: 7.4,
  rim_apart_seen: true,
  bake_min: 9.6,
  done_by: "rim",
  spread_percent: 12,
  growth_mm: 2.4,
  thickness_mm: 5.4,
  profile: "flat",
  rim_colour: 20,
  middle_colour: 9,
  under_colour: 19,
  core_c: 120,
  loss_percent: 11,
  dull_after_min: 5,
  set_after_min: 4,
  fat_after_min: 2,
  start_c: 6,
  curve: [],
};
const TASK = { lot: 0, mix: null, oven: 1, start_min: 0, end_min: 0, why: "" };
const PLAN = {
  ready_by: "2026-11-28T14:00",
  cutter: { name: "Buoy", width_mm: 40, height_mm: 40, outline_mm: OUTLINE, holes_mm: [] },
  shape: { trays: { fill: [12, 5] } },
  oven: {
    turn: null,
    comes_back_min: 3,
    cover_pot: false,
    oven_c: 175,
    bake_about_min: 9,
    bake_least_min: 8,
    bake_most_min: 11,
    look_after_min: 7,
    look_for: "Done when the rim is golden.",
    cool_on_tray_min: 8,
    warnings: ["So thin a piece goes from golden to brown within a minute: tay by the oven."],
    forecast: FORECAST,
  },
  clock: {
    start_at: "2026-11-28T11:00",
    tasks: [
      {
        ...TASK,
        step: "preheat",
        lane: "oven",
        tray: null,
        start_at: "2026-11-28T13:10",
        end_at: "2026-11-28T13:30",
      },
      {
        ...TASK,
        step: "bake",
        lane: "oven",
        tray: 1,
        start_min: -30,
        start_at: "2026-11-28T13:30",
        end_at: "2026-11-28T13:41",
      },
      {
        ...TASK,
        step: "bake",
        lane: "oven",
        tray: 2,
        start_min: -19,
        start_at: "2026-11-28T13:41",
        end_at: "2026-11-28T13:52",
      },
    ],
  },
} as unknown as Plan;
const JOB = {
  id: 1,
  name: "Harbour tins",
  bake_end: "golden",
  liner: "parchment",
  method: "just_combined",
} as unknown as Job;

const show = (view: ReactElement, plan: Plan = PLAN): void => showView(view, { job: JOB, plan });

const lever = (number: number, more: Partial<Lever>): Lever => ({
  number,
  of: 2,
  group: "oven",
  name: { text: `lever ${number}` },
  bake_min: 9.6,
  spread_percent: 12,
  growth_mm: 2.4,
  thickness_mm: 5.4,
  rim_at_same_time: 20,
  rim_screen: "#d2a66e",
  under_colour: 19,
  spread_change_percent: null,
  growth_change_mm: null,
  bake_change_min: null,
  rim_change: null,
  why_not: null,
  ...more,
});

/** The board as the server streams it, cut where no event ends. */
function streamed(levers: readonly Lever[]): Response {
  const text = [
    ...levers.map((l) => `event: lever\ndata: ${JSON.stringify(l)}\n\n`),
    `event: done\ndata: {"after_s":0.4}\n\n`,
  ].join("");
  const bytes = new TextEncoder().encode(text);
  return new Response(
    new ReadableStream({
      start(c) {
        for (let i = 0; i < bytes.length; i += 50) c.enqueue(bytes.slice(i, i + 50));
        c.close();
      },
    }),
    { status: 200, headers: { "content-type": "text/event-stream" } },
  );
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the board of levers", () => {
  it("tells each lever against the plan, in the server's order, and what it does not know", async () => {
    vi.spyOn(globalThis, "fetch").mockResolvedValue(
      streamed([
        lever(1, { bake_min: null, spread_percent: null, rim_at_same_time: null, why_not: "beyond" }),
        lever(0, {
          spread_percent: 9.5,
          bake_min: 8.3,
          rim_at_same_time: 44,
          spread_change_percent: -2.5,
          growth_change_mm: -0.6,
          bake_change_min: -1.3,
          rim_change: 20,
        }),
      ]),
    );
    show(<Levers />);
    expect(await screen.findByText("2 changes, one step each")).toBeTruthy();
    const rows = screen.getAllByRole("row").filter((r) => r.textContent?.includes("lever "));
    expect(rows.map((r) => r.textContent)).toEqual([
      "lever 0−0.6\u00a0mm−1.3\u00a0mindarker",
      "lever 1no forecast",
    ]);
  });

  it("shows nothing for what lies within the forecast's own steps", async () => {
    vi.spyOn(globalThis, "fetch").mockResolvedValue(
      streamed([lever(0, { spread_percent: 12.1 }), lever(1, { bake_change_min: 0.6 })]),
    );
    show(<Levers />);
    await screen.findByText("2 changes, one step each");
    const rows = screen.getAllByRole("row").filter((r) => r.textContent?.includes("lever "));
    expect(rows.map((r) => r.textContent)).toEqual([
      "lever 0no changeno changeno change",
      "lever 1no change+0.6\u00a0minno change",
    ]);
  });

  it("pins up to three and draws them beside the plan", async () => {
    vi.spyOn(globalThis, "fetch").mockResolvedValue(
      streamed([0, 1, 2, 3].map((n) => lever(n, { of: 4, growth_mm: 3 + n }))),
    );
    show(<Levers />);
    await screen.findByText("4 changes, one step each");
    const user = userEvent.setup();
    for (const n of [2, 0, 1, 3])
      await user.click(screen.getByRole("button", { name: new RegExp(`lever ${n}$`) }));
    expect(screen.getAllByRole("img").map((i) => i.getAttribute("aria-label"))).toEqual([
      "As planned: grows 2.4\u00a0mm all around",
      "A: lever 2: grows 5\u00a0mm all around",
      "B: lever 0: grows 3\u00a0mm all around",
      "C: lever 1: grows 4\u00a0mm all around",
    ]);
    await user.click(screen.getByRole("button", { name: /lever 2$/ }));
    expect(screen.getAllByRole("img")).toHaveLength(3);
  });

  it("says so where there is no forecast to compare with", () => {
    const fetched = vi.spyOn(globalThis, "fetch").mockResolvedValue(streamed([]));
    show(<Levers />, { ...PLAN, oven: { ...PLAN.oven, forecast: null } } as Plan);
    expect(screen.getByText(/No forecast for this bake/)).toBeTruthy();
    expect(fetched).not.toHaveBeenCalled();
  });
});

describe("the oven card", () => {
  it("says for each tray when it goes in, when to look, when it is out and racked", () => {
    show(<BakeSheet />);
    const rows = screen
      .getAllByRole("row")
      .slice(1)
      .map((r) => [...r.querySelectorAll("td")].map((d) => d.textContent));
    expect(rows).toEqual([
      ["1: 12 cookies", "13:30", "13:37", "13:38–13:41", "13:49"],
      ["2: 5 cookies", "13:41", "13:48", "13:49–13:52", "14:00"],
    ]);
    expect(screen.getByText("13:10")).toBeTruthy();
    expect(screen.getByText("Done when the rim is golden.")).toBeTruthy();
    expect(screen.getByText(/tay by the oven/)).toBeTruthy();
  });
});

describe("the finish", () => {
  const COAT = {
    name: "Water glaze",
    each_g: 2.12,
    total_g: 70.1,
    parts: [
      { name: "powdered sugar", mass_g: 61.3 },
      { name: "water", mass_g: 8.8 },
    ],
    count: 17,
    when: "When cool",
    reason: "0.5 mm over 29 cm².",
    cautions: ["Usual are 6 to 8 parts."],
    uses: [
      { name: "for the outline", right_when: "stiff enough to stand", mass_g: 20, thinner_g: 0 },
      { name: "for the flood", right_when: "thinned", mass_g: 50.1, thinner_g: 1.2 },
    ],
    colours: [{ name: "red", mass_g: 21, paste_g: 0.2 }],
    takes_colour: true,
    touch_min: 90,
    dry_min: 480,
  };
  const PACKING = {
    on_each_other: 4,
    paper_between: true,
    papers: 12,
    after_min: 480,
    one_layer_after_min: 300,
    reason: "What lies on it leaves its mark.",
  };
  const FINISH = {
    pieces: 20,
    packing: PACKING,
    top_cm2: 29,
    coats: [COAT],
    tin_least_days: 7,
    tin_most_days: 14,
    freezer_least_months: null,
    freezer_most_months: null,
    in_the_cold: false,
    reasons: ["A coat draws moisture."],
    spirit: {
      mixed_g: 0.03,
      left_least_g: 0.012,
      left_most_g: 0.03,
      reason: "Alcohol doesn’t bake off completely.",
    },
  };
  const plan = { ...PLAN, dough: { allergens: ["milk", "wheat"] }, finish: FINISH } as unknown as Plan;

  it("tells grams, when, how long it keeps and what is left of spirits", () => {
    show(<FinishPage />, plan);
    expect(screen.getByRole("heading", { name: "Water glaze" })).toBeTruthy();
    expect(screen.getByText("70 g", { selector: "[data-live]" })).toBeTruthy();
    expect(screen.getByText("2.1 g each, 17 of 20 cookies")).toBeTruthy();
    expect(screen.getByText("1–2 weeks")).toBeTruthy();
    expect(screen.getByText("plain cookies only")).toBeTruthy();
    expect(screen.getByText(/0.01 to 0.03\sg left/)).toBeTruthy();
    expect(screen.getByText(/Label: milk, wheat/)).toBeTruthy();
  });

  it("tells an icing by its use and colours, when it is dry to the touch and through, and how it is packed", () => {
    show(<FinishPage />, plan);
    const lines = screen.getAllByRole("listitem").map((l) => l.textContent.replaceAll("\u00a0", " "));
    expect(lines).toContain("20 g for the outline, stiff enough to stand.");
    expect(lines).toContain("50 g for the flood, thinned, with 1.2 g water.");
    expect(lines).toContain("21 g red: start with 0.2 g color paste");
    expect(screen.getByText(/^Dry to the touch in 1.h.30.min, all the way in 8.h\.$/)).toBeTruthy();
    expect(screen.getByText("12")).toBeTruthy();
    expect(screen.getByText(/^8.h after the last is done$/)).toBeTruthy();
  });

  it("says that they stay plain where nothing was chosen", () => {
    show(<FinishPage />, {
      ...plan,
      finish: {
        ...FINISH,
        coats: [],
        spirit: null,
        tin_least_days: 14,
        tin_most_days: 28,
        freezer_least_months: 2,
        freezer_most_months: 3,
      },
    } as unknown as Plan);
    expect(screen.getByText(/Plain for now/)).toBeTruthy();
    expect(screen.getByText("2–4 weeks")).toBeTruthy();
    expect(screen.getByText("2–3 months")).toBeTruthy();
  });
});

describe("the strip of times", () => {
  it("stacks dots where they would cover each other, and nowhere else", () => {
    const dots = stacked([9, 8, 9.05, 9.1], (m) => m * 100, 9);
    expect(dots.map((d) => [Math.round(d.x), d.up])).toEqual([
      [800, 0],
      [900, 0],
      [905, 1],
      [910, 0],
    ]);
  });

  it("says in words what it draws, other sizes with their names", () => {
    const piece = { thickness_mm: 6, hotter_k: 0, done_min: 9, done_turned_min: 9.2 };
    const times = {
      pieces: [piece, { ...piece, done_min: 10.5 }],
      first_min: 9,
      last_min: 10.5,
      turned_first_min: 9.2,
      turned_last_min: 9.2,
      one_time_to_min: 10.08,
      one_tray: false,
      one_tray_turned: true,
      measured: false,
      mapped: true,
      advice: [],
    };
    render(
      <TimesStrip
        times={times}
        others={[
          { name: "Buoys", bake_min: 9.6, shares: true },
          { name: "Oat balls", bake_min: 12.6, shares: false },
        ]}
      />,
    );
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
      "Done after: not turned 9 to 10.5 minutes; turned halfway 9.2 to 9.2 minutes. One time will do up to 10.1 minutes.",
    );
    expect(screen.getByText("Buoys, 9.6")).toBeTruthy();
    expect(screen.getByText("Oat balls, 12.6: own tray")).toBeTruthy();
  });
});

describe("the oven card of a covered pot", () => {
  it("names the pot and its oven's hot side where there is one", () => {
    show(<BakeSheet />, {
      ...PLAN,
      oven: { ...PLAN.oven, forecast: null, cover_pot: true, turn: { text: "The right side is hotter." } },
    } as Plan);
    expect(screen.getByText(/Heat the covered pot over a low flame/)).toBeTruthy();
    expect(screen.getByText(/The right side is hotter/)).toBeTruthy();
  });
});
