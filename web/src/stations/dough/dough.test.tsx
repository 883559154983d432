// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRef, type ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, Refusal, type Beside, type Character, type Job } from "../../api/client";
import { SettingsProvider } from "../../kit/settings";
import { Price } from "../../pantry/Price";
import { MakeUp } from "./MakeUp";
import { SchoolMap } from "./SchoolMap";
import { Tints } from "../../kit/Tints";
import { Traits } from "./Traits";

// The width of the page is asked for as soon as the pictures are read in.
vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const judged = (word: string, level: number) => ({
  word,
  level,
  reasons: [{ text: `${word}, since it is so.` }],
});
const OWN: Character = {
  name: "Lemon-thyme",
  formula_id: 1,
  ratio_sugar: 0.84,
  ratio_flour: 2.04,
  placed_flour: 2.04,
  school: { text: "A firm cut-out." },
  balance: { fat: 0.2, sugar: 0.2, starch: 0.37, protein: 0.06, water: 0.15, rest: 0.02 },
  density_kg_m3: 1210,
  packing: 0.79,
  handling: judged("right to roll", 0.3),
  spread: judged("spreads", 0.4),
  spread_round_mm: 65,
  spread_least_percent: 7.2,
  spread_most_percent: 15.4,
  browning: judged("turns golden on time", 0.4),
  tenderness: judged("tender", 0.5),
  warnings: [],
};
const OTHER: Character = {
  ...OWN,
  name: "Honey-oat",
  ratio_sugar: 2,
  ratio_flour: 3,
  placed_flour: 3,
  balance: { ...OWN.balance, fat: 0.25, starch: 0.32 },
  handling: judged("soft", 0.6),
};
const BESIDE: Beside = {
  own: OWN,
  neighbour: OTHER,
  differences: [],
  dryness_lines: [0.65, 0.8, 1.2],
  schools: [
    { name: "1 : 1 : 3 by cups", sugar: 0.88, flour: 1.65, known_for: "holds" },
    { name: "1 : 2 : 3 by cups", sugar: 1.76, flour: 1.65, known_for: "sweet" },
  ],
  neighbours: [],
};

function answered(status: number, body: unknown): never {
  const response = new Response(null, { status });
  return (status === 200 ? { data: body, response } : { error: body, response }) as never;
}

beforeEach(() => {
  localStorage.clear();
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
});

function shown(node: ReactNode) {
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>{node}</SettingsProvider>
    </QueryClientProvider>,
  );
}

const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);

const widths = (svg: SVGSVGElement, y: string) =>
  [...svg.querySelectorAll(`rect[y="${y}"]`)]
    .filter((r) => r.getAttribute("fill") !== "none")
    .map((r) => Number(r.getAttribute("width")));

describe("the slabs", () => {
  it("are as wide as each other, their parts as wide as their share", () => {
    const picture = createRef<SVGSVGElement>();
    shown(<MakeUp picture={picture} own={OWN} neighbour={OTHER} />);
    const svg = picture.current as SVGSVGElement;
    const [own, other] = [widths(svg, "26"), widths(svg, "132")];
    expect(sum(own)).toBeCloseTo(800, 6);
    expect(sum(other)).toBeCloseTo(800, 6);
    expect(own[0]).toBeCloseTo(160, 6);
    expect(other[0]).toBeCloseTo(200, 6);
    expect(screen.getByRole("img").getAttribute("aria-labelledby")).toContain("makeup-desc");
    expect(svg.querySelector("desc")?.textContent).toContain("Lemon-thyme: fat 20 percent");
    expect(svg.querySelector("desc")?.textContent).toContain("Honey-oat: fat 25 percent");
  });

  it("name the parts too narrow for a word beside the picture", () => {
    shown(<MakeUp picture={createRef()} own={OWN} neighbour={OTHER} />);
    expect(screen.getByText("fiber, ash 2%")).toBeTruthy();
  });
});

