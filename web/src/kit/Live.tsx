/** A figure that marks itself for a moment when it changes. */
import { useEffect, useRef, useState } from "react";

/** What arrives within this time after a view opens belongs to its opening and is no change, ms. */
const OPENING_MS = 1500;

export function Live({ value, className = "" }: { value: string; className?: string }) {
  const before = useRef(value);
  const opened = useRef(0);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    opened.current = performance.now();
  }, []);
  useEffect(() => {
    if (before.current === value) return;
    const shown = before.current !== "" && performance.now() - opened.current > OPENING_MS;
    before.current = value;
    if (shown) setTurn((t) => t + 1);
  }, [value]);
  return (
    <span key={turn} className={turn > 0 ? `changed ${className}` : className} data-live="">
      {value}
    </span>
  );
}
