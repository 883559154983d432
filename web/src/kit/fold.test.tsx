// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Fold, Why } from "./Fold";
import { SettingsProvider } from "./settings";

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => {},
    removeEventListener: () => {},
  }));
});
afterEach(cleanup);

const fold = () => screen.getByText("Why?").closest("details");
const why = (items: string[]) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>
        <Why name="here" items={items} />
      </SettingsProvider>
    </QueryClientProvider>,
  );

it("reasons are closed at first, and stay as they were left", async () => {
  const first = why(["Butter melts."]);
  expect(fold()?.open).toBe(false);
  await userEvent.click(screen.getByText("Why?"));
  first.unmount();
  const second = why(["Butter melts."]);
  expect(fold()?.open).toBe(true);
  await userEvent.click(screen.getByText("Why?"));
  second.unmount();
  why(["Butter melts."]);
  expect(fold()?.open).toBe(false);
});

it("where there is no reason there is nothing to open, and each has its own memory", async () => {
  why([]);
  expect(screen.queryByText("Why?")).toBeNull();
  render(
    <>
      <Fold name="one" title="More">
        a
      </Fold>
      <Fold name="two" title="Other">
        b
      </Fold>
    </>,
  );
  await userEvent.click(screen.getByText("More"));
  expect(screen.getByText("More").closest("details")?.open).toBe(true);
  expect(screen.getByText("Other").closest("details")?.open).toBe(false);
});