describe("the map of schools", () => {
  it("puts more flour higher and more sugar to the right, and says the figures", () => {
    const picture = createRef<SVGSVGElement>();
    shown(<SchoolMap picture={picture} beside={BESIDE} />);
    const svg = picture.current as SVGSVGElement;
    const [neighbour, own] = [...svg.querySelectorAll("circle")].map(
      (c) => [Number(c.getAttribute("cx")), Number(c.getAttribute("cy"))] as const,
    );
    expect(neighbour?.[0]).toBeGreaterThan(own?.[0] ?? 0);
    expect(neighbour?.[1]).toBeLessThan(own?.[1] ?? 0);
    expect(svg.querySelector("desc")?.textContent).toBe(
      "Lemon-thyme has 0.84 of sugar and 2.04 of flour to 1 of butter by weight; Honey-oat 2 and 3.",
    );
  });

  it("grows its axes with a dough beyond the schools", () => {
    const far = { ...BESIDE, own: { ...OWN, ratio_sugar: 3.4, ratio_flour: 6.1, placed_flour: 6.1 } };
    const picture = createRef<SVGSVGElement>();
    shown(<SchoolMap picture={picture} beside={far} />);
    for (const circle of (picture.current as SVGSVGElement).querySelectorAll("circle")) {
      expect(Number(circle.getAttribute("cx"))).toBeLessThanOrEqual(386);
      expect(Number(circle.getAttribute("cy"))).toBeGreaterThanOrEqual(14);
    }
  });
});

describe("the judgements", () => {
  it("give the word, the spread in percent, the neighbour's word to a reader, and why", () => {
    shown(<Traits beside={BESIDE} />);
    expect(screen.getByText("spreads, 7.2–15.4%")).toBeTruthy();
    expect(
      screen.getByRole("img", { name: /^(Handling|Feel): right to roll; Honey-oat: soft/ }),
    ).toBeTruthy();
    expect(screen.getByText("tender, since it is so.")).toBeTruthy();
  });
});

/** Stands in for the server: it reads one share. */
const reads = () =>
  vi.spyOn(api, "POST").mockImplementation((async (_: string, { body }: { body: { text: string } }) =>
    body.text === "20%"
      ? answered(200, { value: 20 })
      : answered(422, {
          title: "",
          status: 422,
          detail: "",
          errors: [{ field: "text", message: "that is not understood", accepted: "" }],
        })) as never);

describe("tints", () => {
  it("are added with their share, and a refusal stays beside them", async () => {
    reads();
    const kept: NonNullable<Job["tints"]>[] = [];
    const save = vi.fn(async (tints: NonNullable<Job["tints"]>) => {
      if (tints.length > 1)
        throw new Refusal({
          title: "",
          status: 422,
          detail: "",
          errors: [{ field: "tints", message: "120% together is too much", accepted: "" }],
        });
      kept.push(tints);
    });
    const { rerender } = shown(<Tints of="the dough" field="tints" tints={[]} onSave={save} />);
    await userEvent.type(screen.getByRole("textbox", { name: "Color" }), "red");
    await userEvent.type(screen.getByRole("textbox", { name: "Share of the dough" }), "20%");
    await userEvent.click(screen.getByRole("button", { name: "Add" }));
    await vi.waitFor(() => expect(kept).toEqual([[{ name: "red", percent: 20 }]]));
    rerender(
      <QueryClientProvider client={new QueryClient()}>
        <SettingsProvider>
          <Tints of="the dough" field="tints" tints={[{ name: "red", percent: 20 }]} onSave={save} />
        </SettingsProvider>
      </QueryClientProvider>,
    );
    await userEvent.type(screen.getByRole("textbox", { name: "Color" }), "blue");
    await userEvent.type(screen.getByRole("textbox", { name: "Share of the dough" }), "20%");
    await userEvent.click(screen.getByRole("button", { name: "Add" }));
    expect((await screen.findByRole("alert")).textContent).toMatch(/120% together/);
    expect(screen.getByRole("textbox", { name: "Color" })).toHaveProperty("value", "blue");
  });
});

describe("a price", () => {
  it("is kept with point or comma, forgotten when empty, and refused with an example", async () => {
    const sent: unknown[] = [];
    vi.spyOn(api, "PUT").mockImplementation((async (_: string, { body }: { body: unknown }) => {
      sent.push(body);
      return answered(200, {});
    }) as never);
    shown(<Price ingredient="butter" name="Unsalted butter" price={9.2} currency="€" />);
    const field = screen.getByRole("textbox", { name: "Price of a kilogram of Unsalted butter" });
    expect(field).toHaveProperty("value", "9.20");
    await userEvent.clear(field);
    await userEvent.type(field, "€ 10,50{Enter}");
    await vi.waitFor(() => expect(sent).toEqual([{ price_per_kg: 10.5 }]));
    await userEvent.clear(field);
    await userEvent.type(field, "{Enter}");
    await vi.waitFor(() => expect(sent).toEqual([{ price_per_kg: 10.5 }, { price_per_kg: null }]));
    await userEvent.type(field, "dear{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("Type a price, like 9.50");
    expect(sent).toHaveLength(2);
  });
});
