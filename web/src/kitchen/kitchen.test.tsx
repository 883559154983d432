// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type Kitchen } from "../api/client";
import { SettingsProvider } from "../kit/settings";
import { OvenPage } from "./OvenPage";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const KITCHEN = {
  name: "Tern Street Bakehouse",
  preheat_min: 20,
  recovery_min: 1.5,
  door_dip_k: 15,
  altitude_m: 0,
  oven_readings: [],
  hot_spots: null,
  cover_pot: false,
} as unknown as Kitchen;
const SAYS = {
  hotter_k: [-6.2, null, null, null, null, null, null, null, null, null, null, 7.4],
  range_k: 13.6,
  advice: "The door side is hotter; its places lie within ± 7°.",
  shades: ["white", "straw", "golden", "brown", "dark"],
  looks: ["#e6d3a5", "#dcbf86", "#c9924f", "#a5734a", "#7d5a44"],
};

let kitchen: Kitchen;
const sent: Partial<Kitchen>[] = [];
const answered = (data: unknown): never => ({ data, response: new Response(null, { status: 200 }) }) as never;

beforeEach(() => {
  kitchen = KITCHEN;
  sent.length = 0;
  vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
    answered(
      path === "/api/units"
        ? []
        : path === "/api/kitchen/pot-cautions"
          ? ["Never leave it unattended."]
          : kitchen,
    )) as never);
  vi.spyOn(api, "POST").mockImplementation((async () => answered(SAYS)) as never);
  vi.spyOn(api, "PATCH").mockImplementation((async (_: string, init: { body: Partial<Kitchen> }) => {
    sent.push(init.body);
    kitchen = { ...kitchen, ...init.body };
    return answered(kitchen);
  }) as never);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

async function shown(): Promise<ReturnType<typeof userEvent.setup>> {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>
        <MemoryRouter>
          <OvenPage />
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
  await screen.findByText(/Oven dials are often wrong/);
  return userEvent.setup();
}

const last = (): HTMLElement => screen.getByRole("button", { name: /^row 3 from the back, 4 from the left/ });

const stream = (events: readonly [string, unknown][]): Response =>
  new Response(events.map(([name, data]) => `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`).join(""), {
    status: 200,
  });

describe("the oven as a thing", () => {
  it("takes over what the stand-in thermometer found: the setting, the swing, the door and the time to heat up", async () => {
    const found = {
      preheat_min: 12.3,
      holds_c: 166.2,
      swing_k: 4.1,
      door_dip_k: 17.4,
      recovery_min: 1.72,
      reasons: ["Set to 175° it holds 166° on the whole, off by −9°."],
    };
    vi.spyOn(globalThis, "fetch").mockResolvedValue(
      stream([
        ["reading", { after_min: 0, shows_c: 22 }],
        ["reading", { after_min: 12, shows_c: 160 }],
        ["found", found],
      ]),
    );
    const user = await shown();
    await user.click(screen.getByRole("button", { name: "Use the simulated thermometer" }));
    expect(await screen.findByText(/it holds 166°/)).toBeTruthy();
    expect(
      screen.getByRole("img", { name: /Thermometer in the oven, set to 175°: averages 166°/ }),
    ).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Use this" }));
    await waitFor(() =>
      expect(sent).toEqual([
        {
          oven_readings: [{ set_c: 175, read_c: 166, swing_k: 4 }],
          preheat_min: 13,
          door_dip_k: 17,
          recovery_min: 1.7,
        },
      ]),
    );
    expect(await screen.findByRole("button", { name: "In use" })).toBeTruthy();
    // It can be taken away again.
    await user.click(await screen.findByRole("button", { name: "Remove the reading at 175°" }));
    await waitFor(() => expect(sent.at(-1)).toEqual({ oven_readings: [] }));
  });

  it("says why where the stand-in was refused", async () => {
    const problem = {
      title: "values",
      status: 422,
      detail: "60 °C is outside 140 to 220 °C",
      errors: [{ field: "set_c", message: "60 °C is outside 140 to 220 °C", accepted: "" }],
    };
    vi.spyOn(globalThis, "fetch").mockResolvedValue(new Response(JSON.stringify(problem), { status: 422 }));
    const user = await shown();
    await user.click(screen.getByRole("button", { name: "Use the simulated thermometer" }));
    expect((await screen.findByRole("alert")).textContent).toContain("outside 140 to 220");
  });

  it("puts the chosen shade where it is pressed, and takes it off when pressed once more", async () => {
    const user = await shown();
    await screen.findByRole("radio", { name: "dark" });
    await user.click(screen.getByRole("radio", { name: "dark" }));
    await user.click(last());
    await waitFor(() => expect(sent.at(-1)?.hot_spots?.shades.at(-1)).toBe(5));
    await waitFor(() =>
      expect(last().getAttribute("aria-label")).toBe("row 3 from the back, 4 from the left: dark, +7°"),
    );
    expect(screen.getByText(/The door side is hotter/)).toBeTruthy();
    await user.click(last());
    await waitFor(() => expect(sent.at(-1)?.hot_spots?.shades.at(-1)).toBeNull());
  });

  it("offers a covered pot only after its cautions, and then has nothing to measure", async () => {
    const user = await shown();
    await user.click(screen.getByRole("radio", { name: "A covered pot on a burner" }));
    expect((await screen.findByRole("alertdialog")).textContent).toContain("Never leave it unattended");
    expect(sent).toEqual([]);
    await user.click(screen.getByRole("button", { name: /I.ve read this/ }));
    await waitFor(() => expect(sent).toEqual([{ cover_pot: true }]));
    expect(await screen.findByText(/No forecast for a pot/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Use the simulated thermometer" })).toBeNull();
  });
});
