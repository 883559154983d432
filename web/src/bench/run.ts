/** A run as the server tells it, and what was pressed here and is not sent yet. The server reckons; this keeps, sends and asks again. */
import { holdHere, stillLetIn } from "../app/letin";
import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { at } from "../api/base";
import { api, Refusal, settled, type Schemas } from "../api/client";
import { Outbox, type Told } from "../kit/outbox";

export type Run = Schemas["RunView"];
export type Timer = Schemas["TimerView"];
export type HandCard = Schemas["HandView"];
export type Happened = Schemas["Happened"];
type EventBody = Schemas["EventBody"];

export interface Seen {
  run: Run | undefined;
  /** When it was told, by this page's clock. */
  told_ms: number;
  connected: boolean;
  fault: string | undefined;
}

/** So long until a stream that was refused is tried again. */
const AGAIN_MS = 1500;

/** A press, and of which day: a demo made anew, or a bakery brought back, has days with the same numbers. */
export interface Press extends EventBody {
  of: string;
  /** What the button said. */
  said: string;
}

/** The minute of the run now. */
export function minuteOf(seen: Seen, now_ms: number): number {
  if (!seen.run) return 0;
  return seen.run.ended
    ? seen.run.now_min
    : seen.run.now_min + ((now_ms - seen.told_ms) / 60_000) * seen.run.speed;
}

/** What was pressed here, and how it stands with it. */
export interface Presses {
  waiting: readonly Press[];
  /** Why what waits is not taken yet. */
  held: Refusal | undefined;
  /** What the server would not have. */
  refused: Told<Press>["refused"];
}

export function useRun(
  id: number,
): Seen & Presses & { press(what: Happened | readonly Happened[], said: string): void } {
  const [seen, setSeen] = useState<Seen>({ run: undefined, told_ms: 0, connected: true, fault: undefined });
  const [told, setTold] = useState<Told<Press>>({ waiting: [], held: undefined, refused: [] });
  const newest = useRef(seen);
  const outbox = useRef<Outbox<Press>>(null);
  useEffect(() => {
    newest.current = seen;
  }, [seen]);
  const tell = useCallback((run: Run) => {
    newest.current = { run, told_ms: performance.now(), connected: true, fault: undefined };
    setSeen(newest.current);
  }, []);
  useEffect(() => {
    let again: ReturnType<typeof setTimeout> | undefined;
    let source: EventSource | undefined;
    const open = () => {
      source = new EventSource(at(`/api/runs/${id}/live`));
      const stream = source;
      stream.addEventListener("run", (e) => {
        const first = newest.current.run === undefined;
        const back = !newest.current.connected;
        tell(JSON.parse(e.data as string) as Run);
        // What waits from before goes out once it is known which day this is, and at once when the server is back.
        if (first || back) outbox.current?.go();
      });
      stream.addEventListener("error", () => {
        setSeen((s) => ({ ...s, connected: false }));
        if (stream.readyState !== EventSource.CLOSED) return;
        stillLetIn();
        again = setTimeout(open, AGAIN_MS);
      });
    };
    open();
    return () => {
      clearTimeout(again);
      source?.close();
    };
  }, [id, tell]);
  // What was pressed is sent as soon as the server takes it; each press once, however often it is sent.
  useEffect(() => {
    const send = async (presses: readonly Press[]) => {
      const { run } = newest.current;
      if (!run)
        throw new Refusal({
          title: "not loaded yet",
          status: 0,
          detail: "The day isn’t loaded yet.",
          errors: [],
        });
      const strange = presses.findIndex((p) => p.of !== run.began);
      if (strange >= 0) {
        const errors = [
          { field: `events[${strange}]`, message: "it was pressed on another day", parts: [], accepted: "" },
        ];
        throw new Refusal({
          title: "another day",
          status: 422,
          detail: "it was pressed on another day",
          errors,
        });
      }
      const body = presses.map(({ press, what, at_min }) => ({ press, what, at_min }));
      tell(await settled(api.POST("/api/runs/{id}/events", { params: { path: { id } }, body })));
    };
    const box = new Outbox<Press>(`run-${id}-press`, send, (now) => {
      setTold(now);
      if (now.held?.problem.status === 0 && newest.current.run) setSeen((s) => ({ ...s, connected: false }));
    });
    outbox.current = box;
    setTold({ waiting: box.waiting(), held: undefined, refused: [] });
    const letGo = holdHere(() => box.waiting().length > 0);
    if (newest.current.run) box.start();
    return () => {
      letGo();
      box.stop();
    };
  }, [id, tell]);
  const press = useCallback((what: Happened | readonly Happened[], said: string) => {
    const at_min = minuteOf(newest.current, performance.now());
    const of = newest.current.run?.began ?? "";
    const all = (Array.isArray(what) ? what : [what]) as Happened[];
    outbox.current?.add(
      all.map((one) => ({
        press: crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`,
        what: one,
        at_min,
        of,
        said,
      })),
    );
  }, []);
  return { ...seen, ...told, press };
}

/** The steps that were pressed for and are not sent yet. */
export function pressed(waiting: readonly { what: Happened }[]): Set<number> {
  return new Set(
    waiting.flatMap(({ what }) =>
      (what.kind === "done" || what.kind === "started" || what.kind === "dropped") && "task" in what
        ? [what.task]
        : [],
    ),
  );
}

/** What this device tells of its own: each is off until somebody wants it. */
export interface Telling {
  sound: boolean;
  spoken: boolean;
  awake: boolean;
}

let telling: Telling = readTelling();
const listeners = new Set<() => void>();

function readTelling(): Telling {
  const none: Telling = { sound: true, spoken: false, awake: false };
  try {
    return { ...none, ...(JSON.parse(localStorage.getItem("bench-tells") ?? "{}") as Partial<Telling>) };
  } catch {
    return none;
  }
}

export function setTelling(change: Partial<Telling>): void {
  telling = { ...telling, ...change };
  try {
    localStorage.setItem("bench-tells", JSON.stringify(telling));
  } catch {
    // It only forgets.
  }
  listeners.forEach((told) => told());
}

export const useTelling = (): Telling =>
  useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => telling,
  );

/** Keeps the screen awake while it is wanted and the page is looked at. */
export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return undefined;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const take = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (taken) => {
          if (over) void taken.release();
          else lock = taken;
        },
        // A battery that runs low may refuse; the view works without.
        () => undefined,
      );
    };
    take();
    document.addEventListener("visibilitychange", take);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", take);
      void lock?.release();
    };
  }, [wanted]);
}
