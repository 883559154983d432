// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { SettingsProvider } from "../kit/settings";
import { Shelf } from "./Shelf";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const answered = (data: unknown): never => ({ data, response: new Response(null, { status: 200 }) }) as never;
const job = (id: number, ready_by: string, more: object = {}) => ({
  id,
  revision: 1,
  name: `Tin ${id}`,
  formula_id: 1,
  cutter_id: 1,
  pieces: 48,
  thickness_mm: 6,
  ready_by,
  lot_of: null,
  making: { kind: "sliced" },
  ...more,
});

/** What was asked of the list of jobs. */
let asked: unknown[] = [];

function shown(page: (query: { named?: string; from?: number }) => unknown) {
  asked = [];
  vi.spyOn(api, "GET").mockImplementation((async (
    path: string,
    init?: { params?: { query?: { named?: string; from?: number } } },
  ) => {
    if (path !== "/api/jobs")
      return answered(
        path === "/api/formulas"
          ? [{ id: 1, name: "Lemon-thyme", ratio_sugar: 0.5, ratio_flour: 2, school: "" }]
          : path === "/api/demo"
            ? { open: false, at: "/demo/" }
            : [],
      );
    const query = init?.params?.query ?? {};
    asked.push(query);
    return answered(page(query));
  }) as never);
  const router = createMemoryRouter([{ path: "*", element: <Shelf /> }]);
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>
        <RouterProvider router={router} />
      </SettingsProvider>
    </QueryClientProvider>,
  );
  return userEvent.setup();
}

const jobsHere = async () => within(await screen.findByRole("region", { name: "Jobs" }));

beforeEach(() => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the shelf of jobs", () => {
  it("puts what is to come first, as the server counts it, and what was behind a heading with its year", async () => {
    shown(() => ({
      jobs: [
        job(1, "2099-05-04T14:00"),
        job(2, "2019-05-04T14:00"),
        job(3, "2099-05-04T14:00", { lot_of: 1, name: "Lot" }),
      ],
      total: 2,
      coming: 1,
      damaged: [],
    }));
    const jobs = await jobsHere();
    const lists = jobs.getAllByRole("list");
    expect(lists.map((l) => within(l).getAllByRole("listitem").length)).toEqual([1, 1]);
    expect(jobs.getByRole("heading", { name: "Earlier" })).toBeTruthy();
    expect(jobs.getByText(/May 4,? 2019, 14:00/)).toBeTruthy();
    // A lot stands with its job.
    expect(jobs.getByText(/plus 48 × Lot/)).toBeTruthy();
    // Few are found by eye.
    expect(jobs.queryByRole("searchbox")).toBeNull();
  });

  it("asks for the next page from where the first one ended, without its lots", async () => {
    const all = Array.from({ length: 30 }, (_, i) => job(i + 1, "2099-05-04T14:00"));
    const user = shown(({ from = 0 }) => ({
      jobs: [
        ...all.slice(from, from + 20),
        ...(from === 0 ? [job(99, "2099-05-04T14:00", { lot_of: 1, name: "Lot" })] : []),
      ],
      total: 30,
      coming: 30,
      damaged: [],
    }));
    const jobs = await jobsHere();
    expect(jobs.getAllByRole("listitem").length).toBe(20);
    await user.click(jobs.getByRole("button", { name: "Show more of 30" }));
    await vi.waitFor(() => expect(jobs.getAllByRole("listitem").length).toBe(30));
    expect(asked).toEqual([
      { named: "", from: 0 },
      { named: "", from: 20 },
    ]);
    expect(jobs.queryByRole("button", { name: /^Show more of/ })).toBeNull();
  });

  it("looks for a name, says so where there is none, and does not take that for an empty bakery", async () => {
    const user = shown(({ named }) =>
      named
        ? { jobs: [], total: 0, coming: 0, damaged: [] }
        : {
            jobs: Array.from({ length: 13 }, (_, i) => job(i + 1, "2099-05-04T14:00")),
            total: 13,
            coming: 13,
            damaged: [],
          },
    );
    const jobs = await jobsHere();
    await user.type(jobs.getByRole("searchbox", { name: "Find a job" }), " teapot ");
    expect((await jobs.findByRole("status")).textContent).toContain(
      "No job, recipe or cutter named “teapot”",
    );
    expect(asked.at(-1)).toEqual({ named: "teapot", from: 0 });
  });

  it("tells of a job that cannot be read, and offers to delete it; the others stay", async () => {
    const gone = vi.spyOn(api, "DELETE").mockImplementation((async () => answered(undefined)) as never);
    const user = shown(() => ({
      jobs: [job(1, "2099-05-04T14:00")],
      total: 2,
      coming: 2,
      damaged: [{ id: 7, why: "thickness_mm: -6 is outside 1 to 50 mm" }],
    }));
    const jobs = await jobsHere();
    expect(jobs.getByRole("alert").textContent).toContain("Can’t read job 7: thickness_mm");
    expect(jobs.getAllByRole("listitem").length).toBe(1);
    await user.click(jobs.getByRole("button", { name: "Delete job 7" }));
    expect(gone.mock.calls[0]?.[1]).toMatchObject({ params: { path: { id: 7 } } });
  });
});
