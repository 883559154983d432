/** The work on sheets that several lots share: laid out one after another, a cookie moved, kept or given up. */
import { useEffect, useState } from "react";
import type { Job } from "../../api/client";
import { measureNest, searchNest, type Cut } from "../../api/nest";
import type { useChangeJob } from "../../api/queries";
import type { Format } from "../../drawing/units";
import { STOPPED, cutOf, faults, heldOf, latest, moved, restOf, type Board, type Seconds } from "./board";
import { counted, fromKept, missing, sheetOf, toKeep, type Sheet } from "./mixed";

/** As many as a job keeps. */
const MOST_SHEETS = 40;

interface Asked {
  lots: Job[];
  lead: Job;
  /** The widest and the longest sheet. */
  largest_mm: readonly number[];
  change: ReturnType<typeof useChangeJob>;
  format: Format;
}

export function useSharedSheets({ lots, lead, largest_mm, change, format }: Asked) {
  const [width_mm = 0, longest_mm = 0] = largest_mm;
  const [sheets, setSheets] = useState<Sheet[]>(() => fromKept(lead.mixed ?? [], lots));
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number>();
  const [seconds, setSeconds] = useState<Seconds>("2");
  const [stop, setStop] = useState<AbortController>();
  const [said, setSaid] = useState("");
  const [inHoles, setInHoles] = useState(true);
  const [trouble, setTrouble] = useState<unknown>();
  const [unkept, setUnkept] = useState(false);
  const [first, ...others] = lots;
  useEffect(() => () => stop?.abort(), [stop]);
  const sheet = sheets[at];
  const wanted = (counts: number[]) => ({
    pieces: counts[0] ?? 0,
    lots: others.map((l, i) => ({ job_id: l.id, pieces: counts[i + 1] ?? 0 })),
  });
  const put = (index: number, next: Sheet) => setSheets((all) => all.map((s, i) => (i === index ? next : s)));

  const [ask] = useState(() =>
    latest(({ of, length_mm, index }: { of: Board; length_mm: number; index: number }) =>
      measureNest(first?.id ?? 0, {
        width_mm,
        length_mm,
        lots: others.map((l) => ({ job_id: l.id, pieces: 0 })),
        pieces: of.pieces.map(cutOf),
      })
        .then((gaps) =>
          setSheets((all) =>
            all.map((s, i) =>
              i === index && s.board.pieces === of.pieces ? { ...s, board: { ...s.board, gaps } } : s,
            ),
          ),
        )
        .catch(setTrouble),
    ),
  );
  const drag = (index: number, to: Partial<Cut>) => {
    if (!sheet || stop) return;
    const next = {
      ...moved(sheet.board, index, to),
      ...(sheet.board.gaps ? { gaps: sheet.board.gaps } : {}),
    };
    put(at, { ...sheet, board: next });
    setUnkept(true);
    ask({ of: next, length_mm: sheet.length_mm, index: at });
  };

  /** One sheet searched to its end; what was found last. */
  const searchOne = async (
    signal: AbortSignal,
    index: number,
    counts: number[],
    from?: Board,
  ): Promise<Sheet | undefined> => {
    let best: Sheet | undefined;
    await searchNest(
      first?.id ?? 0,
      {
        width_mm,
        length_mm: longest_mm,
        ...wanted(counts),
        in_holes: inHoles,
        held: from ? heldOf(from) : [],
        start: from ? restOf(from) : [],
        seconds: Number(seconds),
        seed: 0,
      },
      {
        layout: (found) => {
          best = sheetOf(found, longest_mm, from?.pieces.filter((p) => p.held) ?? []);
          const shown = best;
          setSheets((all) =>
            index < all.length ? all.map((s, i) => (i === index ? shown : s)) : [...all, shown],
          );
        },
        beat: () => undefined,
        done: () => undefined,
      },
      signal,
    );
    return best;
  };
  const during = async (work: (signal: AbortSignal) => Promise<string>) => {
    const control = new AbortController();
    setStop(control);
    setTrouble(undefined);
    setChosen(undefined);
    setSaid("");
    try {
      setSaid(await work(control.signal));
    } catch (error) {
      if (control.signal.aborted) setSaid(STOPPED);
      else setTrouble(error);
    }
    setUnkept(true);
    setStop(undefined);
  };
  const layAll = () =>
    during(async (signal) => {
      setSheets([]);
      const done: Sheet[] = [];
      while (missing(lots, done).some((n) => n > 0) && done.length < MOST_SHEETS) {
        setAt(done.length);
        const found = await searchOne(signal, done.length, missing(lots, done));
        if (!found || found.board.pieces.length === 0) return "No more cookies fit on a sheet.";
        done.push(found);
      }
      const left = missing(lots, done).reduce((a, b) => a + b, 0);
      return left > 0
        ? `${left} cookies don’t fit on ${MOST_SHEETS} sheets.`
        : done.length === 1
          ? "They all fit on one sheet."
          : `They all fit on ${done.length} sheets. The last is as short as we could make it.`;
    });
  const improve = () =>
    sheet
      ? during(async (signal) => {
          const there = counted([sheet], lots.length);
          const before = sheet.length_mm;
          const found = await searchOne(signal, at, there, sheet.board);
          return found && found.length_mm < before - 0.05
            ? `${format.length(Math.round(before - found.length_mm))} shorter.`
            : "No shorter sheet found.";
        })
      : Promise.resolve();

  const all = counted(sheets, lots.length);
  const left = missing(lots, sheets).reduce((a, b) => a + b, 0);
  const bad = sheets.flatMap((s) => faults(s.board)).length;
  const keep = () =>
    change.mutate(
      { mixed: toKeep(sheets, lots) },
      {
        onSuccess: () => {
          setUnkept(false);
          setSaid("Saved. Each item’s dough is its share of these sheets.");
        },
      },
    );
  const giveUp = () =>
    change.mutate(
      { mixed: [] },
      {
        onSuccess: () => {
          setSheets([]);
          setAt(0);
          setSaid("Each item has its own sheets again.");
        },
      },
    );
  return {
    width_mm,
    sheets,
    at,
    show: (index: number) => {
      setAt(index);
      setChosen(undefined);
    },
    sheet,
    chosen,
    select: setChosen,
    drag,
    seconds,
    setSeconds,
    inHoles,
    setInHoles,
    stop,
    layAll,
    improve,
    said,
    trouble,
    unkept,
    counts: all,
    bad,
    canKeep: unkept && left === 0 && bad === 0 && sheets.length > 0 && stop === undefined,
    keep,
    giveUp,
  } as const;
}

export type SharedSheets = ReturnType<typeof useSharedSheets>;
