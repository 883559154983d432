// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, type Job, type Plan } from "../../api/client";
import { PaperCorners, START, cornersQuery, type Corner } from "../../kit/PaperCorners";
import { showPart, showView } from "../../kit/showView";
import { BookPage } from "./BookPage";
import { EvennessPage } from "./EvennessPage";
import { TrialTray } from "./TrialTray";
import { TrialsPage } from "./TrialsPage";
import { WaysChart } from "./WaysChart";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const JOB = { id: 1, name: "Harbour tins" } as unknown as Job;
const says = (text: string) => ({ text, parts: [text] });
const point = (value_mm: number, low_mm: number, high_mm: number, text?: string) => ({
  value_mm,
  low_mm,
  high_mm,
  says: text ? says(text) : null,
});
const tray = (id: number, mean: number, text?: string) => ({
  record_id: id,
  recorded_at: `2026-11-2${id}T14:00`,
  pieces: 6,
  mean: point(mean, 96.5, 97.5, text),
  range: point(0.8, 0, 1.6),
});
const CHARTS = {
  trays: [tray(1, 97), tray(2, 96.9), tray(3, 98.2, "wider than usual")],
  mean_mm: 97,
  sd_within_mm: 0.31,
  within_percent: 60,
  trays_percent: 30,
  days_percent: 10,
  wanted_mm: 97,
  could: 1.1,
  does: 0.5,
  beyond_percent: 4,
  says: [says("Most of what varies is within a tray.")],
};

function answering(charts: unknown): void {
  const answer = {
    data: { measure: "width", tolerance_mm: 1, measured: 2, needed: 3, charts },
    response: new Response(null, { status: 200 }),
  };
  vi.spyOn(api, "GET").mockImplementation(((path: string) =>
    path.endsWith("/bakes-even") ? Promise.resolve(answer) : Promise.reject(new Error("away"))) as never);
}

describe("evenness over time", () => {
  it("draws each tray, names what chance does not explain, and says what varies", async () => {
    answering(CHARTS);
    showView(<EvennessPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByRole("heading", { name: /^4(\.0)?% beyond ±1/ })).toBeTruthy();
    expect(
      screen.getByRole("img", { name: /^Widths tray by tray/ }).querySelectorAll("circle.fill-warm"),
    ).toHaveLength(1);
    expect(screen.getByText(/: wider than usual\.$/)).toBeTruthy();
    expect(
      screen.getByRole("img", {
        name: "on one tray 60 percent, tray to tray 30 percent, day to day 10 percent",
      }),
    ).toBeTruthy();
  });

  it("says what it would need while there are too few trays", async () => {
    answering(null);
    showView(<EvennessPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByText(/2 of 3 trays measured/)).toBeTruthy();
  });
});

/** Each path has its answer; others are away. */
function answers(by: Readonly<Record<string, unknown>>): void {
  vi.spyOn(api, "GET").mockImplementation(((path: string) =>
    path in by
      ? Promise.resolve({ data: by[path], response: new Response(null, { status: 200 }) })
      : Promise.reject(new Error("away"))) as never);
}

const TRIAL = {
  ways: ["as usual", "half powdered"],
  measure: "width" as const,
  difference_mm: 1,
  sd_mm: 0.4,
  per_way: 1,
  tray_mm: [310, 440],
  places_mm: [
    [60, 60],
    [60, 160],
    [60, 260],
  ],
  trays: [[0, 1, null]],
};
const tried = (more: object) => ({
  id: 3,
  job_id: 1,
  name: "Sugar",
  trial: TRIAL,
  test: null,
  record_id: null,
  noted: null,
  ways: [],
  says: [],
  ...more,
});

describe("a trial", () => {
  it("shows which way lies where, and leaves the other places empty", () => {
    showPart(<TrialTray trial={TRIAL} tray={0} />);
    const picture = screen.getByRole("img", { name: "Tray 1: 1 of A, as usual; 1 of B, half powdered" });
    expect([...picture.querySelectorAll("text")].map((t) => t.textContent)).toEqual(["A", "B"]);
    expect(picture.querySelectorAll("circle")).toHaveLength(3);
  });

  it("draws each way against the first with what the difference lies within", () => {
    showPart(
      <WaysChart
        measure="width"
        ways={[
          { name: "as usual", pieces: 8, mean_mm: 97.4, more_mm: null, between_mm: null },
          { name: "half powdered", pieces: 8, mean_mm: 96.5, more_mm: -0.9, between_mm: [-1.3, -0.5] },
        ]}
      />,
    );
    expect(
      screen.getByRole("img", { name: "B, half powdered: −0.9 mm more than A, likely −1.3 to −0.5" }),
    ).toBeTruthy();
    expect(screen.getByText(/A: average 97\.4\smm, 8 cookies; B: average 96\.5\smm, 8 cookies/)).toBeTruthy();
  });

  it("stands open until it was measured, then says what it came to", async () => {
    const done = tried({
      id: 4,
      name: "Cold",
      noted: { kind: "trial", trays_mm: [] },
      says: [says("“half powdered” comes out narrower.")],
      ways: [],
    });
    answers({
      "/api/jobs/{id}/tries": [tried({}), done],
      "/api/jobs/{id}/trial-size": { per_way: 9, on_trays: [9], seen_percent: 92, sd_mm: 0.41, sd_own: true },
    });
    showView(<TrialsPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByRole("heading", { name: /^1 test planned/ })).toBeTruthy();
    expect(screen.getByText("“half powdered” comes out narrower.")).toBeTruthy();
    expect(screen.getAllByText("Enter measurements")).toHaveLength(1);
    expect(await screen.findByText(/^9 cookies of each, on 1 tray\./)).toBeTruthy();
    expect(screen.getByText(/Typical difference on your trays: 0\.4\smm/)).toBeTruthy();
  });

  it("of a cause asks whether it helped", async () => {
    const note = vi
      .spyOn(api, "POST")
      .mockImplementation((() =>
        Promise.resolve({ data: {}, response: new Response(null, { status: 200 }) })) as never);
    answers({
      "/api/jobs/{id}/tries": [
        tried({
          trial: null,
          record_id: 7,
          test: {
            says: says("Let it rest 5 min, then roll."),
            of: "too cold to work",
            from: "too much flour",
            by_hand: true,
            pieces: 3,
          },
        }),
      ],
    });
    showView(<TrialsPage />, { job: JOB, plan: {} as Plan });
    await userEvent.click(await screen.findByRole("button", { name: "It helped" }));
    expect(note).toHaveBeenCalledWith("/api/tries/{id}/noted", {
      params: { path: { id: 3 } },
      body: { kind: "helped", helped: true },
    });
  });
});

