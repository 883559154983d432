// @vitest-environment jsdom
import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type Cutter, type Job, type Plan } from "../../api/client";
import { searchNest, type Nested } from "../../api/nest";
import { showView } from "../../kit/showView";
import { PhotoCutter } from "../order/PhotoCutter";
import { GoesWrong } from "../cold/GoesWrong";
import { Parts } from "./Parts";
import { EvenView } from "./EvenView";
import { LogView } from "./LogView";
import { NestView, TrayView } from "./NestView";
import { PatternView } from "./PatternView";
import { PortionView } from "./PortionView";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const CUTTER: Cutter = {
  id: 3,
  name: "Buoy",
  origin: "svg",
  width_mm: 40,
  height_mm: 40,
  area_mm2: 1600,
  perimeter_mm: 160,
  neck_mm: null,
  warning: null,
  outline_mm: [
    [-20, -20],
    [20, -20],
    [20, 20],
    [-20, 20],
  ],
  holes_mm: [],
};
const CUTS = [
  { x_mm: 24, y_mm: 24, turn_deg: 0 },
  { x_mm: 68, y_mm: 24, turn_deg: 0 },
];
const ROLL = {
  number: 0,
  sheets: 1,
  width_mm: 100,
  length_mm: 120,
  mass_g: 90,
  pieces: 2,
  cut_g: 20,
  least_gap_mm: 4,
  cuts: CUTS,
  nested: false,
};
const JOB = {
  id: 1,
  name: "Harbour tins",
  thickness_mm: 6,
  turning: "free",
  layout: [],
  measured: [],
} as unknown as Job;
const TRAYS = {
  width_mm: 100,
  length_mm: 120,
  gap_mm: 25,
  edge_mm: 10,
  fill: [2, 1],
  sources: [[{ roll: 0, pieces: 2 }], [{ roll: 0, pieces: 1 }]],
  nested: false,
  rounds: 2,
  cuts: CUTS,
};
const PLAN = {
  cautions: ["Don’t taste raw dough"],
  dough: { mix_g: 710 },
  cold: { air_c: 4.2, curve: [{ warmest_c: 21.9 }] },
  cutter: CUTTER,
  shape: { thickness_mm: 6, rolls: [ROLL], trays: TRAYS },
  oven: { baked_outline_mm: CUTTER.outline_mm },
} as unknown as Plan;

const NESTED: Nested = {
  cuts: [...CUTS, { x_mm: 24, y_mm: 70, turn_deg: 45 }],
  rows: [0, 2],
  missing: [0],
  used_mm: 110,
  cut_percent: 40,
  least_gap_mm: 3.02,
  least_rim_mm: 4,
  bound: 5,
  after_s: 0.4,
};

const answered = (body: unknown, status = 200): never => {
  const response = new Response(null, { status });
  return (status === 200 ? { data: body, response } : { error: body, response }) as never;
};

const show = (view: ReactElement, at = "/", job: Job = JOB): void => showView(view, { job, plan: PLAN, at });

