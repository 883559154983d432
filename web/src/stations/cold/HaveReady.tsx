/** The question turned round: it should be ready at a time, so what must be done? */
import { capital } from "../../drawing/sentence";
import { Says } from "../../kit/Says";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useWanted } from "../../api/cold";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, duration, nearest, nextAfter, shifted } from "../../drawing/time";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { TimeField } from "../../kit/TimeField";
import { useFormat } from "../../kit/settings";
import { formWords, readyTo } from "./words";

type Way = Schemas["WantedWayView"];

export function HaveReady() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const [inTyped, setInTyped] = useState<string>();
  const [readyTyped, setReadyTyped] = useState<string>();
  const inAt = inTyped ? nearest(plan.cold.in_at, inTyped) : plan.cold.in_at;
  // Until somebody says when, as the plan has it: no other time stands beside that.
  const readyAt = readyTyped
    ? nextAfter(inAt, readyTyped)
    : inTyped
      ? shifted(inAt, plan.cold.told?.latest_min ?? 20)
      : plan.cold.ready_latest_at;
  const wanted = useWanted(job.id, inAt, readyAt);
  const ways = wanted.error ? [] : (wanted.data?.ways ?? []);
  const form = (w: Way) =>
    w.piece.kind === "disc"
      ? `Disc, ${format.length(w.piece.thickness_mm)}`
      : w.piece.kind === "sheet"
        ? `Sheets, ${format.length(w.piece.thickness_mm)}`
        : capital(formWords(w.piece, format));
  const take = (w: Way) => w.take && change.mutate(w.take);
  return (
    <section className="no-print mt-6" aria-labelledby="wanted-head">
      <h3 id="wanted-head" className="h-part mb-2">
        Ready by a set time
      </h3>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <div className="w-36">
          <TimeField
            id="goes-in"
            label="Goes in at"
            value={inAt}
            field="in_at"
            onSave={async (time) => setInTyped(time)}
          />
        </div>
        <div className="w-36">
          <TimeField
            id="ready-at"
            label={`${readyTo(plan.cold.purpose)} by`}
            value={readyAt}
            field="ready_at"
            onSave={async (time) => setReadyTyped(time)}
          />
        </div>
        <p className="pb-2.5 text-soft">
          {wanted.data && !wanted.error ? `${duration(wanted.data.within_min)} to chill` : ""}
        </p>
      </div>
      <Fault text={faultOf(wanted.error, "ready_at") ?? otherFault(wanted.error, ["ready_at"])} />
      <ul className={wanted.isPlaceholderData ? "opacity-60" : ""} aria-label="Ways to be ready in time">
        {ways.map((w) => (
          <li
            key={`${w.piece.kind} ${w.place}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2"
          >
            <span className="w-44">
              <span className="font-semibold">{form(w)}</span>
              <span className="text-soft">, {w.place}</span>
            </span>
            <span className="min-w-52 flex-1">
              {w.never ? (
                <span className="text-warm">{w.never ? <Says of={w.never} /> : null}</span>
              ) : w.makes_it ? (
                <>
                  <strong>In by {clock(w.in_by ?? inAt)}</strong>, up to {duration(w.needs_min ?? 0)}
                </>
              ) : w.thickest_mm ? (
                <>
                  <strong>In time at {format.length(w.thickest_mm)}</strong>, now up to{" "}
                  {duration(w.needs_min ?? 0)}
                </>
              ) : (
                <>Not in time, up to {duration(w.needs_min ?? 0)}</>
              )}
            </span>
            {w.makes_it ? (
              <button
                type="button"
                className="btn btn-small"
                aria-label={`Use this: ${form(w)}, ${w.place}`}
                onClick={() => take(w)}
              >
                Use this
              </button>
            ) : w.thickest_mm ? (
              <button type="button" className="btn btn-small" onClick={() => take(w)}>
                Press to {format.length(w.thickest_mm)}
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <Fault text={otherFault(change.error, [])} />
    </section>
  );
}
