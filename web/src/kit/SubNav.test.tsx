// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it } from "vitest";
import { SubNav } from "./SubNav";

const VIEWS = [
  { path: "", name: "What it is" },
  { path: "/mix", name: "Mixing card" },
  { path: "/label", name: "Cost and label", rare: true },
] as const;

function show(at: string, views: Parameters<typeof SubNav>[0]["views"] = VIEWS): void {
  render(
    <MemoryRouter initialEntries={[at]}>
      <SubNav label="Views" base="/jobs/1/dough" views={views} />
    </MemoryRouter>,
  );
}

const links = (): (string | null)[] => screen.getAllByRole("link").map((l) => l.textContent);

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

describe("the views of a station", () => {
  it("stand in front where most jobs need them, the rest behind More, which is remembered", async () => {
    const user = userEvent.setup();
    show("/jobs/1/dough");
    expect(links()).toEqual(["What it is", "Mixing card"]);
    await user.click(screen.getByRole("button", { name: "More" }));
    expect(links()).toEqual(["What it is", "Mixing card", "Cost and label"]);
    cleanup();
    show("/jobs/1/dough/mix");
    expect(links()).toHaveLength(3);
    await user.click(screen.getByRole("button", { name: "Fewer" }));
    expect(links()).toHaveLength(2);
  });

  it("show a rare one to whoever is there, and no More where nothing is rare", () => {
    show("/jobs/1/dough/label");
    expect(links()).toHaveLength(3);
    expect(screen.getByRole("link", { name: "Cost and label" }).getAttribute("aria-current")).toBe("page");
    expect(screen.queryByRole("button")).toBeNull();
    cleanup();
    show("/jobs/1/dough", VIEWS.slice(0, 2));
    expect(screen.queryByRole("button")).toBeNull();
  });
});
