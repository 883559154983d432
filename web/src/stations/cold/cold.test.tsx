// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, renderHook, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRef, type ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type LivePiece, type PieceNow, type Section, type Way, type Window } from "../../api/client";
import { foremost, setSound, turned, useAlerts } from "../../app/alerts";
import { atMoment, useLive } from "../../app/live";
import { LivePage } from "../../app/LivePage";
import { nightScale } from "../../drawing/scale";
import { makeFormat } from "../../drawing/units";
import { SettingsProvider } from "../../kit/settings";
import { ChillBar } from "./ChillBar";
import { bandsOf } from "./Ground";
import { LiveCurve } from "./LiveCurve";
import { freeName } from "./PutIn";
import { Readings } from "./Readings";
import { Ribbons } from "./Ribbons";
import { SectionPicture } from "./SectionPicture";
import { clockOf, formWords, leftWords, placeWords, stateWords } from "./words";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const WINDOW: Window = {
  rolls_from_c: 10.6,
  rolls_to_c: 19,
  tacky_to_c: 26.3,
  slices_to_c: 12.6,
  slices_from_c: -2.7,
  oven_ready_c: 13.3,
  slices_best_c: 8,
};
const NOW: PieceNow = {
  id: 7,
  now_at: "2026-11-28T12:40:00.000Z",
  elapsed_min: 14,
  core_c: 19.8,
  mean_c: 18.5,
  side: "too_warm",
  cold_rule: { text: "2 hours in total" },
  word: "tacky",
  left_min: 5,
  out_of_cold_min: 0,
};
const PIECE: LivePiece = {
  id: 7,
  job_id: 1,
  job_name: "Regatta gulls",
  name: "Disc 1",
  piece: { kind: "disc", thickness_mm: 22, diameter_mm: 182 },
  purpose: "rolling",
  start_c: 21.9,
  clock_speed: 1,
  put_in_at: "2026-11-28T12:26:00.000Z",
  ended_at: null,
  taught: false,
  left_out: false,
  probe: null,
  stays: [
    {
      place: "fridge",
      busy: false,
      from_min: 0,
      air_c: 4,
      air_within_k: 1.5,
      film_factor: [0.8, 1, 1.25],
      readings: 1,
    },
  ],
  now: NOW,
  ready_after_min: 19,
  ready_earliest_min: 17,
  ready_latest_min: 21,
  past_after_min: 70,
  never: null,
  window: WINDOW,
  curve: [0, 20, 40, 70, 80].map((m) => ({
    after_min: m,
    warmest_c: 22 - m / 8,
    coldest_c: 20 - m / 8,
    mean_c: 21 - m / 8,
    surface_c: 20 - m / 8,
    softest_c: 22.5 - m / 8,
    felt_c: 21.5 - m / 8,
  })),
  readings: [
    {
      id: 1,
      read_at: "2026-11-28T12:36:00.000Z",
      after_min: 10,
      shows_c: 20.6,
      spot: "core",
      set_aside: false,
      simulated: false,
    },
    {
      id: 2,
      read_at: "2026-11-28T12:38:00.000Z",
      after_min: 12,
      shows_c: 38.2,
      spot: "core",
      set_aside: true,
      simulated: false,
    },
  ],
  readings_total: 2,
  said: [{ text: "One reading so far." }],
};
const like = (change: Partial<LivePiece>, now: Partial<PieceNow> = {}): LivePiece => ({
  ...PIECE,
  ...change,
  now: { ...NOW, id: change.id ?? 7, ...now },
});
const READY = like({}, { side: "ready", word: "rolls clean", elapsed_min: 30, left_min: -11 });

function answered(status: number, body: unknown): never {
  const response = new Response(null, { status });
  return (status === 200 ? { data: body, response } : { error: body, response }) as never;
}

function Around({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>
        <MemoryRouter>{children}</MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>
  );
}

/** As the frame of the program uses both. */
function useBoth({ pieces }: { pieces: LivePiece[] }): void {
  useLive();
  useAlerts(pieces);
}

