/** The work on a board: what lies there, what was before it, the search that runs, and what is kept of it. */
import { useEffect, useRef, useState } from "react";
import { measureNest, searchNest, type Cut, type Nested } from "../../api/nest";
import type { useChangeJob } from "../../api/queries";
import {
  STOPPED,
  cutOf,
  faults,
  fromCuts,
  heldOf,
  latest,
  moved,
  placeOf,
  restOf,
  type Board,
  type Seconds,
} from "./board";

export type Goal = "most" | "short";
export interface Search {
  stop: AbortController;
  seconds: number;
  after_s: number;
}

/** What is laid out: the first roll's sheet, or a tray. */
export interface Ground {
  kind: "sheet" | "tray";
  form: "oblong" | "round" | "oval";
  width_mm: number;
  length_mm: number;
  cuts: readonly Cut[];
  /** Whether the plan's own layout is one that was kept. */
  kept: boolean;
  tray?: { gap_mm: number; edge_mm: number };
}

/** Moves that can be taken back. */
const MOST_PAST = 50;

export function useLaying(jobId: number, ground: Ground, change: ReturnType<typeof useChangeJob>) {
  const [board, setBoard] = useState<Board>(() => fromCuts(ground.cuts));
  const [past, setPast] = useState<Board[]>([]);
  const [found, setFound] = useState<Nested>();
  const [touched, setTouched] = useState(false);
  // Whether something was laid since it was kept last.
  const [dirty, setDirty] = useState(false);
  const [chosen, setChosen] = useState<number>();
  const [goal, setGoal] = useState<Goal>("most");
  const [seconds, setSeconds] = useState<Seconds>("2");
  const [seed, setSeed] = useState(0);
  const [search, setSearch] = useState<Search>();
  const [trouble, setTrouble] = useState<unknown>();
  const [said, setSaid] = useState("");
  // The sheet stays as it was when work on the board began: keeping a layout makes the plan's own sheet another.
  const [sheet] = useState({
    width_mm: ground.width_mm,
    length_mm: ground.length_mm,
    rows: ground.kept ? undefined : ground.cuts.length,
  });
  const shown = touched || found ? board : fromCuts(ground.cuts);
  const length_mm = touched || found ? sheet.length_mm : ground.length_mm;
  const onTray = ground.kind === "tray";
  const room = { form: ground.form, ...(ground.tray ? { tray: ground.tray } : {}) };
  const field = onTray ? "tray_layout" : "layout";
  const { width_mm } = sheet;

  const [ask] = useState(() =>
    latest(({ of, size }: { of: Board; size: { width_mm: number; length_mm: number } }) =>
      measureNest(jobId, { ...size, ...room, pieces: of.pieces.map(cutOf) })
        .then((gaps) => setBoard((now) => (now.pieces === of.pieces ? { ...now, gaps } : now)))
        .catch(setTrouble),
    ),
  );
  const measure = (of: Board) => ask({ of, size: { width_mm, length_mm } });

  const put = (next: Board, from: Board = shown) => {
    setTouched(true);
    setDirty(true);
    setPast((p) => [...p.slice(1 - MOST_PAST), from]);
    setBoard(next);
    measure(next);
  };
  const before = useRef<Board | undefined>(undefined);
  const drag = (index: number, to: Partial<Cut>) => {
    before.current ??= shown;
    const next = { ...moved(shown, index, to), ...(board.gaps ? { gaps: board.gaps } : {}) };
    setTouched(true);
    setBoard(next);
    measure(next);
  };
  const drop = () => {
    const from = before.current;
    before.current = undefined;
    if (!from) return;
    setDirty(true);
    setPast((p) => [...p.slice(1 - MOST_PAST), from]);
  };
  const nudge = (by: Partial<Record<keyof Cut, number>>) => {
    const piece = chosen === undefined ? undefined : shown.pieces[chosen];
    if (chosen === undefined || !piece) return;
    put(
      moved(shown, chosen, {
        x_mm: piece.x_mm + (by.x_mm ?? 0),
        y_mm: piece.y_mm + (by.y_mm ?? 0),
        turn_deg: piece.turn_deg + (by.turn_deg ?? 0),
      }),
    );
  };

  const begin = async (way: number) => {
    const stop = new AbortController();
    const held = heldOf(shown);
    const heldPieces = shown.pieces.filter((p) => p.held);
    const from = shown;
    setPast((p) => [...p.slice(1 - MOST_PAST), from]);
    setTrouble(undefined);
    setChosen(undefined);
    setSaid("");
    setSearch({ stop, seconds: Number(seconds), after_s: 0 });
    try {
      await searchNest(
        jobId,
        {
          width_mm,
          length_mm,
          ...room,
          ...(goal === "short" ? { pieces: shown.pieces.length } : {}),
          held,
          // Another way starts afresh; else it goes on from what lies there.
          start: way === seed ? restOf(shown) : [],
          seconds: Number(seconds),
          seed: way,
        },
        {
          layout: (nested) => {
            setFound(nested);
            setDirty(true);
            // What the search finds is measured already.
            setTouched(false);
            setBoard(fromCuts(nested.cuts, heldPieces));
          },
          beat: (after_s) => setSearch((s) => (s ? { ...s, after_s } : s)),
          done: (_, exhausted) =>
            setSaid(exhausted ? "This is as tight as it gets." : "Time’s up. A longer search may find more."),
        },
        stop.signal,
      );
    } catch (error) {
      if (!stop.signal.aborted) setTrouble(error);
      else setSaid(STOPPED);
    }
    setSeed(way);
    setSearch(undefined);
  };
  useEffect(() => () => search?.stop.abort(), [search?.stop]);

  const bad = faults(shown);
  const measured = shown.gaps !== undefined || !touched;
  const held = shown.pieces.filter((p) => p.held).length;
  const unkept = (touched || found !== undefined) && !search;
  const keep = () =>
    change.mutate(
      { [field]: shown.pieces.map(placeOf) },
      {
        onSuccess: () => {
          setDirty(false);
          setSaid(
            onTray
              ? "Saved. Every tray follows this layout."
              : "Saved. The plan uses it if it needs less dough.",
          );
        },
      },
    );
  const back = () => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    setBoard(last);
    setFound(undefined);
    setTouched(true);
    measure(last);
  };
  const piece = chosen === undefined ? undefined : shown.pieces[chosen];
  const gaps = chosen === undefined ? undefined : shown.gaps?.[chosen];
  const choose = (step: number) =>
    setChosen((c) => ((c ?? (step > 0 ? -1 : 0)) + step + shown.pieces.length) % shown.pieces.length);
  const more = sheet.rows === undefined ? 0 : shown.pieces.length - sheet.rows;
  const rows = () =>
    change.mutate(
      { [field]: [] },
      {
        onSuccess: () => {
          setTouched(false);
          setFound(undefined);
          setDirty(false);
          setSaid("Back to rows.");
        },
      },
    );
  return {
    board: shown,
    width_mm,
    length_mm,
    field,
    onTray,
    rows: sheet.rows,
    more,
    bad,
    held,
    piece,
    gaps,
    chosen,
    choose,
    select: setChosen,
    put,
    drag,
    drop,
    nudge,
    back,
    canGoBack: past.length > 0,
    dirty,
    found,
    touched,
    canKeep: unkept && bad.length === 0 && measured,
    keep,
    backToRows: rows,
    goal,
    setGoal,
    seconds,
    setSeconds,
    search,
    again: () => begin(seed),
    other: () => begin(seed + 1),
    trouble,
    said,
  } as const;
}

export type Laying = ReturnType<typeof useLaying>;
