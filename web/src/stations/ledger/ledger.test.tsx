// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, type Job, type Plan } from "../../api/client";
import { PaperCorners, START, cornersQuery, type Corner } from "../../kit/PaperCorners";
import { showPart, showView } from "../../kit/showView";
import { EvennessPage } from "./EvennessPage";

vi.hoisted(() => {
  globalThis.matchMedia = (() => ({ matches: false, addEventListener: () => undefined, removeEventListener: () => undefined })) as never;
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const JOB = { id: 1, name: "Harbour tins" } as unknown as Job;
const says = (text: string) => ({ text, parts: [text] });
const point = (value_mm: number, low_mm: number, high_mm: number, text?: string) => ({ value_mm, low_mm, high_mm, says: text ? says(text) : null });
const tray = (id: number, mean: number, text?: string) => ({ record_id: id, recorded_at: `2026-11-2${id}T14:00`, pieces: 6, mean: point(mean, 96.5, 97.5, text), range: point(0.8, 0, 1.6) });
const CHARTS = { trays: [tray(1, 97), tray(2, 96.9), tray(3, 98.2, "wider than chance explains")], mean_mm: 97, sd_within_mm: 0.31, within_percent: 60, trays_percent: 30, days_percent: 10, wanted_mm: 97, could: 1.1, does: 0.5, beyond_percent: 4, says: [says("Most of what varies is within a tray.")] };

function answering(charts: unknown): void {
  const answer = { data: { measure: "width", tolerance_mm: 1, measured: 2, needed: 3, charts }, response: new Response(null, { status: 200 }) };
  vi.spyOn(api, "GET").mockImplementation(((path: string) => (path.endsWith("/bakes-even") ? Promise.resolve(answer) : Promise.reject(new Error("away")))) as never);
}

describe("evenness over time", () => {
  it("draws each tray, names what chance does not explain, and says what varies", async () => {
    answering(CHARTS);
    showView(<EvennessPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByRole("heading", { name: /^4(\.0)?\s% beyond ±1/ })).toBeTruthy();
    expect(screen.getByRole("img", { name: /^Widths tray by tray/ }).querySelectorAll("circle.fill-warm")).toHaveLength(1);
    expect(screen.getByText(/: wider than chance explains\.$/)).toBeTruthy();
    expect(screen.getByRole("img", { name: "within a tray 60 per cent, tray to tray 30 per cent, day to day 10 per cent" })).toBeTruthy();
  });

  it("says what it would need while there are too few trays", async () => {
    answering(null);
    showView(<EvennessPage />, { job: JOB, plan: {} as Plan });
    expect(await screen.findByText(/2 trays of this dough, cut alike, have two pieces or more measured; 3 are needed/)).toBeTruthy();
  });
});

function Corners({ onCorners }: { onCorners(all: readonly Corner[]): void }) {
  const [corners, setCorners] = useState(START);
  const moved = (index: number, to: Corner) => {
    const next = corners.map((c, i) => (i === index ? to : c));
    setCorners(next);
    onCorners(next);
  };
  return <PaperCorners photo={{ url: "", width: 400, height: 300 }} corners={corners} onMove={moved} />;
}

describe("corners of a paper", () => {
  it("are moved with the arrow keys, further with shift, and never out of the photo", async () => {
    let last: readonly Corner[] = [];
    showPart(<Corners onCorners={(all) => { last = all; }} />);
    const first = screen.getByRole("slider", { name: "Corner 1" });
    first.focus();
    await userEvent.keyboard("{ArrowRight}");
    expect(last[0]?.[0]).toBeCloseTo(0.122);
    await userEvent.keyboard("{Shift>}{ArrowUp}{/Shift}");
    expect(last[0]?.[1]).toBeCloseTo(0.1);
    await userEvent.keyboard("{Shift>}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{/Shift}");
    expect(last[0]?.[0]).toBe(0);
  });

  it("are sent as eight numbers going round", () => {
    expect(cornersQuery(START).split(",")).toHaveLength(8);
    expect(cornersQuery([[0.1, 0.25]])).toBe("0.10000,0.25000");
  });
});