/** Minutes of the day of `14:05`. */
const minutes = (text: string): number => Number(text.split(":")[0]) * 60 + Number(text.split(":")[1]);

const way = (key: string, place: Way["place"], ready: number | null): Way => ({
  key,
  name: { text: key },
  piece: { kind: "disc", thickness_mm: 22, diameter_mm: 182 },
  count: 1,
  place,
  purpose: "rolling",
  ready_after_min: ready,
  ready_earliest_min: null,
  ready_latest_min: null,
  past_after_min: ready === null ? null : ready * 4,
  never: ready === null ? { text: "never: too warm there" } : null,
  told:
    ready === null
      ? null
      : { ready_min: ready, best_min: ready, earliest_min: ready, latest_min: ready, past_min: ready * 4 },
  spells: [
    { side: "too_warm", word: "tacky", from_min: 0, to_min: ready },
    ...(ready === null
      ? []
      : [{ side: "ready" as const, word: "rolls clean", from_min: ready, to_min: null }]),
  ],
  after_night_min: 14,
  hands_before_min: 2,
  hands_after_min: 4,
  effort: "press flat",
  chosen: place === "fridge",
});

/** A stream whose events the test sends. */
class Stream extends EventTarget {
  static readonly CLOSED = 2;
  static opened: Stream[] = [];
  readyState = 1;
  constructor() {
    super();
    Stream.opened.push(this);
  }
  send(name: string, data: unknown): void {
    this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify(data) }));
  }
  close(): void {
    this.readyState = Stream.CLOSED;
  }
}

