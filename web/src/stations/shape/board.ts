/** Pieces on a sheet as they are moved by hand: free of React, so that it can be tested by itself. */
import type { Cut, Gaps, Place } from "../../api/nest";

export interface Laid extends Cut {
  /** Stays where it is while the rest is searched. */
  held: boolean;
}

export interface Board {
  pieces: readonly Laid[];
  /** What the server measured of these pieces; absent while it is being asked. */
  gaps?: readonly Gaps[];
}

export const fromCuts = (cuts: readonly Cut[], held: readonly Laid[] = []): Board => ({
  pieces: cuts.map((c) => ({
    ...c,
    held: held.some((h) => h.x_mm === c.x_mm && h.y_mm === c.y_mm && h.turn_deg === c.turn_deg),
  })),
});

export const cutOf = ({ x_mm, y_mm, turn_deg, cutter }: Laid): Cut => ({
  x_mm,
  y_mm,
  turn_deg,
  ...(cutter ? { cutter } : {}),
});
export const placeOf = ({ x_mm, y_mm, turn_deg }: Laid): Place => ({ x_mm, y_mm, turn_deg });

export const heldOf = (board: Board): Cut[] => board.pieces.filter((p) => p.held).map(cutOf);
export const restOf = (board: Board): Cut[] => board.pieces.filter((p) => !p.held).map(cutOf);

const round = (v: number) => Math.round(v * 100) / 100;

/** Asks one at a time; of what comes meanwhile only the last is asked. */
export function latest<T>(ask: (of: T) => Promise<unknown>): (of: T) => void {
  let busy = false;
  let next: { of: T } | undefined;
  const run = async (of: T): Promise<void> => {
    busy = true;
    await ask(of);
    busy = false;
    if (next) {
      const { of: waiting } = next;
      next = undefined;
      void run(waiting);
    }
  };
  return (of) => {
    if (busy) next = { of };
    else void run(of);
  };
}

/** A piece moved or turned; a piece that a hand has laid is held. */
export function moved(board: Board, index: number, by: Partial<Cut>): Board {
  return {
    pieces: board.pieces.map((p, i) =>
      i === index
        ? {
            ...p,
            x_mm: round(by.x_mm ?? p.x_mm),
            y_mm: round(by.y_mm ?? p.y_mm),
            turn_deg: round((((by.turn_deg ?? p.turn_deg) % 360) + 360) % 360),
            held: true,
          }
        : p,
    ),
  };
}

export const holding = (board: Board, index: number, held: boolean): Board => ({
  ...board,
  pieces: board.pieces.map((p, i) => (i === index ? { ...p, held } : p)),
});

export const without = (board: Board, index: number): Board => ({
  pieces: board.pieces.filter((_, i) => i !== index),
});

/** Whether a piece lies where it may not; unknown while it is being measured. */
export const atFault = (board: Board, index: number): boolean => {
  const gaps = board.gaps?.[index];
  return gaps !== undefined && (gaps.too_near.length > 0 || gaps.over_rim);
};

export const faults = (board: Board): number[] =>
  board.pieces.map((_, i) => i).filter((i) => atFault(board, i));

/** How long a search may take. */
export const SECONDS = ["2", "10", "30"] as const;
export type Seconds = (typeof SECONDS)[number];
/** Said of a search that was stopped. */
export const STOPPED = "Stopped. This is the best so far.";
