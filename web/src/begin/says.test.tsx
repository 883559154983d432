// @vitest-environment jsdom
/** What a recipe says of its method, taken over or refused; and what a bake moved. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { SettingsProvider } from "../kit/settings";
import { movedWords } from "../stations/ledger/BakesTeach";
import { RecipeSays, type SaysWord } from "./RecipeSays";

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
  vi.spyOn(api, "GET").mockImplementation((async () => ({
    data: [],
    response: new Response(null, { status: 200 }),
  })) as never);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function shown(refused: SaysWord[], onRefuse: (words: SaysWord[]) => void) {
  const says = {
    method: "pulsed" as const,
    thickness_mm: 6.4,
    oven_c: 175,
    pieces: 36,
    chill_min: [60, 60],
    bake_min: [8, 10],
  };
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>
        <RecipeSays says={says} refused={refused} onRefuse={onRefuse} />
      </SettingsProvider>
    </QueryClientProvider>,
  );
}

const pressed = (name: RegExp) => screen.getByRole("button", { name }).getAttribute("aria-pressed");

describe("what a recipe says", () => {
  it("is shown piece by piece, and each can be refused and taken again", async () => {
    const onRefuse = vi.fn<(words: SaysWord[]) => void>();
    shown(["oven_c"], onRefuse);
    expect([pressed(/^Pulsed/), pressed(/thick$/), pressed(/^Oven/), pressed(/36 cookies/)]).toEqual([
      "true",
      "true",
      "false",
      "true",
    ]);
    const user = userEvent.setup();
    await user.click(screen.getByRole("button", { name: /thick$/ }));
    expect(onRefuse).toHaveBeenLastCalledWith(["oven_c", "thickness_mm"]);
    await user.click(screen.getByRole("button", { name: /^Oven/ }));
    expect(onRefuse).toHaveBeenLastCalledWith([]);
  });
});

const of = (before: [number, number, number], after: [number, number, number]) =>
  movedWords({
    about_before_min: before[0],
    least_before_min: before[1],
    most_before_min: before[2],
    about_min: after[0],
    least_min: after[1],
    most_min: after[2],
  });

describe("what a bake moved", () => {
  it("is told by the one figure and its range", () => {
    expect(of([10, 8, 14], [11, 9, 13])).toBe("Moved your forecast: 10 to 11\u00a0min; range 8–14 to 9–13.");
    expect(of([10, 8, 14], [10, 9, 13])).toBe(
      "Moved your forecast: still about 10\u00a0min; range 8–14 to 9–13.",
    );
    expect(of([10, 8, 14], [10, 8, 14])).toBe("Moved nothing: about 10\u00a0min, range 8–14.");
  });
});
