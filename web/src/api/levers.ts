/** The board of levers, told one after the other. */
import { useEffect, useState } from "react";
import type { Schemas } from "./client";
import { readEvents } from "./nest";

export type Lever = Schemas["LeverView"];

export interface Board {
  levers: readonly Lever[];
  /** Told so far, of so many. */
  of: number;
  done: boolean;
  trouble?: unknown;
}

/** Asked anew whenever `key` changes: what the bake rests on; not at all without one. */
export function useLevers(id: number, key: string | undefined): Board {
  const [board, setBoard] = useState<Board>({ levers: [], of: 0, done: false });
  useEffect(() => {
    if (key === undefined) return undefined;
    const stop = new AbortController();
    let told: Lever[] = [];
    const put = (more: Partial<Board>) => setBoard((b) => ({ ...b, levers: told, ...more }));
    void (async () => {
      try {
        const answer = await fetch(`/api/jobs/${id}/levers`, { signal: stop.signal });
        await readEvents(answer, ({ name, data }) => {
          if (name === "lever") {
            const lever = data as Lever;
            told = [...told, lever].toSorted((a, b) => a.number - b.number);
            put({ of: lever.of, done: false });
          } else if (name === "done") put({ done: true });
        });
      } catch (trouble) {
        if (!stop.signal.aborted) put({ done: true, trouble });
      }
    })();
    return () => stop.abort();
  }, [id, key]);
  return board;
}