const RECORD = {
  id: 2,
  job_id: 1,
  job: "Regatta gulls",
  formula: "Lemon-thyme",
  recorded_at: "2026-11-26T14:00",
  formula_version: 1,
  complete: true,
  has_photo: false,
  kitchen: null,
  cut_width_mm: 96,
  cut_thickness_mm: 6,
  widths_mm: [97],
  thicknesses_mm: [],
  baked_min: 11,
  edge_colour: "golden",
  notes: "",
  conditions: {},
  mean_width_mm: 97,
  mean_thickness_mm: null,
  spread_percent: 1,
  spread_against: "within",
  spreads_percent: [1],
  spread_factor: null,
  width_range_mm: 0,
  expected_bake_least_min: 8,
  expected_bake_most_min: 14,
  expected_spread_least_percent: 0,
  expected_spread_most_percent: 2,
};

describe("the book of bakes", () => {
  it("sets two that are chosen side by side and says what the forecast makes of it", async () => {
    const other = {
      ...RECORD,
      id: 1,
      recorded_at: "2026-11-21T14:00",
      spread_percent: 3,
      edge_colour: "pale",
    };
    answers({
      "/api/book": { records: [RECORD, other], total: 2 },
      "/api/book/beside": {
        one: RECORD,
        other,
        differs: [{ what: "end", spread_percent: 0.02, min: -1.5 }],
        spread_percent: 2,
        min: 0,
        told_spread_percent: 0.02,
        told_min: -1.5,
      },
    });
    showView(<BookPage />, { job: JOB, plan: {} as Plan });
    for (const day of [
      /^Choose for side by side: Regatta gulls, Thursday/,
      /^Choose for side by side: Regatta gulls, Saturday/,
    ])
      await userEvent.click(await screen.findByRole("button", { name: day }));
    expect(
      await screen.findByText(
        /Measured difference: 2\.0% more spread, same time\. Forecast difference: same spread, 1\.5\smin shorter\./,
      ),
    ).toBeTruthy();
    expect(screen.getByText(/alone: same spread, 1\.5\smin shorter\./)).toBeTruthy();
  });

  it("says so where nothing is like that, and where nothing is recorded yet", async () => {
    answers({ "/api/book": { records: [], total: 0 } });
    showView(<BookPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByText(/^No bakes recorded yet/)).toBeTruthy();
    await userEvent.type(screen.getByRole("searchbox", { name: "Job, recipe or notes" }), "x");
    expect(await screen.findByText("No bakes match.")).toBeTruthy();
  });
});

function Corners({ onCorners }: { onCorners(all: readonly Corner[]): void }) {
  const [corners, setCorners] = useState(START);
  const moved = (index: number, to: Corner) => {
    const next = corners.map((c, i) => (i === index ? to : c));
    setCorners(next);
    onCorners(next);
  };
  return <PaperCorners photo={{ url: "", width: 400, height: 300 }} corners={corners} onMove={moved} />;
}

describe("corners of a paper", () => {
  it("are moved with the arrow keys, further with shift, and never out of the photo", async () => {
    let last: readonly Corner[] = [];
    showPart(
      <Corners
        onCorners={(all) => {
          last = all;
        }}
      />,
    );
    const first = screen.getByRole("slider", { name: "Corner 1" });
    first.focus();
    await userEvent.keyboard("{ArrowRight}");
    expect(last[0]?.[0]).toBeCloseTo(0.122);
    await userEvent.keyboard("{Shift>}{ArrowUp}{/Shift}");
    expect(last[0]?.[1]).toBeCloseTo(0.1);
    await userEvent.keyboard(
      "{Shift>}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{/Shift}",
    );
    expect(last[0]?.[0]).toBe(0);
  });

  it("are sent as eight numbers going round", () => {
    expect(cornersQuery(START).split(",")).toHaveLength(8);
    expect(cornersQuery([[0.1, 0.25]])).toBe("0.10000,0.25000");
  });
});
