/** The followed pieces, as the server streams them. One stream for the whole program; the server reckons, this only holds. */
import { stillLetIn } from "./letin";
import { at } from "../api/base";
import { useSyncExternalStore } from "react";
import type { LivePiece, PieceNow } from "../api/client";

export interface LiveState {
  /** Nothing before the first word of the server. */
  pieces: LivePiece[] | undefined;
  connected: boolean;
}

/** So long until a stream that was refused is asked for again; a lost one the browser asks for itself. */
const AGAIN_MS = 2000;

/** The pages of one browser share one stream: it allows but six connections to a server. */
const SHARED = "ready-slab-live";
const HELLO = "hello";

/** The page that holds the stream says so often, and another that has heard nothing for so long takes it: a page in the background may be put to sleep. */
const BEAT_MS = 3000;
const SILENT_MS = 12_000;

let state: LiveState = { pieces: undefined, connected: true };
const listeners = new Set<() => void>();
let source: EventSource | undefined;
let again: ReturnType<typeof setTimeout> | undefined;
let channel: BroadcastChannel | undefined;
let leave: (() => void) | undefined;
let heard = 0;

function tell(message: LiveState | typeof HELLO): void {
  // oxlint-disable-next-line unicorn/require-post-message-target-origin -- a channel reaches its own origin only and takes none
  channel?.postMessage(message);
}

function set(next: LiveState): void {
  state = next;
  if (source) tell(next);
  listeners.forEach((told) => told());
}

/** Whether this page holds the stream; of several pages only one makes a sound. */
export const leads = (): boolean => source !== undefined;

/** The pieces with what the newest moment says of them. */
export function atMoment(pieces: readonly LivePiece[], now: readonly PieceNow[]): LivePiece[] {
  return pieces.map((p) => {
    const moment = now.find((n) => n.id === p.id);
    return moment ? { ...p, now: moment } : p;
  });
}

function open(): void {
  clearTimeout(again);
  source?.close();
  const stream = new EventSource(at("/api/cold/live"));
  source = stream;
  stream.addEventListener("pieces", (e) =>
    set({ pieces: JSON.parse(e.data as string) as LivePiece[], connected: true }),
  );
  stream.addEventListener("now", (e) =>
    set({
      pieces: atMoment(state.pieces ?? [], JSON.parse(e.data as string) as PieceNow[]),
      connected: true,
    }),
  );
  stream.addEventListener("error", () => {
    if (state.connected) set({ ...state, connected: false });
    if (stream.readyState !== EventSource.CLOSED) return;
    stillLetIn();
    again = setTimeout(open, AGAIN_MS);
  });
}

function close(): void {
  clearTimeout(again);
  source?.close();
  source = undefined;
}

/** One page of the browser opens the stream and tells the others; when it goes, the next one does. */
function join(): void {
  if (!("locks" in navigator) || typeof BroadcastChannel === "undefined") {
    open();
    leave = close;
    return;
  }
  const shared = new BroadcastChannel(SHARED);
  channel = shared;
  shared.addEventListener("message", (e: MessageEvent<LiveState | typeof HELLO>) => {
    if (e.data === HELLO) {
      if (source && state.pieces) tell(state);
      return;
    }
    heard = performance.now();
    if (!source) set(e.data);
  });
  heard = performance.now();
  tell(HELLO);
  const waiting = new AbortController();
  let release: (() => void) | undefined;
  const lead = () => {
    open();
    return new Promise<void>((done) => {
      release = done;
    });
  };
  const queue = () => {
    // It ends by itself, or is taken by a page that heard nothing of this one: then this one waits its turn again.
    navigator.locks.request(SHARED, { signal: waiting.signal }, lead).catch(lost);
  };
  const lost = () => {
    if (waiting.signal.aborted) return;
    close();
    heard = performance.now();
    queue();
  };
  queue();
  const beat = setInterval(() => {
    if (source) {
      if (state.pieces) tell(state);
    } else if (performance.now() - heard > SILENT_MS && document.visibilityState === "visible") {
      heard = performance.now();
      navigator.locks.request(SHARED, { steal: true }, lead).catch(lost);
    }
  }, BEAT_MS);
  leave = () => {
    waiting.abort();
    clearInterval(beat);
    close();
    release?.();
    shared.close();
    channel = undefined;
  };
}

function subscribe(told: () => void): () => void {
  if (listeners.size === 0) join();
  listeners.add(told);
  return () => {
    listeners.delete(told);
    if (listeners.size === 0) leave?.();
  };
}

export const useLive = (): LiveState => useSyncExternalStore(subscribe, () => state);
