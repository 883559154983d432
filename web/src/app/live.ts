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

let state: LiveState = { pieces: undefined, connected: true };
const listeners = new Set<() => void>();
let source: EventSource | undefined;
let again: ReturnType<typeof setTimeout> | undefined;

function set(next: LiveState): void {
  state = next;
  listeners.forEach((told) => told());
}

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

function subscribe(told: () => void): () => void {
  if (listeners.size === 0) open();
  listeners.add(told);
  return () => {
    listeners.delete(told);
    if (listeners.size === 0) close();
  };
}

export const useLive = (): LiveState => useSyncExternalStore(subscribe, () => state);
