/** A run as the server tells it, and what was pressed here and is not sent yet. The server reckons; this keeps, sends and asks again. */
import { stillLetIn } from "../app/letin";
import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { at } from "../api/base";
import { api, Refusal, settled, type Schemas } from "../api/client";

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

/** So long until what could not be sent, or a stream that was refused, is tried again. */
const AGAIN_MS = 1500;

const kept = (id: number): string => `run-${id}-presses`;

function read(id: number): EventBody[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(kept(id)) ?? "[]");
    return Array.isArray(found) ? (found as EventBody[]) : [];
  } catch {
    return [];
  }
}

function keep(id: number, presses: readonly EventBody[]): void {
  try {
    if (presses.length === 0) localStorage.removeItem(kept(id));
    else localStorage.setItem(kept(id), JSON.stringify(presses));
  } catch {
    // A browser that keeps nothing still sends; it only forgets when it is closed.
  }
}

/** The minute of the run now. */
export function minuteOf(seen: Seen, now_ms: number): number {
  if (!seen.run) return 0;
  return seen.run.ended ? seen.run.now_min : seen.run.now_min + ((now_ms - seen.told_ms) / 60_000) * seen.run.speed;
}

export function useRun(id: number): Seen & { waiting: readonly EventBody[]; press(what: Happened | readonly Happened[]): void } {
  const [seen, setSeen] = useState<Seen>({ run: undefined, told_ms: 0, connected: true, fault: undefined });
  const [waiting, setWaiting] = useState<readonly EventBody[]>(() => read(id));
  const newest = useRef(seen);
  useEffect(() => {
    newest.current = seen;
  }, [seen]);
  const tell = useCallback((run: Run) => setSeen({ run, told_ms: performance.now(), connected: true, fault: undefined }), []);
  useEffect(() => {
    let again: ReturnType<typeof setTimeout> | undefined;
    let source: EventSource | undefined;
    const open = () => {
      source = new EventSource(at(`/api/runs/${id}/live`));
      const stream = source;
      stream.addEventListener("run", (e) => tell(JSON.parse(e.data as string) as Run));
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
    keep(id, waiting);
    if (waiting.length === 0) return undefined;
    let over = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    const send = async () => {
      try {
        const run = await settled(api.POST("/api/runs/{id}/events", { params: { path: { id } }, body: [...waiting] }));
        if (over) return;
        tell(run);
        setWaiting((now) => now.filter((w) => !waiting.some((s) => s.press === w.press)));
      } catch (error) {
        if (over) return;
        if (error instanceof Refusal && error.problem.status > 0) {
          setSeen((s) => ({ ...s, fault: error.problem.errors[0]?.message ?? error.problem.detail }));
          setWaiting([]);
        } else {
          setSeen((s) => ({ ...s, connected: false }));
          again = setTimeout(() => void send(), AGAIN_MS);
        }
      }
    };
    void send();
    return () => {
      over = true;
      clearTimeout(again);
    };
  }, [id, waiting, tell]);
  const press = useCallback((what: Happened | readonly Happened[]) => {
    const at_min = minuteOf(newest.current, performance.now());
    const all = (Array.isArray(what) ? what : [what]) as Happened[];
    setWaiting((now) => [...now, ...all.map((one) => ({ press: crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`, what: one, at_min }))]);
  }, []);
  return { ...seen, waiting, press };
}

/** The steps that were pressed for and are not sent yet. */
export function pressed(waiting: readonly { what: Happened }[]): Set<number> {
  return new Set(waiting.flatMap(({ what }) => ((what.kind === "done" || what.kind === "started" || what.kind === "dropped") && "task" in what ? [what.task] : [])));
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
