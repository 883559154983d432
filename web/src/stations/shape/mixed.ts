/** Sheets with the pieces of several lots, as they are laid and kept: free of React, so that it can be tested by itself. */
import type { Job, Schemas } from "../../api/client";
import type { Nested } from "../../api/nest";
import { fromCuts, type Board } from "./board";

export type MixedSheet = Schemas["MixedSheetBody"];

export interface Sheet {
  length_mm: number;
  board: Board;
  cut_percent?: number;
}

/** Pieces of each lot that lie on these sheets. */
export const counted = (sheets: readonly Sheet[], lots: number): number[] =>
  Array.from({ length: lots }, (_, lot) =>
    sheets.reduce((n, s) => n + s.board.pieces.filter((p) => (p.cutter ?? 0) === lot).length, 0),
  );

/** Pieces of each lot that are still to be laid. */
export const missing = (lots: readonly Job[], sheets: readonly Sheet[]): number[] => {
  const there = counted(sheets, lots.length);
  return lots.map((lot, i) => Math.max(0, lot.pieces - (lot.freeze_pieces ?? 0) - (there[i] ?? 0)));
};

/** A sheet as it was found: as short as its pieces allow. */
export const sheetOf = (found: Nested, longest_mm: number, held: Board["pieces"] = []): Sheet => ({
  length_mm: Math.min(longest_mm, Math.ceil(found.used_mm * 10) / 10),
  board: fromCuts(found.cuts, held),
  cut_percent: found.cut_percent,
});

export const toKeep = (sheets: readonly Sheet[], lots: readonly Job[]): MixedSheet[] =>
  sheets.map((s) => ({
    length_mm: s.length_mm,
    pieces: s.board.pieces.map(({ x_mm, y_mm, turn_deg, cutter }) => ({
      job_id: lots[cutter ?? 0]?.id ?? 0,
      x_mm,
      y_mm,
      turn_deg,
    })),
  }));

/** Kept sheets; none where they hold pieces of a lot that is not among these. */
export function fromKept(kept: readonly MixedSheet[], lots: readonly Job[]): Sheet[] {
  const number = (id: number) => lots.findIndex((l) => l.id === id);
  if (kept.some((s) => s.pieces.some((p) => number(p.job_id) < 0))) return [];
  return kept.map((s) => ({
    length_mm: s.length_mm,
    board: fromCuts(s.pieces.map(({ job_id, ...at }) => ({ ...at, cutter: number(job_id) }))),
  }));
}