/** A stream as the server sends it, in pieces that do not end where the events do. */
function streamed(...parts: string[]): Response {
  const body = new ReadableStream<Uint8Array>({
    start(to) {
      for (const part of parts) to.enqueue(new TextEncoder().encode(part));
      to.close();
    },
  });
  return new Response(body, { status: 200 });
}
const said = (name: string, data: unknown) => `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;

beforeEach(() => {
  localStorage.clear();
  vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
    answered(path === "/api/units" ? [] : null)) as never);
  vi.spyOn(api, "POST").mockImplementation((async (path: string, init: { body: { pieces: unknown[] } }) =>
    answered(
      path.endsWith("measure")
        ? init.body.pieces.map((_, i) => ({
            nearest_mm: 2,
            too_near: i < 2 ? [1 - i] : [],
            rim_mm: 4,
            over_rim: false,
          }))
        : null,
    )) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe("a search over the wire", () => {
  const heard = { layout: vi.fn(), beat: vi.fn(), done: vi.fn() };

  it("is heard event by event, however its bytes are cut", async () => {
    const all =
      said("layout", NESTED) + said("beat", { after_s: 0.6 }) + said("done", { after_s: 2, exhausted: true });
    vi.stubGlobal("fetch", async () => streamed(all.slice(0, 40), all.slice(40, 300), all.slice(300)));
    await searchNest(
      1,
      { width_mm: 100, length_mm: 120, held: [], start: [], seconds: 2, seed: 0 },
      heard,
      new AbortController().signal,
    );
    expect(heard.layout).toHaveBeenCalledWith(NESTED);
    expect(heard.beat).toHaveBeenCalledWith(0.6);
    expect(heard.done).toHaveBeenCalledWith(2, true);
  });

  it("is refused with the server's words", async () => {
    const problem = { title: "busy", status: 503, detail: "two sheets are being nested already", errors: [] };
    vi.stubGlobal("fetch", async () => new Response(JSON.stringify(problem), { status: 503 }));
    await expect(searchNest(1, {} as never, heard, new AbortController().signal)).rejects.toThrow(
      "nested already",
    );
  });
});

describe("the nesting board", () => {
  it("takes what the search finds, counts it against the rows, and keeps it", async () => {
    vi.stubGlobal("fetch", async () =>
      streamed(said("layout", NESTED) + said("done", { after_s: 2, exhausted: false })),
    );
    const patch = vi.spyOn(api, "PATCH").mockImplementation((async () => answered(JOB)) as never);
    show(<NestView />);
    expect(screen.getByRole("button", { name: "Save layout" })).toHaveProperty("disabled", true);
    await userEvent.click(screen.getByRole("button", { name: "Find a tighter layout" }));
    await screen.findByText("Time’s up. A longer search may find more.");
    expect(screen.getByText(/1 more than in rows/)).toBeTruthy();
    expect(screen.getByText(/No layout could hold more than 5/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Save layout" }));
    await waitFor(() => expect(patch).toHaveBeenCalled());
    expect(patch.mock.calls[0]?.[1]).toMatchObject({ body: { layout: NESTED.cuts } });
  });

  it("holds what is moved by the keys, tells what lies too near, and takes the move back", async () => {
    show(<NestView />);
    await userEvent.click(screen.getByRole("button", { name: "Next cookie" }));
    expect(screen.getByText("Cookie 1 of 2")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Right 1 mm" }));
    expect((await screen.findByRole("alert")).textContent).toContain("2 cookies are too close");
    expect(screen.getByRole("button", { name: "Save layout" })).toHaveProperty("disabled", true);
    expect(screen.getByRole("button", { name: "Improve the rest" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Undo last move" }));
    expect(await screen.findByRole("button", { name: "Find a tighter layout" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(screen.getByText("No cookie selected")).toBeTruthy();
  });

  it("asks for what the goal says, around what is held", async () => {
    const asked: unknown[] = [];
    vi.stubGlobal("fetch", async (_: string, init: RequestInit) => {
      asked.push(JSON.parse(init.body as string));
      return streamed(said("done", { after_s: 2, exhausted: true }));
    });
    show(<NestView />);
    await userEvent.click(screen.getByRole("radio", { name: "Less dough" }));
    await userEvent.click(screen.getByRole("radio", { name: "10\u00a0s" }));
    await userEvent.click(screen.getByRole("button", { name: "Next cookie" }));
    await userEvent.click(screen.getByRole("button", { name: "Lock" }));
    await userEvent.click(screen.getByRole("button", { name: "Improve the rest" }));
    await screen.findByText("This is as tight as it gets.");
    expect(asked[0]).toMatchObject({ pieces: 2, seconds: 10, seed: 0, held: [CUTS[0]], start: [CUTS[1]] });
    await userEvent.click(screen.getByRole("button", { name: "Find another layout" }));
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[1]).toMatchObject({ seed: 1, start: [] });
  });
});

describe("the tray board", () => {
  it("says which sheet's pieces go where, and keeps the tray and not the sheet", async () => {
    const patch = vi.spyOn(api, "PATCH").mockImplementation((async () => answered(JOB)) as never);
    vi.stubGlobal("fetch", async () =>
      streamed(said("layout", NESTED) + said("done", { after_s: 2, exhausted: false })),
    );
    show(<TrayView />);
    expect(screen.getByText("Tray 2: 1 of the first roll")).toBeTruthy();
    expect(screen.getByText(/used 2 times/)).toBeTruthy();
    expect(screen.queryByRole("radio", { name: "Less dough" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Find a tighter layout" }));
    await screen.findByText(/Time.s up/);
    await userEvent.click(screen.getByRole("button", { name: "Save layout" }));
    await waitFor(() => expect(patch).toHaveBeenCalled());
    expect(patch.mock.calls[0]?.[1]).toMatchObject({ body: { tray_layout: NESTED.cuts } });
  });
});

describe("portions and evenness", () => {
  it("say how many, how large and when they are firm", async () => {
    const found = {
      batch_g: 710,
      mass_g: 25,
      pieces: 28,
      rest_g: 10,
      across_mm: 34,
      high_mm: 34,
      tray_g: null,
      filling_g: 2,
      sizes: { mass_g: 25, dent_mm: 20, deep_mm: 8 },
      chills_as: { kind: "sphere", diameter_mm: 34 },
      firm: [
        { place: "fridge", least_min: 31, most_min: 44, never: null },
        { place: "freezer", least_min: null, most_min: null, never: "never: too warm there" },
      ],
    };
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path.endsWith("portion") ? found : [])) as never);
    show(<PortionView />, "/?kind=thumbprint");
    expect(await screen.findByText(/Jam: 2\sg each, 56\sg total/)).toBeTruthy();
    expect(screen.getByText("31 min to 44 min")).toBeTruthy();
    expect(screen.getByText("never: too warm there")).toBeTruthy();
    expect(screen.getByRole("textbox", { name: "Dent depth" })).toHaveProperty("value", "8 mm");
  });

  it("mark thin and thick spots by word, and ask for nothing that was not read", async () => {
    const even = {
      mean_mm: 6,
      least_mm: 5,
      most_mm: 7,
      spots: ["thin", null, null, null, null, "thick"],
      map_mm: [5, 6, 6, 7],
      map_cells: 2,
      thin_min: 8,
      thick_min: 10.5,
      one_tray: false,
      advice: [{ text: "Put those apart." }],
    };
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path.endsWith("evenness") ? even : [])) as never);
    show(<EvenView />, "/", {
      ...JOB,
      measured: [{ columns: 2, rows: 3, read_mm: [5, null, null, null, null, 7] }],
    } as Job);
    expect(await screen.findByRole("img", { name: /5\smm thin, 7\smm thick/ })).toBeTruthy();
    expect(screen.getByText("better apart")).toBeTruthy();
    expect(screen.getByRole("textbox", { name: "Thickness, 1 along, 2 down" })).toHaveProperty(
      "value",
      "5 mm",
    );
    expect(screen.getByRole("textbox", { name: "Thickness, 2 along, 1 down" })).toHaveProperty("value", "");
  });
});

describe("a cutter from a photo", () => {
  it("is asked for with the corners where they were laid, approved, and put on the shelf with its pair", async () => {
    const found = {
      on_paper_mm: [
        [10, 10],
        [70, 10],
        [70, 50],
        [10, 50],
      ],
      paper_width_mm: 210,
      paper_height_mm: 297,
      width_mm: 60,
      height_mm: 40,
      area_mm2: 2400,
      neck_mm: 6,
      warning: "Its Narrowest neck is 6.0 mm.",
      picture: "data:image/jpeg;base64,",
    };
    vi.stubGlobal("createImageBitmap", async () => ({ width: 1000, height: 1300, close: () => undefined }));
    vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue({
      drawImage: () => undefined,
    } as never);
    vi.spyOn(HTMLCanvasElement.prototype, "toBlob").mockImplementation((done) =>
      done(new Blob(["x"], { type: "image/jpeg" })),
    );
    URL.createObjectURL = () => "blob:x";
    URL.revokeObjectURL = () => undefined;
    const post = vi
      .spyOn(api, "POST")
      .mockImplementation((async (path: string) =>
        answered(path.endsWith("photo") ? found : CUTTER)) as never);
    const added = vi.fn();
    show(<PhotoCutter onAdded={added} />);
    await userEvent.upload(
      screen.getByLabelText("Photo of the cutter"),
      new File(["x"], "flag.jpg", { type: "image/jpeg" }),
    );
    const corner = await screen.findByRole("slider", { name: "Corner 1" });
    corner.focus();
    await userEvent.keyboard("{Shift>}{ArrowRight}{/Shift}{ArrowDown}");
    expect(corner.getAttribute("aria-valuetext")).toBe("14% across, 12% down");
    await userEvent.click(screen.getByRole("button", { name: "Find the outline" }));
    expect(await screen.findByText("60 mm × 40 mm")).toBeTruthy();
    expect(post.mock.calls[0]?.[1]).toMatchObject({
      params: {
        query: {
          paper: "a4",
          edge: "outside",
          corners: expect.stringMatching(/^0\.14000,0\.12200,0\.88000/),
        },
      },
    });
    expect(screen.getByText(/Narrowest neck/)).toBeTruthy();
    await userEvent.click(screen.getByRole("checkbox", { name: /mirror image/ }));
    await userEvent.click(screen.getByRole("button", { name: "Add cutter" }));
    await waitFor(() => expect(added).toHaveBeenCalledWith(CUTTER));
    expect(
      post.mock.calls.slice(1).map((c) => (c[1] as { body: { name: string; mirrored: boolean } }).body),
    ).toMatchObject([
      { name: "flag", mirrored: false },
      { name: "flag, mirrored", mirrored: true },
    ]);
  });
});

describe("logs and patterned bars", () => {
  const LOG = {
    mass_g: 450,
    length_mm: 205.5,
    width_mm: 48,
    height_mm: 48,
    slice_mm: 6,
    slices: 32,
    short_last_mm: null,
    rest_mm: 3.5,
    slice_mass_g: 13.1,
    ends_g: 30,
    cuts_mm: [5, 11, 17],
    turn_every_min: 15,
    trim_mm: 5,
    longest_mm: 300,
    logs: 1,
    log_g: 450,
  };

  it("tell which measures follow, and print their strip with the measures given", async () => {
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path.endsWith("log") ? LOG : [])) as never);
    show(<LogView />, "/?form=round&mass_g=450&width_mm=48&slice_mm=6");
    expect(await screen.findByRole("img", { name: "Ruler strip of 32 slices" })).toBeTruthy();
    expect(screen.getByRole("textbox", { name: /^(Number of slices|Slices): follows/ })).toHaveProperty(
      "value",
      "32",
    );
    expect(screen.getByRole("textbox", { name: "Dough weight" })).toHaveProperty("value", "450 g");
    expect(screen.getByText("every 15 min")).toBeTruthy();
    expect(screen.getByText(/with 3.5\smm left over/)).toBeTruthy();
    const strip = screen.getByRole("link", { name: "Ruler strip PDF" }).getAttribute("href");
    expect(strip).toBe("/api/jobs/1/log/strip.pdf?form=round&mass_g=450&width_mm=48&slice_mm=6&paper=a4");
  });

  it("show the usual sizes that the server tells, and keep the old bar drawn as what it is while another is asked for", async () => {
    const board = {
      pattern: "checkerboard",
      width_mm: 36,
      height_mm: 36,
      steps: ["Roll both doughs to 12 mm."],
      parts: [
        { dough: "first", what: "strips", count: 5, width_mm: 12, thickness_mm: 12, mass_g: 174 },
        { dough: "second", what: "strips", count: 4, width_mm: 12, thickness_mm: 12, mass_g: 139 },
      ],
      sizes: { length_mm: 200, strips: 3, strip_mm: 12 },
    };
    let asked = 0;
    vi.spyOn(api, "GET").mockImplementation((async (path: string) => {
      if (!path.endsWith("pattern")) return answered([]);
      asked += 1;
      return asked === 1 ? answered(board) : new Promise(() => undefined);
    }) as never);
    show(<PatternView />);
    expect(
      await screen.findByRole("img", { name: /Section of the checkerboard, 36\smm by 36\smm/ }),
    ).toBeTruthy();
    expect(screen.getByRole("textbox", { name: "Strips each way" })).toHaveProperty("value", "3");
    expect(screen.getByText("174 g")).toBeTruthy();
    await userEvent.click(screen.getByRole("radio", { name: "Pinwheel" }));
    expect(screen.getByRole("img", { name: /Section of the checkerboard/ })).toBeTruthy();
    expect(asked).toBe(2);
  });
});

describe("what to do when it goes wrong", () => {
  it("leaves the figures it begins with to the server, shows them, and lists what helps, the quickest in minutes", async () => {
    const queries: unknown[] = [];
    // The strip of views shows what is ready live; nothing is, here.
    vi.stubGlobal(
      "EventSource",
      class extends EventTarget {
        static readonly CLOSED = 2;
        close = () => undefined;
      },
    );
    vi.spyOn(api, "GET").mockImplementation((async (path: string, init: { params: { query: unknown } }) => {
      if (!path.endsWith("advice")) return answered([]);
      queries.push(init.params.query);
      return answered({
        dough_c: 21.94,
        room_c: null,
        ago_min: null,
        headline: { text: "At 21.9\u00b0 it is tacky." },
        caution: { text: "Raw flour is not safe to taste." },
        remedies: [
          {
            what: { text: "Slide it onto a cold tray" },
            why: [{ text: "It is firm again soon." }],
            takes_min: 12,
          },
          { what: { text: "Half at a time" }, why: [{ text: "The rest stays cold." }], takes_min: 0 },
        ],
      });
    }) as never);
    show(<GoesWrong />);
    expect((await screen.findByRole("status")).textContent).toBe("At 21.9\u00b0 it is tacky.");
    expect(screen.getByText("12 min")).toBeTruthy();
    expect(screen.getByText("right away")).toBeTruthy();
    expect(queries[0]).toEqual({ trouble: "too_warm" });
    expect(screen.getByRole<HTMLInputElement>("textbox", { name: "Middle of the dough" }).value).toMatch(
      /^21\.9/,
    );
    await userEvent.click(screen.getByRole("radio", { name: "Power’s out" }));
    await waitFor(() => expect(queries.at(-1)).toEqual({ trouble: "power_out" }));
  });
});

describe("the parts of a figure", () => {
  it("stay both when two are changed one right after the other", async () => {
    vi.spyOn(api, "GET").mockImplementation((async () => answered([])) as never);
    vi.spyOn(api, "POST").mockImplementation((async (_: string, { body }: { body: { text: string } }) =>
      answered({ value: Number.parseFloat(body.text) })) as never);
    const saved: number[][] = [];
    const save = vi.fn((parts: number[]) => {
      saved.push(parts);
      return new Promise<void>(() => undefined);
    });
    show(<Parts parts_g={[20, 8, 2]} field="parts" onSave={save} />);
    for (const [part, text] of [
      ["Part 1", "25"],
      ["Part 2", "9"],
    ] as const) {
      const field = await screen.findByRole("textbox", { name: part });
      await userEvent.clear(field);
      await userEvent.type(field, `${text}{Enter}`);
    }
    await waitFor(() => expect(saved.at(-1)).toEqual([25, 9, 2]));
    await userEvent.click(screen.getByRole("button", { name: "No part 3" }));
    expect(saved.at(-1)).toEqual([25, 9]);
  });
});
