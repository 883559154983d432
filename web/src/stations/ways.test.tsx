// @vitest-environment jsdom
/** The ways in which bakers work, as the screens take and tell them. */
import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type Job, type Plan } from "../api/client";
import { NextStep } from "../app/NextStep";
import { showView } from "../kit/showView";
import { Chilling } from "./cold/Chilling";
import { MadeView } from "./shape/MadeView";
import { MarbledView } from "./shape/MarbledView";
import { Pricked } from "./shape/Pricked";
import { candidates, givenIn } from "./shape/given";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const answered = (body: unknown): never =>
  ({ data: body, response: new Response(null, { status: 200 }) }) as never;

const CUTTER = {
  id: 3,
  name: "Buoy",
  width_mm: 40,
  height_mm: 40,
  outline_mm: [
    [-20, -20],
    [20, -20],
    [20, 20],
    [-20, 20],
  ],
  holes_mm: [],
};
const COLD = {
  piece: { kind: "disc", thickness_mm: 22, diameter_mm: 180 },
  count: 1,
  place: "fridge",
  stays: "ready",
  dough_for: "ready",
  pieces_for: "no",
  portions_first: false,
  flour_rest_min: 0,
  dough_means: [],
  pieces_mean: [],
  tray_chill: null,
  thaw: null,
  bulk: null,
};
const planOf = (cold: object, more: object = {}): Plan =>
  ({
    making: { kind: "cut" },
    cutter: CUTTER,
    cold: { ...COLD, ...cold },
    dough: { dough_g: 711, piece_g: 17 },
    clock: { start_at: "2026-11-28T11:18" },
    shape: { thickness_mm: 6, trays: { fill: [21] }, rolls: [], reasons: [], warnings: [] },
    ...more,
  }) as unknown as Plan;
const JOB = {
  id: 1,
  name: "Regatta gulls",
  pieces: 48,
  formula_id: 1,
  thickness_mm: 6,
  dough_form: "disc",
  disc_mm: 22,
  chill_place: "fridge",
  tray_chill_place: "fridge",
  reserve_percent: 3,
} as unknown as Job;

let sent: Record<string, unknown>[] = [];

beforeEach(() => {
  sent = [];
  vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
    answered(path === "/api/units" ? [] : path === "/api/jobs/{id}" ? JOB : null)) as never);
  vi.spyOn(api, "PATCH").mockImplementation((async (
    _: string,
    { body }: { body: Record<string, unknown> },
  ) => {
    sent.push(body);
    return answered({ ...JOB, ...body });
  }) as never);
  vi.spyOn(api, "POST").mockImplementation((async (_: string, { body }: { body: { text: string } }) =>
    answered({ value: Number.parseFloat(body.text) })) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the dough in the cold", () => {
  it("may come from the freezer, and then nothing is asked of how long it chills", async () => {
    const plan = planOf({});
    showView(<Chilling job={JOB} plan={plan} />, { job: JOB, plan });
    expect(screen.getByRole("radiogroup", { name: "How long the dough chills" })).toBeTruthy();
    await userEvent.click(screen.getByRole("radio", { name: "Frozen: thaw on the bench" }));
    await waitFor(() => expect(sent[0]).toMatchObject({ thaws: "bench" }));
    cleanup();
    const thawing = planOf({ thaw: { way: "bench", bench_min: 58, at_c: 10.6 } });
    showView(<Chilling job={JOB} plan={thawing} />, { job: JOB, plan: thawing });
    expect(screen.queryByRole("radiogroup", { name: "How long the dough chills" })).toBeNull();
    await userEvent.click(screen.getByRole("radio", { name: "Fresh" }));
    await waitFor(() => expect(sent[1]).toMatchObject({ thaws: null }));
  });

  it("of logs chills as a lump first where that is chosen, and says as what they are formed", () => {
    const told = { ready_min: 77, earliest_min: 70, latest_min: 84, past_min: null };
    const plan = planOf(
      { bulk: { told, out_c: 14.2, rest_min: 12, formed_c: 16.2 } },
      { making: { kind: "sliced", form: "round", width_mm: 45 } },
    );
    showView(<Chilling job={{ ...JOB, bulk_for: "ready" }} plan={plan} />, { job: JOB, plan });
    expect(screen.getByRole("radiogroup", { name: "How long the lump chills" })).toBeTruthy();
    expect(screen.getByText(/Shape logs at 16.2/).textContent).toMatch(
      /^The lump is firm in 1.h.17.min. Take it out at 14.2.* Rest it 12.min on the bench/,
    );
  });
});

