/** What lies behind a figure or is seldom decided: closed until somebody asks, and then as it was left on this device. */
import { useState, type ReactNode, type SyntheticEvent } from "react";
import { BASE } from "../api/base";
import type { Said } from "../drawing/sentence";
import { Reasons } from "./Ticket";

function wasOpen(key: string): boolean {
  try {
    return localStorage.getItem(key) === "open";
  } catch {
    return false;
  }
}

function remember(key: string, open: boolean): void {
  try {
    if (open) localStorage.setItem(key, "open");
    else localStorage.removeItem(key);
  } catch {
    // No room, or not allowed: it is as it is until the page is left.
  }
}

interface FoldProps {
  /** What it is remembered by. */
  name: string;
  title: string;
  children: ReactNode;
  /** Its title is the head of a part. */
  part?: boolean;
}

export function Fold({ name, title, children, part = false }: FoldProps) {
  const key = `${BASE}fold/${name}`;
  const [open] = useState(() => wasOpen(key));
  return (
    <details
      className={`fold no-print ${part ? "border-t border-rule" : ""}`}
      open={open}
      onToggle={(e: SyntheticEvent<HTMLDetailsElement>) => remember(key, e.currentTarget.open)}
    >
      <summary className={part ? "h-part" : "text-fine text-soft"}>{title}</summary>
      <div className="pb-2">{children}</div>
    </details>
  );
}

/** The reasons of a part. */
export function Why({
  name,
  items,
  title = "Why?",
  part = false,
}: { items: readonly Said[] } & Partial<FoldProps> & Pick<FoldProps, "name">) {
  if (items.length === 0) return null;
  return (
    <Fold name={name} title={title} part={part}>
      <Reasons items={items} />
    </Fold>
  );
}
