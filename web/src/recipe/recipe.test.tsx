// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, useLocation } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type Answer, type ReadLine } from "../api/client";
import { SettingsProvider } from "../kit/settings";
import { EGGS, eggWord } from "./eggs";
import { Line } from "./Line";
import { ReadPage } from "./ReadPage";

const UNITS = [
  { symbol: "g", quantity: "mass", factor: 1, offset: 0, source: "" },
  { symbol: "oz", quantity: "mass", factor: 28.349523125, offset: 0, source: "" },
  { symbol: "lb", quantity: "mass", factor: 453.59237, offset: 0, source: "" },
];
const INGREDIENTS = [
  { key: "walnut", name: "Chopped walnuts" },
  { key: "butter", name: "Unsalted butter" },
];

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
  vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
    answered(200, path === "/api/units" ? UNITS : INGREDIENTS)) as never);
  vi.spyOn(api, "POST").mockImplementation((async (_: string, { body }: { body: { text: string } }) => {
    if (body.text === "2 oz") return answered(200, { value: 56.7 });
    const message = `“${body.text}” is not understood; try a weight such as 450 g or 1 lb`;
    return answered(422, {
      title: "values",
      status: 422,
      detail: message,
      errors: [{ field: "text", message, accepted: "" }],
    });
  }) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function shown(node: ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <SettingsProvider>
        <ol>{node}</ol>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}

const LINE: ReadLine = {
  number: 3,
  text: "2 cups flour",
  state: "fair",
  ingredient: "flour-ap",
  name: "All-purpose flour",
  grams: 250,
  bakers_percent: 100,
  confidence: 0.75,
  why: [
    { text: "Read as all-purpose flour." },
    { text: "A cup of all-purpose flour, spooned and levelled, is 125 g." },
  ],
  note: "sifted",
  ask: null,
  doubt: "",
  options: [],
};
const ASKS: ReadLine = {
  ...LINE,
  text: "a handful of walnuts",
  state: "asks",
  ingredient: "walnut",
  name: "Chopped walnuts",
  grams: null,
  bakers_percent: null,
  confidence: 0,
  ask: { text: "What does a handful of chopped walnuts weigh?" },
  doubt: "no_amount",
};
const ignore = () => undefined;

describe("a line as read", () => {
  it("says what it is, what it weighs, how sure that is and why", () => {
    shown(<Line line={LINE} answered={false} onAnswer={ignore} onAgain={ignore} />);
    const item = screen.getAllByRole("listitem")[0] as HTMLElement;
    expect(item.textContent).toContain("All-purpose flour, sifted");
    expect(item.textContent).toContain("250\u00a0g");
    expect(item.textContent).toMatch(/100\.0%/);
    expect(item.textContent).toContain("2 cups flour, 75% sure");
    expect(item.textContent).toMatch(/spooned and levelled, is 125\sg/);
    expect(within(item).getByRole("img", { name: "likely" })).toBeTruthy();
  });

  it("is left out at a press and asked again at another", async () => {
    const given: Answer[] = [];
    const again = vi.fn();
    const { unmount } = shown(
      <Line line={LINE} answered={false} onAnswer={(a) => given.push(a)} onAgain={again} />,
    );
    await userEvent.click(screen.getByText("Leave it out"));
    expect(given).toEqual([{ line: 3, leave_out: true, as_read: false }]);
    unmount();
    shown(<Line line={{ ...LINE, state: "left_out" }} answered onAnswer={ignore} onAgain={again} />);
    await userEvent.click(screen.getByText("Ask again"));
    expect(again).toHaveBeenCalledOnce();
  });

  it("shows headings and notes as what they are", () => {
    shown(
      <>
        <Line
          line={{ ...LINE, state: "heading", text: "For the dough:" }}
          answered={false}
          onAnswer={ignore}
          onAgain={ignore}
        />
        <Line
          line={{ ...LINE, state: "note", text: "Makes 24" }}
          answered={false}
          onAnswer={ignore}
          onAgain={ignore}
        />
      </>,
    );
    expect(screen.getByText("For the dough")).toBeTruthy();
    expect(screen.queryByRole("img")).toBeNull();
  });
});

describe("a line that asks", () => {
  it("shows no weight and takes one as it is typed", async () => {
    const given: Answer[] = [];
    shown(<Line line={ASKS} answered={false} onAnswer={(a) => given.push(a)} onAgain={ignore} />);
    expect(screen.getByText("What does a handful of chopped walnuts weigh?")).toBeTruthy();
    const field = screen.getByRole("textbox", { name: "Weight of a handful of walnuts" });
    expect(screen.getByRole("button", { name: "Use this" })).toHaveProperty("disabled", true);
    await userEvent.type(field, "2 oz{Enter}");
    await vi.waitFor(() =>
      expect(given).toEqual([{ line: 3, grams: 56.7, leave_out: false, as_read: false }]),
    );
  });

  it("keeps what is not understood and says what would be", async () => {
    shown(<Line line={ASKS} answered={false} onAnswer={ignore} onAgain={ignore} />);
    const field = screen.getByRole("textbox", { name: /Weight of/ });
    await userEvent.type(field, "lots{Enter}");
    expect((await screen.findByRole("alert")).textContent).toMatch(/try a weight such as 450\sg/);
    expect(field).toHaveProperty("value", "lots");
  });

  it("offers what it might be, and all of the pantry, only when the name is in doubt", async () => {
    const given: Answer[] = [];
    const answer = { line: 3, ingredient: "butter", leave_out: false, as_read: false };
    const line: ReadLine = {
      ...ASKS,
      doubt: "strange_word",
      ask: { text: "Is it butter?" },
      options: [{ label: { text: "Unsalted butter" }, answer }],
    };
    const { unmount } = shown(
      <Line line={line} answered={false} onAnswer={(a) => given.push(a)} onAgain={ignore} />,
    );
    await userEvent.click(screen.getByRole("button", { name: "Unsalted butter" }));
    await screen.findByRole("option", { name: "Chopped walnuts" });
    await userEvent.selectOptions(screen.getByRole("combobox"), "walnut");
    expect(given).toEqual([answer, { line: 3, ingredient: "walnut", leave_out: false, as_read: false }]);
    unmount();
    shown(<Line line={ASKS} answered={false} onAnswer={ignore} onAgain={ignore} />);
    expect(screen.queryByRole("combobox")).toBeNull();
  });

  it("asks only yes or leave out when the amount is unlikely", () => {
    const answer = { line: 3, leave_out: false, as_read: true };
    shown(
      <Line
        line={{ ...ASKS, doubt: "unlikely", options: [{ label: { text: "That’s right" }, answer }] }}
        answered={false}
        onAnswer={ignore}
        onAgain={ignore}
      />,
    );
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.getByRole("button", { name: "That’s right" })).toBeTruthy();
    expect(screen.getByRole("button", { name: "Leave it out" })).toBeTruthy();
  });
});

