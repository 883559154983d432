/** What is half typed or ticked off, kept for as long as this window is open: a look at another page does not lose it. */
import { BASE } from "../api/base";
import { useCallback, useEffect, useRef, useState, type Dispatch, type SetStateAction } from "react";

function read<T>(key: string, otherwise: T): T {
  try {
    const text = sessionStorage.getItem(BASE + key);
    return text === null ? otherwise : (JSON.parse(text) as T);
  } catch {
    return otherwise;
  }
}

function write(key: string, value: unknown): void {
  try {
    sessionStorage.setItem(BASE + key, JSON.stringify(value));
  } catch {
    // No room, or not allowed: it is kept as long as the page is.
  }
}

/** Like `useState`, under a name; another name is another value. */
export function useKept<T>(key: string, initial: T): [T, Dispatch<SetStateAction<T>>] {
  const [at, setAt] = useState({ key, value: read(key, initial) });
  const value = at.key === key ? at.value : read(key, initial);
  useEffect(() => write(key, value), [key, value]);
  const begins = useRef(initial);
  // The same function while the name is the same, as `useState` has it: an effect may rest on it.
  const set: Dispatch<SetStateAction<T>> = useCallback(
    (wanted) =>
      setAt((now) => {
        const before = now.key === key ? now.value : read(key, begins.current);
        return { key, value: typeof wanted === "function" ? (wanted as (b: T) => T)(before) : wanted };
      }),
    [key],
  );
  return [value, set];
}
