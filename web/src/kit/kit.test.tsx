// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, Refusal } from "../api/client";
import { Amount } from "./Amount";
import { Choice } from "./Choice";
import { sentence } from "../drawing/sentence";
import { faultOf, otherFault } from "./Fault";
import { Live } from "./Live";
import { SaveMenu } from "./SaveMenu";
import { SettingsProvider, useSettings } from "./settings";
import { PRESETS } from "../drawing/units";
import { TextField } from "./TextField";
import type { ReactNode } from "react";

const UNITS = [
  { symbol: "mm", quantity: "length", factor: 1, offset: 0, source: "" },
  { symbol: "in", quantity: "length", factor: 25.4, offset: 0, source: "" },
  { symbol: "g", quantity: "mass", factor: 1, offset: 0, source: "" },
  { symbol: "kg", quantity: "mass", factor: 1000, offset: 0, source: "" },
  { symbol: "oz", quantity: "mass", factor: 28.349523125, offset: 0, source: "" },
  { symbol: "lb", quantity: "mass", factor: 453.59237, offset: 0, source: "" },
  { symbol: "\u00b0C", quantity: "temperature", factor: 1, offset: 0, source: "" },
  { symbol: "\u00b0F", quantity: "temperature", factor: 5 / 9, offset: -160 / 9, source: "" },
];

/** Stands in for the server: the units, and a reader that knows a few texts. */
interface Asked {
  text: string;
  default_symbol: string;
  quantity: string;
}
const asked: Asked[] = [];

function answered(status: number, body: unknown): never {
  const response = new Response(null, { status });
  return (status === 200 ? { data: body, response } : { error: body, response }) as never;
}

const READS: Record<string, number> = {
  "1/4 in": 6.35,
  "8": 8,
  "8 mm": 8,
  "9 mm": 9,
  "7 mm": 7,
  "6 mm": 6,
  "5 mm": 5,
  "4 dozen": 48,
  "400": 400,
};

function refusal(field: string, message: string): Refusal {
  return new Refusal({
    title: "Check these values",
    status: 422,
    detail: message,
    errors: [{ field, message, accepted: "" }],
  });
}

