/** The followed pieces, as the server streams them. One stream for the whole program; the server reckons, this only holds. */
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

let state: LiveState = { pieces: undefined, connected: true };
const listeners = new Set<() => void>();
let source: EventSource | undefined;
let again: ReturnType<typeof setTimeout> | undefined;
let channel: BroadcastChannel | undefined;
let leave: (() => void) | undefined;

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
  const stream = new EventSource("/api/cold/live");
  source = stream;
  stream.addEventListener("pieces", (e) => set({ pieces: JSON.parse(e.data as string) as LivePiece[], connected: true }));
  stream.addEventListener("now", (e) => set({ pieces: atMoment(state.pieces ?? [], JSON.parse(e.data as string) as PieceNow[]), connected: true }));
  stream.addEventListener("error", () => {
    if (state.connected) set({ ...state, connected: false });
    if (stream.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS);
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
    if (e.data !== HELLO) set(e.data);
    else if (source && state.pieces) tell(state);
  });
  tell(HELLO);
  const waiting = new AbortController();
  let release: (() => void) | undefined;
  const held = navigator.locks.request(SHARED, { signal: waiting.signal }, () => {
    open();
    return new Promise<void>((done) => {
      release = done;
    });
  });
  held.catch(() => undefined);
  leave = () => {
    waiting.abort();
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