describe("what comes next", () => {
  it("is to take the disc out of the freezer where it is there, and to weigh where it is not", () => {
    const plan = planOf({ thaw: { way: "fridge", bench_min: 15, at_c: 10.6 } });
    showView(<NextStep station="order" />, { job: JOB, plan });
    expect(screen.getByRole("link", { name: "Take the disc out of the freezer" }).getAttribute("href")).toBe(
      "/jobs/1/cold",
    );
    cleanup();
    showView(<NextStep station="order" />, { job: JOB, plan: planOf({}) });
    expect(screen.getByRole("link", { name: /^Weigh out 711.g of dough$/ })).toBeTruthy();
  });
});

describe("pieces", () => {
  it("are pricked at a press, which stands at once", async () => {
    showView(<Pricked />, { job: JOB, plan: planOf({}) });
    const box = screen.getByRole<HTMLInputElement>("checkbox", { name: /^Prick/ });
    await userEvent.click(box);
    await waitFor(() => expect(sent).toEqual([expect.objectContaining({ pricked: true })]));
  });

  it("of another scoop no longer weigh what one of the last did", async () => {
    const making = { kind: "scoop", scoop: 40, mass_g: 26 };
    const job = { ...JOB, making } as unknown as Job;
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path === "/api/units" ? [] : path === "/api/jobs/{id}" ? job : null)) as never);
    showView(<MadeView />, { job, plan: planOf({}, { making }) });
    const number = screen.getByRole("textbox", { name: "Scoop number (#)" });
    await userEvent.clear(number);
    await userEvent.type(number, "60{Enter}");
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ making: { kind: "scoop", scoop: 60, mass_g: null } }),
    );
  });

  it("of scraps are asked for with another dough, and both stand on the label", async () => {
    const found = {
      own_g: 96,
      other_g: 120,
      mass_g: 216,
      other_percent: 55.6,
      width_mm: 170,
      length_mm: 170,
      cuts: [{ x_mm: 40, y_mm: 40, turn_deg: 0 }],
      pieces: 1,
      piece_g: 12,
      left_g: 204,
      steps: [{ text: "Tear both." }, { text: "Look a minute sooner." }],
      allergens: ["egg", "oats"],
    };
    const asked: unknown[] = [];
    vi.spyOn(api, "GET").mockImplementation((async (
      path: string,
      init?: { params?: { query?: unknown } },
    ) => {
      if (path === "/api/jobs/{id}/marbled") asked.push(init?.params?.query);
      return answered(
        path === "/api/units"
          ? []
          : path === "/api/jobs"
            ? {
                jobs: [
                  JOB,
                  { ...JOB, id: 2, name: "Same dough" },
                  { ...JOB, id: 4, formula_id: 9, name: "Café tins" },
                ],
                total: 3,
                damaged: [],
              }
            : path === "/api/jobs/{id}/marbled"
              ? found
              : null,
      );
    }) as never);
    showView(<MarbledView />, { job: JOB, plan: planOf({}) });
    expect(await screen.findByText("Label the allergens of both doughs: egg, oats.")).toBeTruthy();
    // A job of the same dough marbles nothing.
    expect([...screen.getByRole<HTMLSelectElement>("combobox").options].map((o) => o.textContent)).toEqual([
      "Café tins",
    ]);
    expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual(
      expect.arrayContaining(["Tear both.", "Look a minute sooner."]),
    );
    const other = screen.getByRole("textbox", { name: "Other dough" });
    await userEvent.clear(other);
    await userEvent.type(other, "150{Enter}");
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ with: 4, other_g: 150 }));
  });
});

describe("the measures of a bar", () => {
  const bar = [
    ["mass_g", 600],
    ["length_mm", 250],
    ["width_mm", 60],
  ] as const;

  it("are three of mass, length, width and height, and a slice is one more", () => {
    expect(candidates(bar, "slice_mm", 8)[0]).toEqual([...bar, ["slice_mm", 8]]);
    expect(givenIn(new URLSearchParams("mass_g=600&length_mm=250&width_mm=60&slice_mm=8"))).toHaveLength(4);
    // Where they are not a bar, the one typed longest ago gives way.
    const log = [
      ["mass_g", 600],
      ["width_mm", 48],
      ["slice_mm", 6],
    ] as const;
    expect(candidates(log, "slices", 30)[0]).toEqual([
      ["width_mm", 48],
      ["slice_mm", 6],
      ["slices", 30],
    ]);
    expect(givenIn(new URLSearchParams("mass_g=600&width_mm=48&slice_mm=6&slices=30"))).toEqual([]);
  });
});
