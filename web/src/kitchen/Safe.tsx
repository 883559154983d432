/** Where the bakery is kept a second time: when the last backup was made and where, one made now, and one to take away. */
import { Fold } from "../kit/Fold";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { at } from "../api/base";
import { api, settled } from "../api/client";
import { clock, longDay, now, sameDay } from "../drawing/time";
import { Fault, otherFault } from "../kit/Fault";
import { Unread } from "../kit/Unread";

const KEY = ["backups"];

/** `340 kB`, `1.2 MB`. */
const size = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))}\u00a0kB` : `${(bytes / 1e6).toFixed(1)}\u00a0MB`;

const when = (time: string): string =>
  sameDay(time, now()) ? `today, ${clock(time)}` : `${longDay(time)}, ${clock(time)}`;

export function Safe() {
  const kept = useQuery({ queryKey: KEY, queryFn: () => settled(api.GET("/api/backups")) });
  const client = useQueryClient();
  const make = useMutation({
    mutationFn: () => settled(api.POST("/api/backups")),
    onSuccess: (found) => client.setQueryData(KEY, found),
  });
  const last = kept.data?.all[0];
  return (
    <section className="rounded-xl border border-rule bg-raised p-4 xl:col-span-2" aria-labelledby="safe">
      <h2 id="safe" className="h-part">
        Backups
      </h2>
      {kept.data ? (
        <>
          <p className="mt-1" role="status">
            {last ? (
              <>
                Last backup {when(last.made_at)}, {size(last.bytes)}.
              </>
            ) : (
              "No backup yet."
            )}{" "}
            Disks fail: save a copy on another one now and then.
          </p>
          <Fold name="backups" title="Where backups are and how to restore one">
            <ul className="space-y-1 text-fine text-soft">
              <li>The program backs up every day and before each update.</li>
              <li>
                The newest {kept.data.keep} stay in{" "}
                <span className="break-all font-semibold">{kept.data.folder}</span>.
              </li>
              <li>
                Restore one with <code className="num">ready-slab restore FILE</code>.
              </li>
              <li>
                Import an open archive with <code className="num">ready-slab import FILE</code>.
              </li>
            </ul>
          </Fold>
          <div className="mt-3 flex flex-wrap gap-2">
            <button type="button" className="btn" disabled={make.isPending} onClick={() => make.mutate()}>
              Back up now
            </button>
            <a className="btn" href={at("/api/backups/now")} download>
              Download a copy
            </a>
            <a className="btn" href={at("/api/backups/archive")} download>
              Download an open archive
            </a>
          </div>
          {kept.data.all.length > 1 ? (
            <details className="mt-3">
              <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
                All {kept.data.all.length} backups
              </summary>
              <ul>
                {kept.data.all.map((b) => (
                  <li
                    key={b.file}
                    className="flex flex-wrap justify-between gap-x-4 border-t border-rule py-1.5"
                  >
                    <span className="break-all">{b.file}</span>
                    <span className="num text-soft">{size(b.bytes)}</span>
                  </li>
                ))}
              </ul>
            </details>
          ) : null}
        </>
      ) : (
        <Unread of={[kept]} />
      )}
      <Fault text={otherFault(make.error, [])} />
    </section>
  );
}
