/** What is to be tried today: the test of a cause in a line, a trial with which piece is which. */
import { useQueries } from "@tanstack/react-query";
import { Link } from "react-router";
import { triesQuery } from "../api/ledger";
import { Says } from "../kit/Says";
import { LETTERS, TrialTray } from "../stations/ledger/TrialTray";

export function ToTry({ jobs }: { jobs: readonly number[] }) {
  const asked = useQueries({
    queries: jobs.map((id) => ({ ...triesQuery(id), retry: false })),
  });
  // Two lots of one dough have the same.
  const open = new Map(
    asked.flatMap((q, i) =>
      (q.data ?? []).filter((t) => !t.noted).map((t) => [t.id, { ...t, job: jobs[i] }] as const),
    ),
  );
  if (open.size === 0) return null;
  return (
    <ul aria-label="Tests today" className="rounded-xl bg-worktop px-4 py-1">
      {[...open.values()].map((t) => (
        <li key={t.id} className="border-t border-rule py-1 first:border-t-0">
          {t.test ? (
            <p className="py-1.5">
              <strong>Test:</strong> <Says of={t.test.says} />{" "}
              <Link to={`/jobs/${t.job}/ledger/trials`} className="underline">
                Enter the result
              </Link>
            </p>
          ) : t.trial ? (
            <details>
              <summary className="min-h-11 cursor-pointer py-1.5">
                <strong>Test:</strong> {t.name},{" "}
                {t.trial.ways.map((name, way) => `${LETTERS[way]} ${name}`).join(", ")}
              </summary>
              <div className="flex flex-wrap gap-4 py-2">
                {t.trial.trays.map((_, tray) => (
                  <div key={tray} className="w-full max-w-md">
                    {t.trial ? <TrialTray trial={t.trial} tray={tray} /> : null}
                  </div>
                ))}
              </div>
              <p className="pb-2">
                Lay them out like this. Keep track of the letters after baking.{" "}
                <Link to={`/jobs/${t.job}/ledger/trials`} className="underline">
                  Enter measurements
                </Link>
              </p>
            </details>
          ) : null}
        </li>
      ))}
    </ul>
  );
}
