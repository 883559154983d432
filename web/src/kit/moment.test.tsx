// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState, type ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, Refusal } from "../api/client";
import { setClockHours, setZone } from "../drawing/time";
import { DayField } from "./DayField";
import { ReadyBy } from "./ReadyBy";
import { SettingsProvider } from "./settings";

beforeEach(() => {
  localStorage.clear();
  setZone("UTC");
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
  // What the popover places itself by; jsdom lays nothing out.
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe(): void {}
      unobserve(): void {}
      disconnect(): void {}
    },
  );
  vi.spyOn(api, "GET").mockImplementation(
    async () => ({ data: [], response: new Response(null, { status: 200 }) }) as never,
  );
  // A Wednesday.
  vi.useFakeTimers({ toFake: ["Date"], now: new Date("2026-12-02T09:30:00Z") });
});

afterEach(() => {
  cleanup();
  setClockHours("24");
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function Around({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>{children}</SettingsProvider>
    </QueryClientProvider>
  );
}

/** The fields over a value that follows what was saved, as a page's does. */
function Due({ begin, saved }: { begin: string; saved(value: string): void }) {
  const [value, setValue] = useState(begin);
  return (
    <ReadyBy
      value={value}
      onSave={async (next) => {
        saved(next);
        setValue(next);
      }}
    />
  );
}

function due(begin = "2026-12-05T14:00") {
  const saved = vi.fn<(value: string) => void>();
  render(<Due begin={begin} saved={saved} />, { wrapper: Around });
  const [day, time] = ["day", "time"].map((of) => screen.getByRole("textbox", { name: `Ready by, ${of}` }));
  return { user: userEvent.setup(), saved, day: day as HTMLInputElement, time: time as HTMLInputElement };
}

describe("when it is due", () => {
  it("keeps its time when another day is typed, and its day when another time is", async () => {
    const { user, saved, day, time } = due();
    expect([day.value, time.value]).toEqual(["Sat, Dec 5", "14:00"]);
    await user.clear(day);
    await user.type(day, "tomorrow{Enter}");
    await waitFor(() => expect(saved).toHaveBeenLastCalledWith("2026-12-03T14:00"));
    await waitFor(() => expect(day.value).toBe("Thu, Dec 3"));
    await user.clear(time);
    await user.type(time, "9.30{Enter}");
    await waitFor(() => expect(saved).toHaveBeenLastCalledWith("2026-12-03T09:30"));
    expect(saved).toHaveBeenCalledTimes(2);
  });

  it("takes day and time at once", async () => {
    const { user, saved, day, time } = due();
    await user.clear(day);
    await user.type(day, "fri 4pm{Enter}");
    await waitFor(() => expect(saved).toHaveBeenCalledExactlyOnceWith("2026-12-04T16:00"));
    await waitFor(() => expect([day.value, time.value]).toEqual(["Fri, Dec 4", "16:00"]));
  });

  it("holds what does not read, says what would, and saves nothing", async () => {
    const { user, saved, day, time } = due();
    await user.clear(day);
    await user.type(day, "when the gulls come{Enter}");
    expect((await screen.findByRole("alert")).textContent).toBe("Type a day, like Sat or Dec 5.");
    expect(day.value).toBe("when the gulls come");
    await user.type(day, "{Escape}");
    expect(day.value).toBe("Sat, Dec 5");
    await user.clear(time);
    await user.type(time, "25:00{Enter}");
    expect((await screen.findByRole("alert")).textContent).toBe("Type a time, like 2 pm or 14:00.");
    expect(time.getAttribute("aria-invalid")).toBe("true");
    expect(saved).not.toHaveBeenCalled();
  });

  it("goes by quarters of an hour, in whichever clock is shown", async () => {
    setClockHours("12");
    localStorage.setItem("units", JSON.stringify({ clock: "12" }));
    const { user, saved, time } = due("2026-12-05T12:05");
    expect(time.value).toBe("12:05 pm");
    await user.click(time);
    await user.keyboard("{ArrowDown}");
    await waitFor(() => expect(saved).toHaveBeenLastCalledWith("2026-12-05T12:00"));
    await waitFor(() => expect(time.value).toBe("12:00 pm"));
    await user.keyboard("{ArrowDown}");
    await waitFor(() => expect(saved).toHaveBeenLastCalledWith("2026-12-05T11:45"));
    await waitFor(() => expect(time.value).toBe("11:45 am"));
  });

  it("is chosen on the calendar, where days that were cannot be", async () => {
    const { user, saved, day } = due();
    await user.click(screen.getByRole("button", { name: "Ready by, day: calendar" }));
    const grid = await screen.findByRole("grid", { name: "December 2026" });
    expect(grid).toBeTruthy();
    expect(screen.getByRole("button", { name: /December 1st/ })).toHaveProperty("disabled", true);
    await user.click(screen.getByRole("button", { name: /December 12th/ }));
    await waitFor(() => expect(saved).toHaveBeenCalledExactlyOnceWith("2026-12-12T14:00"));
    await waitFor(() => expect(day.value).toBe("Sat, Dec 12"));
    expect(screen.queryByRole("grid")).toBeNull();
  });
});

describe("a day that was", () => {
  it("may be none, and is refused by the server beside its field", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async (said: { day: string } | undefined) => {
      if (said) {
        const errors = [{ field: "from_day", message: "nothing that early", accepted: "" }];
        throw new Refusal({ title: "Check these values", status: 422, detail: "", errors });
      }
    });
    render(<DayField id="from" label="From" value="2026-12-01" field="from_day" past onSave={onSave} />, {
      wrapper: Around,
    });
    const from = screen.getByRole("textbox", { name: "From" });
    await user.clear(from);
    await user.type(from, "Nov 3{Enter}");
    expect((await screen.findByRole("alert")).textContent).toBe("Nothing that early.");
    expect(onSave).toHaveBeenLastCalledWith({ day: "2026-11-03" });
    await user.clear(from);
    await user.type(from, "{Enter}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(undefined));
    await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
  });
});