beforeEach(() => {
  asked.length = 0;
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
  vi.spyOn(api, "GET").mockImplementation(async () => answered(200, UNITS));
  vi.spyOn(api, "POST").mockImplementation((async (_: string, { body }: { body: Asked }) => {
    asked.push(body);
    const value = READS[body.text];
    if (value !== undefined) return answered(200, { value });
    const message = `\u201c${body.text}\u201d is not understood; try a length such as 6 mm or 1/4 in`;
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
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function Around({ children }: { children: ReactNode }) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return (
    <QueryClientProvider client={client}>
      <SettingsProvider>{children}</SettingsProvider>
    </QueryClientProvider>
  );
}

describe("an amount", () => {
  it("keeps what was typed once the server has read it", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    const field = screen.getByRole("textbox", { name: "Gap" });
    expect(field).toHaveProperty("value", "6 mm");
    await user.clear(field);
    await user.type(field, "1/4 in{Enter}");
    await waitFor(() => expect(onSave).toHaveBeenCalledExactlyOnceWith(6.35));
    expect(asked[0]).toEqual({ quantity: "length", text: "1/4 in", default_symbol: "mm" });
  });

  it("holds a text that does not read, with its fault, and does not save it", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    const field = screen.getByRole("textbox", { name: "Gap" });
    await user.clear(field);
    await user.type(field, "a bit{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("is not understood");
    expect(field).toHaveProperty("value", "a bit");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(onSave).not.toHaveBeenCalled();
    await user.type(field, "{Escape}");
    expect(field).toHaveProperty("value", "6 mm");
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("holds a value that the server refuses, with the server's sentence", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => {
      throw refusal("oven_c", "400 \u00b0C is outside 140 to 220 \u00b0C");
    });
    render(<Amount label="Set to" kind="temperature" value={175} field="oven_c" onSave={onSave} />, {
      wrapper: Around,
    });
    const field = screen.getByRole("textbox", { name: "Set to" });
    await user.clear(field);
    await user.type(field, "400{Enter}");
    expect((await screen.findByRole("alert")).textContent).toBe(
      "400\u00a0\u00b0C is outside 140 to 220\u00a0\u00b0C.",
    );
    expect(field).toHaveProperty("value", "400");
  });

  it("saves what was typed while the one before was still on its way", async () => {
    const saved: number[] = [];
    const waiting: (() => void)[] = [];
    const onSave = (value: number) =>
      new Promise<void>((resolve) => {
        saved.push(value);
        waiting.push(resolve);
      });
    render(
      <Around>
        <Amount label="Thickness" kind="length" value={6} field="thickness_mm" onSave={onSave} />
      </Around>,
    );
    const box = screen.getByLabelText("Thickness");
    const user = userEvent.setup();
    await user.clear(box);
    await user.type(box, "7 mm{Enter}");
    await waitFor(() => expect(saved).toEqual([7]));
    await user.clear(box);
    await user.type(box, "8 mm{Enter}");
    expect(saved).toEqual([7]);
    await act(async () => waiting[0]?.());
    await waitFor(() => expect(saved).toEqual([7, 8]));
    await act(async () => waiting[1]?.());
  });

  it("keeps what is typed when the answer to the one before comes", async () => {
    const waiting: (() => void)[] = [];
    const save = vi.fn<(value: number) => Promise<void>>(
      () =>
        new Promise((done) => {
          waiting.push(done);
        }),
    );
    const at = (value: number) => (
      <Around>
        <Amount label="Thickness" kind="length" value={value} field="thickness_mm" onSave={save} />
      </Around>
    );
    const { rerender } = render(at(6));
    const field = await screen.findByLabelText("Thickness");
    await userEvent.clear(field);
    await userEvent.type(field, "8{Enter}");
    await waitFor(() => expect(save).toHaveBeenCalledTimes(1));
    await userEvent.clear(field);
    await userEvent.type(field, "7 m");
    await act(async () => waiting[0]?.());
    rerender(at(8));
    expect((field as HTMLInputElement).value).toBe("7 m");
    await userEvent.type(field, "m{Enter}");
    await waitFor(() => expect(save).toHaveBeenLastCalledWith(7));
  });

  it("is nudged by the arrows", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    await user.click(screen.getByRole("textbox", { name: "Gap" }));
    await user.keyboard("{ArrowUp}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(7));
    await user.keyboard("{ArrowDown}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(6));
  });

  it("is nudged on from what is typed and not yet entered", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    const gap = screen.getByRole("textbox", { name: "Gap" });
    await user.clear(gap);
    await user.type(gap, "8");
    await user.keyboard("{ArrowUp}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(9));
  });

  it("is nudged on from what was typed, and by as many presses as there were", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    const web = screen.getByRole("textbox", { name: "Gap" });
    await user.clear(web);
    await user.type(web, "8{Enter}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(8));
    await user.keyboard("{ArrowDown}{ArrowDown}{ArrowDown}");
    await waitFor(() => expect(onSave).toHaveBeenLastCalledWith(5));
  });

  it("gives way to a value changed elsewhere", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    const { rerender } = render(
      <Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />,
      { wrapper: Around },
    );
    const field = screen.getByRole("textbox", { name: "Gap" });
    await user.clear(field);
    await user.type(field, "99");
    rerender(<Amount label="Gap" kind="length" value={3} field="web_mm" onSave={onSave} />);
    expect(field).toHaveProperty("value", "3 mm");
  });

  it("does not ask the server when it is left as it was", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async () => undefined);
    render(<Amount label="Gap" kind="length" value={6} field="web_mm" onSave={onSave} />, {
      wrapper: Around,
    });
    await user.click(screen.getByRole("textbox", { name: "Gap" }));
    await user.tab();
    expect(asked).toEqual([]);
    expect(onSave).not.toHaveBeenCalled();
  });
});

function Switch() {
  const { format, setUnits } = useSettings();
  return (
    <button type="button" onClick={() => setUnits(PRESETS.us)}>
      {format.length(6.35)}
    </button>
  );
}

describe("units", () => {
  it("change what is shown, by the server's table, and stay so", async () => {
    const user = userEvent.setup();
    render(<Switch />, { wrapper: Around });
    const button = screen.getByRole("button");
    expect(button.textContent).toBe("6.4\u00a0mm");
    await user.click(button);
    await waitFor(() => expect(button.textContent).toBe("\u00bc\u00a0in"));
    expect(JSON.parse(localStorage.getItem("units") ?? "")).toEqual(PRESETS.us);
  });
});

describe("a choice", () => {
  it("tells only of a change", async () => {
    const user = userEvent.setup();
    const onChange = vi.fn();
    render(
      <Choice
        label="Where to chill"
        value="fridge"
        options={[
          { value: "fridge", label: "Fridge" },
          { value: "freezer", label: "Freezer" },
        ]}
        onChange={onChange}
      />,
    );
    await user.click(screen.getByRole("radio", { name: "Fridge" }));
    expect(onChange).not.toHaveBeenCalled();
    await user.click(screen.getByRole("radio", { name: "Freezer" }));
    expect(onChange).toHaveBeenCalledExactlyOnceWith("freezer");
  });
});

describe("text", () => {
  it("is kept when it is left and held when it is refused", async () => {
    const user = userEvent.setup();
    const onSave = vi.fn(async (name: string) => {
      if (!name) throw refusal("name", "a name is needed");
    });
    render(<TextField label="Job" value="Regatta" field="name" onSave={onSave} />, { wrapper: Around });
    const field = screen.getByRole("textbox", { name: "Job" });
    await user.type(field, " gulls");
    await user.tab();
    expect(onSave).toHaveBeenCalledExactlyOnceWith("Regatta gulls");
    await user.clear(field);
    await user.tab();
    expect((await screen.findByRole("alert")).textContent).toBe("A name is needed.");
  });

  it("stays at fault when the answer to an earlier text comes after its refusal", async () => {
    const user = userEvent.setup();
    const waiting: (() => void)[] = [];
    const onSave = (name: string) =>
      name === "Terns"
        ? new Promise<void>((done) => {
            waiting.push(done);
          })
        : Promise.reject(refusal("name", "that name is taken"));
    render(<TextField label="Job" value="Regatta" field="name" onSave={onSave} />, { wrapper: Around });
    const field = screen.getByRole("textbox", { name: "Job" });
    await user.clear(field);
    await user.type(field, "Terns{Enter}");
    await user.clear(field);
    await user.type(field, "Gulls{Enter}");
    expect((await screen.findByRole("alert")).textContent).toBe("That name is taken.");
    await act(async () => waiting[0]?.());
    expect(screen.getByRole("alert").textContent).toBe("That name is taken.");
    expect((field as HTMLInputElement).value).toBe("Gulls");
  });
});

describe("what a view can be saved or printed as", () => {
  it("stands behind one button, and closes when chosen, by Escape, or by a press elsewhere", async () => {
    const user = userEvent.setup();
    const print = vi.fn();
    render(
      <>
        <SaveMenu>
          <button type="button" onClick={print}>
            Print the day
          </button>
        </SaveMenu>
        <p>Elsewhere</p>
      </>,
      { wrapper: Around },
    );
    const button = screen.getByRole("button", { name: "Save or print" });
    const expanded = () => button.getAttribute("aria-expanded");
    await user.click(button);
    expect(expanded()).toBe("true");
    await user.click(screen.getByRole("button", { name: "Print the day" }));
    expect(print).toHaveBeenCalledOnce();
    await waitFor(() => expect(expanded()).toBe("false"));
    await user.click(button);
    await user.keyboard("{Escape}");
    expect(expanded()).toBe("false");
    expect(document.activeElement).toBe(button);
    await user.click(button);
    await user.click(screen.getByText("Elsewhere"));
    expect(expanded()).toBe("false");
  });
});

describe("a text typed over one that is on its way", () => {
  it("outlives the answer, but not a change from elsewhere", async () => {
    const waiting: (() => void)[] = [];
    const save = vi.fn<(value: string) => Promise<void>>(
      () =>
        new Promise((done) => {
          waiting.push(done);
        }),
    );
    const at = (value: string) => (
      <Around>
        <TextField label="Name" value={value} field="name" onSave={save} />
      </Around>
    );
    const { rerender } = render(at("Gulls"));
    const field = screen.getByLabelText("Name");
    await userEvent.type(field, " A{Enter}");
    await userEvent.type(field, "B");
    await act(async () => waiting[0]?.());
    rerender(at("Gulls A"));
    expect((field as HTMLInputElement).value).toBe("Gulls AB");
    await userEvent.type(field, "C");
    rerender(at("Terns"));
    expect((field as HTMLInputElement).value).toBe("Terns");
  });
});

describe("a live figure", () => {
  it("marks itself when it changes, not when it opens", async () => {
    vi.useFakeTimers({ toFake: ["performance"] });
    const { rerender, container } = render(<Live value="710 g" />);
    const mark = () => container.querySelector("[data-live]")?.className ?? "";
    act(() => rerender(<Live value="711 g" />));
    expect(mark()).not.toContain("changed");
    vi.advanceTimersByTime(2000);
    act(() => rerender(<Live value="1.12 kg" />));
    expect(mark()).toContain("changed");
    expect(container.textContent).toBe("1.12 kg");
    vi.useRealTimers();
  });
});

describe("faults", () => {
  const two = new Refusal({
    title: "values",
    status: 422,
    detail: "two faults",
    errors: [
      { field: "widths_mm[2]", message: "900 mm is outside 5 to 600 mm", accepted: "5 to 600 mm" },
      { field: "cutter", message: "the cutter is larger than the sheet", accepted: "" },
    ],
  });

  it("stand by their field, a list's by the list", () => {
    expect(faultOf(two, "widths_mm")).toEqual({ text: "900 mm is outside 5 to 600 mm." });
    expect(faultOf(two, "notes")).toBeUndefined();
    expect(faultOf(new Error("other"), "notes")).toBeUndefined();
  });

  it("of no field here are not swallowed", () => {
    expect(otherFault(two, ["widths_mm"])).toEqual({ text: "The cutter is larger than the sheet." });
    expect(otherFault(two, ["widths_mm", "cutter"])).toBeUndefined();
    expect(
      otherFault(
        new Refusal({ title: "", status: 409, detail: "the cutter is used by 1 job", errors: [] }),
        [],
      ),
    ).toBe("The cutter is used by 1 job.");
    expect(otherFault(new TypeError("x"), [])).toContain("Nothing is lost");
    expect(otherFault(null, [])).toBeUndefined();
  });

  it("read as sentences", () => {
    expect(sentence("a name is needed")).toBe("A name is needed.");
    expect(sentence("Is it?")).toBe("Is it?");
  });
});