beforeEach(() => {
  localStorage.clear();
  Stream.opened = [];
  vi.stubGlobal("EventSource", Stream);
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
  vi.spyOn(api, "GET").mockImplementation((async () => answered(200, [])) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe("a followed piece in words", () => {
  it("says state and time left as a colleague would", () => {
    expect([stateWords(PIECE), leftWords(PIECE)]).toEqual(["Not ready yet", "5\u00a0min left"]);
    expect([stateWords(READY), leftWords(READY)]).toEqual(["Ready to roll", "good for 40\u00a0min more"]);
    expect(stateWords(like({ purpose: "slicing" }, { side: "ready" }))).toBe("Ready to slice");
    expect(leftWords(like({ past_after_min: null }, { side: "ready" }))).toBe("stays ready");
    const out = like({}, { side: "too_warm", left_min: -60 });
    expect([stateWords(out), leftWords(out)]).toEqual(["Too warm", "overdue"]);
    const never = like(
      { never: { text: "never: the place is at 19.0°" }, ready_after_min: null },
      { left_min: null },
    );
    expect([stateWords(never), leftWords(never)]).toEqual(["Too warm", "won’t be ready here"]);
    expect(leftWords(like({}, { left_min: 0.4 }))).toBe("under a minute");
    expect(stateWords(like({}, { side: "too_cold" }))).toBe("Too cold");
  });

  it("says form and place, and a time by its own clock", () => {
    const format = makeFormat("metric", []);
    expect(formWords({ kind: "log", diameter_mm: 50 }, format)).toBe("log, 50\u00a0mm across");
    expect(formWords({ kind: "stack", thickness_mm: 6, count: 3 }, format)).toBe(
      "stack of 3, 6\u00a0mm each",
    );
    expect(formWords({ kind: "sphere", diameter_mm: 35 }, format)).toBe("dough ball, 35\u00a0mm across");
    const busy = { ...PIECE.stays[0]!, busy: true };
    expect([
      placeWords(PIECE),
      placeWords(like({ stays: [busy] })),
      placeWords(like({ stays: [{ ...busy, place: "bench" }] })),
    ]).toEqual(["in the fridge", "in the busy fridge", "on the bench"]);
    // Sixty times as fast, an hour of its clock is a minute of ours.
    const fast = like({ clock_speed: 60 });
    expect(minutes(clockOf(fast, 60)) - minutes(clockOf(fast, 0))).toBe(1);
    expect(minutes(clockOf(PIECE, 60)) - minutes(clockOf(PIECE, 0))).toBe(60);
  });

  it("takes the first name that is free", () => {
    expect(freeName("Disc", [])).toBe("Disc 1");
    expect(freeName("Disc", ["Disc 1", "Log 2", "Disc 3"])).toBe("Disc 2");
  });
});

describe("the live stream", () => {
  it("holds the newest pieces, takes moments in, says when the connection is lost and opens anew", () => {
    vi.useFakeTimers();
    const { result } = renderHook(() => useLive());
    const stream = () => Stream.opened.at(-1)!;
    act(() => stream().send("pieces", [PIECE]));
    expect(result.current.pieces?.[0]?.now.core_c).toBe(19.8);
    act(() =>
      stream().send("now", [
        { ...NOW, core_c: 19.1 },
        { ...NOW, id: 99 },
      ]),
    );
    expect(result.current.pieces?.map((p) => p.now.core_c)).toEqual([19.1]);
    act(() => {
      stream().close();
      stream().dispatchEvent(new Event("error"));
    });
    expect(result.current).toMatchObject({ connected: false, pieces: [{ id: 7 }] });
    act(() => void vi.advanceTimersByTime(2500));
    expect(Stream.opened).toHaveLength(2);
    act(() => stream().send("pieces", []));
    expect(result.current).toEqual({ connected: true, pieces: [] });
    vi.useRealTimers();
  });

  it("is shared by the pages of one browser: one asks, the others are told, and another takes over", async () => {
    const posted: unknown[] = [];
    let hear: ((e: { data: unknown }) => void) | undefined;
    class Channel {
      addEventListener = (_: string, heard: (e: { data: unknown }) => void) => {
        hear = heard;
      };
      postMessage = (message: unknown) => posted.push(message);
      close = () => undefined;
    }
    let grant: (() => unknown) | undefined;
    const locks = {
      request: (_name: string, _options: unknown, granted: () => unknown) => {
        grant = granted;
        return Promise.resolve();
      },
    };
    vi.stubGlobal("BroadcastChannel", Channel);
    vi.stubGlobal("navigator", Object.assign(Object.create(navigator) as Navigator, { locks }));
    const { result, unmount } = renderHook(() => useLive());
    expect([Stream.opened.length, posted]).toEqual([0, ["hello"]]);
    act(() => hear?.({ data: { pieces: [PIECE], connected: true } }));
    expect(result.current.pieces).toHaveLength(1);
    // The page that held the stream is closed.
    act(() => void grant?.());
    expect(Stream.opened).toHaveLength(1);
    act(() => Stream.opened[0]!.send("pieces", []));
    expect(posted.at(-1)).toEqual({ pieces: [], connected: true });
    hear?.({ data: "hello" });
    expect(posted).toHaveLength(3);
    unmount();
    expect(Stream.opened[0]?.readyState).toBe(Stream.CLOSED);
  });

  it("leaves pieces alone that a moment does not speak of", () => {
    expect(atMoment([PIECE], [])).toEqual([PIECE]);
  });
});

describe("telling", () => {
  it("speaks first of what is ready, then of what is ready next", () => {
    const later = like({ id: 8, name: "Disc 2" }, { left_min: 30 });
    const fast = like({ id: 9, name: "Log 1", clock_speed: 60 }, { left_min: 60 });
    expect(foremost([later, PIECE])?.id).toBe(7);
    expect(foremost([later, PIECE, fast])?.id).toBe(9);
    expect(foremost([later, READY])?.id).toBe(7);
    expect(foremost([])).toBeUndefined();
  });

  it("tells only what turned since it was last looked at", () => {
    expect(turned(new Map(), [READY])).toEqual({ ready: [], past: [] });
    expect(turned(new Map([[7, "too_warm"]]), [READY]).ready).toHaveLength(1);
    expect(turned(new Map([[7, "ready"]]), [PIECE]).past).toHaveLength(1);
    expect(turned(new Map([[7, "ready"]]), [READY])).toEqual({ ready: [], past: [] });
  });

  it("notifies, sounds and writes the tab's title when a piece gets ready, and is silent when muted", () => {
    const told: string[] = [];
    class Told {
      static permission = "granted";
      constructor(title: string) {
        told.push(title);
      }
      addEventListener(): void {
        told.push("same network");
      }
    }
    const started = vi.fn();
    const gain = {
      gain: { setValueAtTime: vi.fn(), exponentialRampToValueAtTime: vi.fn() },
      connect: vi.fn(),
    };
    class Audio {
      currentTime = 0;
      destination = {};
      resume = async () => undefined;
      createGain = () => gain;
      createOscillator = () => ({
        frequency: { value: 0 },
        connect: () => gain,
        start: started,
        stop: vi.fn(),
      });
    }
    vi.stubGlobal("Notification", Told);
    vi.stubGlobal("AudioContext", Audio);
    const { rerender } = renderHook(useBoth, { initialProps: { pieces: [PIECE] } });
    expect(document.title).toMatch(/^Disc 1: 5\smin left · /);
    expect(told).toEqual([]);
    rerender({ pieces: [READY] });
    expect(told).toContain("Disc 1: ready to roll");
    expect(document.title).toMatch(/^Ready: Disc 1 · /);
    expect(started).toHaveBeenCalled();
    setSound("none");
    started.mockClear();
    rerender({ pieces: [PIECE] });
    expect(started).not.toHaveBeenCalled();
    expect(localStorage.getItem("sound")).toBe("none");
  });
});

describe("how long a chill lasts", () => {
  const told = { ready_min: 25, latest_min: 28, best_min: 33, earliest_min: 20, past_min: 98 };
  const bar = (over: Partial<Parameters<typeof ChillBar>[0]["told"]>) => {
    const { container } = render(<ChillBar told={{ ...told, ...over }} />);
    const words = screen.getAllByRole("listitem").map((li) => li.textContent?.replaceAll("\u00a0", " "));
    const lengths = [...container.querySelectorAll<HTMLElement>("[style]")].map((s) => s.style.flexGrow);
    return [words, lengths];
  };

  it("is parts of a bar that add up to it", () => {
    expect(bar({})).toEqual([
      ["25 min to chill", "3 min to be sure", "1 h 10 min good"],
      ["25", "3", "70"],
    ]);
  });

  it("has no part that lasts no time, nor an end where there is none within a day", () => {
    expect(bar({ latest_min: 25, past_min: null })).toEqual([["25 min to chill"], ["25"]]);
  });
});

describe("the pictures of the cold", () => {
  it("bands go on without a gap, whatever the piece is for", () => {
    for (const purpose of ["rolling", "slicing", "oven"] as const) {
      const bands = bandsOf(WINDOW, purpose);
      bands.slice(1).forEach((b, i) => expect(b.to).toBe(bands[i]?.from));
    }
  });

  it("a night and five minutes both have room", () => {
    const x = nightScale(960, [0, 800]);
    expect([x(0), x(960)]).toEqual([0, 800]);
    expect(x(5)).toBeGreaterThan(40);
    expect(x(960) - x(480)).toBeGreaterThan(80);
    expect(x(2000)).toBe(800);
  });

  it("draw a piece's run with its readings, the set aside one as a cross", () => {
    const { container } = render(<LiveCurve picture={createRef()} piece={PIECE} />, { wrapper: Around });
    expect(screen.getByTitle(/Disc 1: Not ready yet/)).toBeTruthy();
    expect(container.querySelectorAll("svg[role=img] circle.stroke-spruce")).toHaveLength(1);
    expect(container.querySelectorAll("svg[role=img] path.stroke-warm")).toHaveLength(1);
    expect(container.textContent).toContain("now 19.8°");
  });

  it("ribbons say when each way is ready and are chosen by keyboard", async () => {
    const onChoose = vi.fn();
    render(
      <Ribbons
        picture={createRef()}
        ways={[way("disc-freezer", "freezer", 11), way("disc-fridge", "fridge", null)]}
        night={[480, 840]}
        inAt="2026-11-28T12:21"
        chosen="disc-freezer"
        onChoose={onChoose}
      />,
      { wrapper: Around },
    );
    const first = screen.getByRole("radio", {
      name: "Disc, 22\u00a0mm, freezer: ready 12:32, after 11\u00a0min, too cold after 44\u00a0min",
    });
    expect(first.getAttribute("aria-checked")).toBe("true");
    expect(screen.getByRole("radio", { name: /never: too warm there/ })).toBeTruthy();
    first.focus();
    await userEvent.keyboard("{ArrowDown}");
    expect(onChoose).toHaveBeenCalledWith("disc-fridge");
  });

  it("the inside is drawn cell by cell, halves mirrored, logs in rings", () => {
    const base: Section = {
      way: way("disc-fridge", "fridge", 20),
      kind: "halved",
      width_mm: 182,
      height_mm: 22,
      window: WINDOW,
      frames: [
        {
          after_min: 0,
          layers_c: [
            [20, 18],
            [21, 19],
            [20, 18],
          ],
        },
      ],
    };
    const { container, rerender } = render(
      <SectionPicture picture={createRef()} section={base} frame={9} purpose="rolling" />,
      { wrapper: Around },
    );
    expect(container.querySelectorAll("rect[fill-opacity]")).toHaveLength(12);
    expect(container.textContent).toContain("21°");
    expect(screen.getByTitle(/Inside after 0 minutes: from 18° to 21°/)).toBeTruthy();
    rerender(
      <SectionPicture
        picture={createRef()}
        section={{ ...base, kind: "rings", frames: [{ after_min: 5, layers_c: [[20, 19, 14]] }] }}
        frame={0}
        purpose="slicing"
      />,
    );
    expect(container.querySelectorAll("circle[fill-opacity]")).toHaveLength(3);
    expect(container.textContent).toContain("14°");
  });
});

describe("the live page", () => {
  it("tells state, time left and temperature of each piece, and what to do when there is none", () => {
    render(<LivePage />, { wrapper: Around });
    act(() =>
      Stream.opened
        .at(-1)!
        .send("pieces", [
          PIECE,
          like({ id: 8, name: "Log 1" }, { side: "ready", elapsed_min: 30, out_of_cold_min: 75 }),
        ]),
    );
    const first = within(screen.getByRole("listitem", { name: "Disc 1" }));
    expect(first.getByText("Not ready yet")).toBeTruthy();
    expect(first.getByText("5 min left")).toBeTruthy();
    expect(first.getByText("19.8°")).toBeTruthy();
    expect(
      within(screen.getByRole("listitem", { name: "Log 1" })).getByText(/1\sh\s15\smin out of the fridge/),
    ).toBeTruthy();
    act(() => Stream.opened.at(-1)!.send("pieces", []));
    expect(screen.getByText("Nothing is chilling.")).toBeTruthy();
  });
});

describe("a reading by hand", () => {
  it("stays in its field with its fault when it is refused", async () => {
    const message = "Use −40 to 45 °C. You typed 68 °C. Did you mean 68°F?";
    vi.spyOn(api, "POST").mockImplementation((async (path: string) =>
      path === "/api/units/parse"
        ? answered(200, { value: 68, quantity: "temperature" })
        : answered(422, {
            title: "",
            status: 422,
            detail: "",
            errors: [{ field: "readings[0].shows_c", message, accepted: "" }],
          })) as never);
    render(<Readings piece={PIECE} />, { wrapper: Around });
    await userEvent.type(screen.getByLabelText("Reading"), "68");
    await userEvent.click(screen.getByRole("button", { name: "Save" }));
    expect((await screen.findByRole("alert")).textContent).toContain("Did you mean 68°F?");
    expect((screen.getByLabelText("Reading") as HTMLInputElement).value).toBe("68");
  });
});
