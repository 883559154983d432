/** Tells that a piece has become ready (or is no longer): a sound, a notification of the browser, the tab's title. */
import { useEffect, useRef, useSyncExternalStore } from "react";
import type { LivePiece } from "../api/client";
import { leftWords, stateWords } from "../stations/cold/words";
import { say } from "../kit/said";
import { leads } from "./live";
import { playSound, type Sound } from "./sounds";

export const SOUNDS: readonly { value: Sound; label: string }[] = [
  { value: "bell", label: "Bell" },
  { value: "chime", label: "Chime" },
  { value: "knock", label: "Knock" },
  { value: "none", label: "No sound" },
];

let sound: Sound = read();
const listeners = new Set<() => void>();

function read(): Sound {
  try {
    const kept = localStorage.getItem("sound");
    return SOUNDS.find((s) => s.value === kept)?.value ?? "bell";
  } catch {
    return "bell";
  }
}

export function setSound(next: Sound): void {
  sound = next;
  try {
    localStorage.setItem("sound", next);
  } catch {
    // A browser that keeps nothing still works; it only forgets.
  }
  listeners.forEach((told) => told());
  playSound(next);
}

export const useSound = (): Sound =>
  useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => sound,
  );

let base = "Ready Slab";
let lead = "";

function write(): void {
  document.title = lead ? `${lead} · ${base}` : base;
}

/** What the page is about; what the pieces are about comes before it. */
export function setTitle(text: string): void {
  base = text;
  write();
}

/** The ready first, then by how soon, those that never are last. */
const rank = (p: LivePiece): number =>
  p.now.side === "ready" ? -1e9 : p.never ? 1e9 : (p.now.left_min ?? 1e9) / p.clock_speed;

/** The one piece the tab's title speaks of: one that is ready, else the one that is ready next. */
export function foremost(pieces: readonly LivePiece[]): LivePiece | undefined {
  return pieces.toSorted((a, b) => rank(a) - rank(b))[0];
}

/** Pieces that were not ready when they were last looked at, and are now; and those that were and are no longer. */
export function turned(
  before: ReadonlyMap<number, string>,
  pieces: readonly LivePiece[],
): { ready: LivePiece[]; past: LivePiece[] } {
  const was = (p: LivePiece) => before.get(p.id);
  return {
    ready: pieces.filter((p) => was(p) !== undefined && was(p) !== "ready" && p.now.side === "ready"),
    past: pieces.filter((p) => was(p) === "ready" && p.now.side !== "ready"),
  };
}

/** Tells it outside this page, where that is allowed. */
export function notify(title: string, body: string, tag: string): void {
  if (typeof Notification === "undefined" || Notification.permission !== "granted") return;
  try {
    const shown = new Notification(title, { body, tag });
    shown.addEventListener("click", () => focus());
  } catch {
    // Some phones let only installed programs notify; the sound and the title remain.
  }
}

export function useAlerts(pieces: readonly LivePiece[] | undefined): void {
  const seen = useRef<Map<number, string> | undefined>(undefined);
  useEffect(() => {
    const first = pieces ? foremost(pieces) : undefined;
    lead = first
      ? first.now.side === "ready"
        ? `Ready: ${first.name}`
        : `${first.name}: ${leftWords(first)}`
      : "";
    write();
    if (!pieces) return;
    if (seen.current) {
      const { ready, past } = turned(seen.current, pieces);
      for (const p of ready)
        notify(
          `${p.name}: ${stateWords(p).toLowerCase()}`,
          `${p.job_name}. ${leftWords(p)}`,
          `piece-${p.id}`,
        );
      for (const p of past) notify(`${p.name}: ${stateWords(p).toLowerCase()}`, p.job_name, `piece-${p.id}`);
      const told = [...ready, ...past].map((p) => `${p.name}: ${stateWords(p).toLowerCase()}.`).join(" ");
      if (told) say(told);
      if (told && leads()) playSound(sound);
    }
    seen.current = new Map(pieces.map((p) => [p.id, p.now.side ?? ""]));
  }, [pieces]);
}
