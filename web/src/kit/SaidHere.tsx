/** Where what has just been done is said. */
import { useSyncExternalStore } from "react";
import { say } from "../drawing/sentence";
import { onSaid, saidNow } from "./said";
import { useFormat } from "./settings";

export function SaidHere() {
  const now = useSyncExternalStore(onSaid, saidNow);
  const format = useFormat();
  const { back, backAs } = now ?? {};
  return (
    <div className="no-print pointer-events-none fixed inset-x-0 bottom-4 z-40 flex justify-center px-3">
      <p
        role="status"
        className={
          now
            ? "pointer-events-auto flex max-w-xl items-center gap-3 rounded-xl bg-ink px-4 py-2 text-worktop shadow-lg"
            : "visually-hidden"
        }
      >
        {now ? <span key={now.number}>{say(now.text, format)}</span> : null}
        {back ? (
          <button
            type="button"
            className="btn btn-small bg-worktop text-ink"
            onClick={() => void back().catch(() => undefined)}
          >
            {backAs}
          </button>
        ) : null}
      </p>
    </div>
  );
}
