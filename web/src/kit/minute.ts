/** What the kitchen's clock shows, kept up while the page is open. */
import { useEffect, useState } from "react";
import { now } from "../drawing/time";

const LOOK_MS = 10_000;

export function useMinute(): string {
  const [minute, setMinute] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => setMinute(now()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return minute;
}
