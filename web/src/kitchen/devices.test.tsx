// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client";
import { broughtAlong, wayBack } from "../app/PairPage";
import { showPart } from "../kit/showView";
import { Devices } from "./Devices";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as never;
});

const answered = (data: unknown): never => ({ data, response: new Response(null, { status: 200 }) }) as never;
const device = (id: number, name: string, role: string, self: boolean) => ({
  id,
  name,
  role,
  let_in_at: "2020-05-03T08:30",
  seen_at: null,
  this: self,
});

function shown(access: unknown, all: unknown[] = []) {
  vi.spyOn(api, "GET").mockImplementation((async (path: string) =>
    answered(path === "/api/units" ? [] : path === "/api/access" ? access : all)) as never);
  showPart(<Devices />);
  return userEvent.setup();
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("who reaches the bakery", () => {
  it("says how a phone is brought in where only this computer reaches it, and warns where everybody does", async () => {
    shown({ open: true, this: null, address: null });
    expect(await screen.findByText(/Only this computer can reach the bakery/)).toBeTruthy();
    cleanup();
    shown({ open: true, this: null, address: "http://192.168.1.5:8420" });
    expect(await screen.findByText(/everybody on this network can read, change and delete/)).toBeTruthy();
  });

  it("offers a device of the bench nothing it may not do", async () => {
    shown({ open: false, this: device(2, "Tablet", "bench", true), address: "http://192.168.1.5:8420" });
    expect(await screen.findByText(/has bench access/)).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("shows a code for the bench first, and a token once", async () => {
    const all = [device(1, "Office", "full", true)];
    const post = vi.spyOn(api, "POST").mockImplementation((async (path: string) =>
      answered(
        path === "/api/devices/thermometer" && all.push(device(2, "Fridge probe", "thermometer", false))
          ? { token: "f00d" }
          : path === "/api/devices/code"
            ? {
                code: "4821 0937",
                good_for_s: 600,
                address: "http://192.168.1.5:8420/pair",
                picture: "<svg/>",
              }
            : {},
      )) as never);
    const user = shown(
      { open: false, this: device(1, "Office", "full", true), address: "http://192.168.1.5:8420" },
      all,
    );
    await user.click(await screen.findByRole("button", { name: "Get a code" }));
    expect(await screen.findByText("4821 0937")).toBeTruthy();
    expect(screen.getByText(/for 10 minutes and five tries/)).toBeTruthy();
    expect(post.mock.calls[0]).toEqual(["/api/devices/code", { body: { role: "bench" } }]);
    await user.type(screen.getByLabelText("Thermometer name"), "Fridge probe");
    await user.click(screen.getByRole("button", { name: "Get a token" }));
    expect(await screen.findByText("f00d")).toBeTruthy();
    // A thermometer came in, not whom the code is for.
    expect(screen.getByText("4821 0937")).toBeTruthy();
    expect(screen.getByRole("button", { name: "Disconnect Office" })).toBeTruthy();
  });
});

describe("the page that asks for a code", () => {
  it("goes back to where one was, and to no other site", () => {
    expect(wayBack("?to=%2Fbench%2F3")).toBe("/bench/3");
    for (const bad of [
      "",
      "?to=https://x.example",
      "?to=//x.example",
      "?to=/%5Cx.example",
      "?to=javascript:alert(1)",
    ])
      expect(wayBack(bad)).toBe("/");
  });

  it("takes a code from a picture, and nothing else", () => {
    expect(broughtAlong("#48210937")).toBe("48210937");
    for (const bad of ["", "#4821", "#4821093a", "48210937"]) expect(broughtAlong(bad)).toBe("");
  });
});
