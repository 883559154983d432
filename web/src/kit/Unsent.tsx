/** What was changed here and is not taken yet, and why. */
import { useEffect, useSyncExternalStore } from "react";
import { onOutgoing, outgoing, tryNow } from "../api/outgoing";
import { holdHere, pairHere } from "../app/letin";

/** Told of from the second try on: one that passes at once is seen by what it changes. */
const TOLD_FROM = 2;

export function Unsent() {
  const { waiting, held, tries } = useSyncExternalStore(onOutgoing, outgoing);
  useEffect(() => holdHere(() => outgoing().waiting > 0), []);
  if (!held || waiting === 0 || (tries < TOLD_FROM && held.problem.status !== 401)) return null;
  const changes = waiting === 1 ? "1 change is" : `${waiting} changes are`;
  const why =
    held.problem.status === 401
      ? "Connect this device again."
      : held.problem.status === 0
        ? "No answer from the server."
        : `The server says: ${held.problem.detail.replace(/\.$/, "")}.`;
  return (
    <div
      role="status"
      className="no-print fixed inset-x-3 bottom-3 z-40 mx-auto flex max-w-xl flex-wrap items-center gap-x-4 gap-y-1 rounded-2xl bg-warm-pale px-4 py-2 font-semibold text-warm shadow-lg"
    >
      <p className="min-w-0 flex-1">
        {why} {changes} saved here, to send again.
      </p>
      {held.problem.status === 401 ? (
        <a className="btn btn-small" href={pairHere()} target="_blank" rel="noreferrer" onClick={tryNow}>
          Enter a code
        </a>
      ) : (
        <button type="button" className="btn btn-small" onClick={tryNow}>
          Try now
        </button>
      )}
    </div>
  );
}
