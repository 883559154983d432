// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { showPart } from "../kit/showView";
import { Safe } from "./Safe";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const answered = (data: unknown): never => ({ data, response: new Response(null, { status: 200 }) }) as never;
const refused = (status: number, detail: string): never =>
  ({ error: { title: "no", status, detail, errors: [] }, response: new Response(null, { status }) }) as never;

const kept = (files: readonly [string, string, number][]) => ({
  folder: "/srv/bakery-backups",
  keep: 7,
  all: files.map(([file, made_at, bytes]) => ({ file, made_at, bytes })),
});

function shown() {
  showPart(<Safe />);
  return userEvent.setup();
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("the bakery kept safe", () => {
  it("says that there is no backup yet, and after a press when it was made and how large it is", async () => {
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path === "/api/units" ? [] : kept([]))) as never);
    vi.spyOn(api, "POST").mockImplementation((async () =>
      answered(
        kept([
          ["b", "2020-05-04T08:30", 1_234_567],
          ["a", "2020-05-03T08:30", 800],
        ]),
      )) as never);
    const user = shown();
    expect(await screen.findByText(/No backup yet/)).toBeTruthy();
    expect(screen.getByText("/srv/bakery-backups")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Back up now" }));
    expect((await screen.findByRole("status")).textContent).toMatch(
      /^Last backup Monday, May 4, 8:30, 1\.2\sMB\./,
    );
    expect(screen.getByText("All 2 backups")).toBeTruthy();
    expect(screen.getByText(/^1\skB$/)).toBeTruthy();
  });

  it("tells why none was made", async () => {
    vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
      answered(path === "/api/units" ? [] : kept([]))) as never);
    vi.spyOn(api, "POST").mockImplementation((async () =>
      refused(507, "the disk is full: nothing of this was kept. Make room, then try again")) as never);
    const user = shown();
    await user.click(await screen.findByRole("button", { name: "Back up now" }));
    expect((await screen.findByRole("alert")).textContent).toContain("The disk is full");
  });
});
