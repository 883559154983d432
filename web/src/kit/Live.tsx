/** A figure that marks itself for a moment when it changes. */
import { useEffect, useRef, useState } from "react";

export function Live({ value, className = "" }: { value: string; className?: string }) {
  const before = useRef(value);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    if (before.current !== value) {
      before.current = value;
      setTurn((t) => t + 1);
    }
  }, [value]);
  return (
    <span key={turn} className={turn > 0 ? `changed ${className}` : className} data-live="">
      {value}
    </span>
  );
}
