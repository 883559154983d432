/** The board of levers, told one after the other. */
import { at } from "./base";
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

const NONE: Board = { levers: [], of: 0, done: false };

/** Asked anew whenever `key` changes: what the bake rests on; not at all without one. */
export function useLevers(id: number, key: string | undefined): Board {
  const [told, setTold] = useState<{ key: string | undefined; board: Board }>({
    key: undefined,
    board: NONE,
  });
  useEffect(() => {
    if (key === undefined) return undefined;
    const stop = new AbortController();
    let levers: Lever[] = [];
    // What was told of another bake is not shown beside this one.
    const put = (more: Partial<Board>) =>
      setTold((t) => ({ key, board: { ...(t.key === key ? t.board : NONE), levers, ...more } }));
    void (async () => {
      try {
        const answer = await fetch(at(`/api/jobs/${id}/levers`), { signal: stop.signal });
        await readEvents(answer, ({ name, data }) => {
          if (name === "lever") {
            const lever = data as Lever;
            levers = [...levers, lever].toSorted((a, b) => a.number - b.number);
            put({ of: lever.of, done: false });
          } else if (name === "done") put({ done: true });
        });
      } catch (trouble) {
        if (!stop.signal.aborted) put({ done: true, trouble });
      }
    })();
    return () => stop.abort();
  }, [id, key]);
  return told.key === key ? told.board : NONE;
}