describe("egg sizes", () => {
  it("stand as on the box", () => {
    expect(EGGS.map(eggWord)).toEqual([
      "US small",
      "US medium",
      "US large",
      "US extra-large",
      "US jumbo",
      "EU small",
      "EU medium",
      "EU large",
      "EU extra-large",
    ]);
  });
});

function Address() {
  const { pathname, search } = useLocation();
  return <output data-testid="address">{pathname + search}</output>;
}

describe("a recipe that is kept as soon as it is typed", () => {
  it("is kept as it stands, not as it was last read", async () => {
    const kept: unknown[] = [];
    vi.spyOn(api, "POST").mockImplementation((async (path: string, { body }: { body: { text: string } }) => {
      if (path === "/api/formulas") {
        kept.push(body);
        return answered(200, { id: 9, ...body });
      }
      const lines = body.text.trim().split("\n");
      const formula = { name: "Ferry slices", lines: lines.map((text) => ({ ingredient: text, grams: 1 })) };
      return answered(200, {
        format: "text",
        lines: [],
        faults: [],
        formula,
        known_g: 1,
        open: 0,
        steps: [],
        cup_of_flour_g: [],
        pieces: 40,
        says: {},
        heard: [],
        finishes: [{ kind: "royal" }],
        finish_names: ["Royal icing"],
      });
    }) as never);
    sessionStorage.clear();
    shown(
      <MemoryRouter>
        <ReadPage />
        <Address />
      </MemoryRouter>,
    );
    const user = userEvent.setup();
    const field = screen.getByRole("textbox", { name: "Recipe" });
    await user.type(field, "360 g flour{Enter}240 g butter");
    await user.keyboard("{Enter}3 g salt{Control>}{Enter}{/Control}");
    await vi.waitFor(() => expect(kept).toHaveLength(1));
    expect((kept[0] as { lines: unknown[] }).lines).toHaveLength(3);
    // What goes on goes with it to the new job; how many it makes is kept with the recipe.
    await vi.waitFor(() =>
      expect(screen.getByTestId("address").textContent).toBe(
        `/new?recipe=9&finish=${encodeURIComponent('[{"kind":"royal"}]')}`,
      ),
    );
    expect(screen.getByText("royal icing")).toBeTruthy();
    // Another press while nothing stands there keeps nothing.
    await user.clear(field);
    await user.keyboard("{Control>}{Enter}{/Control}");
    expect(kept).toHaveLength(1);
  });
});
