import { useEffect, useRef, useState } from "react";

/**
 * What is being typed over a value that stands. It gives way when that value changes under it (an undo, another device), but not to
 * the change that the same field has sent just before.
 */
export function useTyped(stands: string) {
  const [begun, setBegun] = useState<{ on: string; typed: string; afterSending: boolean } | null>(null);
  // What stood here when the field last sent something; while it still does, the answer has not come.
  const sentOver = useRef<string>(undefined);
  const shown = useRef(stands);
  useEffect(() => {
    shown.current = stands;
  }, [stands]);
  return {
    /** What is typed; null when nothing is, or when it has given way. */
    typed: begun && (begun.on === stands || begun.afterSending) ? begun.typed : null,
    /** What was typed last, even where it has given way. */
    last: begun?.typed ?? null,
    type: (typed: string) => setBegun({ on: stands, typed, afterSending: sentOver.current === stands }),
    /** Ends it; with a text, only while that is what is typed. */
    end: (only?: string) => setBegun((now) => (only === undefined || now?.typed === only ? null : now)),
    sending: () => {
      sentOver.current = shown.current;
    },
    refused: () => {
      sentOver.current = undefined;
    },
  };
}
