/** What was learnt of the kitchen's cold places from readings, and of the dough from hands. Both can be forgotten. */
import { Why } from "../../kit/Fold";
import { useState } from "react";
import type { Place, TouchBody } from "../../api/client";
import {
  useAddTouch,
  useDeleteTouch,
  usePlaces,
  usePlaceUse,
  useResetPlace,
  useTouches,
} from "../../api/cold";
import { useJobContext } from "../../app/JobFrame";
import { dayClock, localTime } from "../../drawing/time";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ColdNav } from "./ColdNav";

const TOUCHES: Record<"rolling" | "slicing", readonly { value: TouchBody["touch"]; label: string }[]> = {
  rolling: [
    { value: "cracked", label: "It cracked" },
    { value: "right", label: "Just right" },
    { value: "stuck", label: "It stuck" },
  ],
  slicing: [
    { value: "right", label: "Just right" },
    { value: "squashed", label: "It squashed" },
  ],
};

export function Learnt() {
  const { job, dim } = useJobContext();
  const places = usePlaces();
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title="What we’ve learned"
          sub="your fridge and freezer from readings, your dough from how it felt"
        />
        <ColdNav jobId={job.id} />
        <h3 className="h-part mb-1">Your fridge and freezer</h3>
        <p className="mb-1 max-w-[44rem] text-soft">
          The mark is what plans use; the bar holds it 9 times in 10.
        </p>
        <Why
          name="learned"
          items={["Readings move the mark and shorten the bar.", "A crowded fridge counts separately."]}
        />
        <ul className="grid gap-4 md:grid-cols-2">
          {(["fridge", "freezer"] as const).map((name) => (
            <PlaceCard key={name} name={name} uses={places.data?.filter((p) => p.place === name) ?? []} />
          ))}
        </ul>
        <Limits />
      </Work>
      <TicketBox>
        <Part title="How did it feel?">
          <Feel />
        </Part>
      </TicketBox>
    </>
  );
}

function PlaceCard({ name, uses }: { name: "fridge" | "freezer"; uses: readonly Place[] }) {
  const format = useFormat();
  const use = usePlaceUse();
  const reset = useResetPlace();
  const present = uses.find((u) => u.present);
  return (
    <li className="rounded-xl border-2 border-rule p-4">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h4 className="h-part capitalize">{name}</h4>
        <Choice
          label={`How you use the ${name} now`}
          value={present?.busy ? "busy" : "usual"}
          options={[
            { value: "usual", label: "As usual" },
            { value: "busy", label: "Crowded, opened often" },
          ]}
          onChange={(v) => use.mutate({ place: name, busy: v === "busy" })}
        />
      </div>
      {uses.map((u) => (
        <div key={String(u.busy)} className={`border-t border-rule py-3 ${u.present ? "" : "text-soft"}`}>
          <p className="mb-1 flex flex-wrap items-baseline justify-between gap-x-3">
            <span className="font-semibold">
              {u.busy ? "Crowded" : "As usual"}
              {u.present ? ", now" : ""}
            </span>
            <span className="text-fine text-soft">
              {u.pieces === 0
                ? "starting guess"
                : `from ${u.pieces === 1 ? "1 chill" : `${u.pieces} chills`}${u.taught_at ? `, last ${dayClock(localTime(u.taught_at))}` : ""}`}
            </span>
          </p>
          <Range
            label="Chilling speed"
            low={u.film_factor[0] ?? 1}
            middle={u.film_factor[1] ?? 1}
            high={u.film_factor[2] ?? 1}
            from={0.4}
            to={2.2}
            words={paceWords(u.film_factor[1] ?? 1)}
            mark={1}
          />
          <Range
            label="Air temperature"
            low={u.air_c - u.air_within_k}
            middle={u.air_c}
            high={u.air_c + u.air_within_k}
            from={u.set_c - 5}
            to={u.set_c + 7}
            words={`${format.temperature(u.air_c)} (dial says ${format.temperature(u.set_c)})`}
            mark={u.set_c}
          />
          {u.pieces > 0 ? (
            <button
              type="button"
              className="btn btn-small mt-2"
              aria-label={`Reset the ${u.busy ? "crowded " : ""}${name}`}
              onClick={() => {
                if (
                  confirm(`Reset the ${name} to the starting guess? It drops what ${u.pieces} chills showed.`)
                )
                  reset.mutate({ place: name, busy: u.busy });
              }}
            >
              Reset
            </button>
          ) : null}
        </div>
      ))}
      <Fault text={otherFault(use.error, []) ?? otherFault(reset.error, [])} />
    </li>
  );
}

/** A value with its range on an axis, and a notch where it was assumed to be. */
function Range({
  label,
  low,
  middle,
  high,
  from,
  to,
  words,
  mark,
}: {
  label: string;
  low: number;
  middle: number;
  high: number;
  from: number;
  to: number;
  words: string;
  mark: number;
}) {
  const x = (v: number) => Math.min(300, Math.max(0, (300 * (v - from)) / (to - from)));
  return (
    <div className="mt-1">
      <p className="flex justify-between gap-3 text-fine">
        <span>{label}</span>
        <span className="num">{words}</span>
      </p>
      <svg viewBox="0 0 300 18" className="w-full" role="img" aria-label={`${label}: ${words}`}>
        <path d="M0 9h300" className="stroke-rule" strokeWidth="1.5" />
        <path d={`M${x(mark)} 2v14`} className="stroke-edge" strokeWidth="1.5" strokeDasharray="2 2" />
        <rect x={x(low)} y="5" width={Math.max(2, x(high) - x(low))} height="8" rx="4" className="fill-ice" />
        <path d={`M${x(middle)} 1v16`} className="stroke-ink" strokeWidth="3" />
      </svg>
    </div>
  );
}

function Feel() {
  const { job, plan } = useJobContext();
  const add = useAddTouch(job.id);
  const [purpose, setPurpose] = useState<"rolling" | "slicing">("rolling");
  const [dough, setDough] = useState(Math.round(plan.cold.window.rolls_to_c - 2));
  return (
    <div className="space-y-3">
      <p className="text-soft">Tell us how it felt. We use it in every job with this dough.</p>
      <Choice
        label="What you did"
        value={purpose}
        options={
          [
            { value: "rolling", label: "Rolled" },
            { value: "slicing", label: "Sliced" },
          ] as const
        }
        onChange={(p: "rolling" | "slicing") => setPurpose(p)}
      />
      <Amount
        label="Dough temperature"
        kind="temperature"
        value={dough}
        field="dough_c"
        step={0.5}
        onSave={(c) => {
          setDough(c);
          return Promise.resolve();
        }}
      />
      <div className="flex flex-wrap gap-2">
        {TOUCHES[purpose].map((t) => (
          <button
            key={t.value}
            type="button"
            className="btn"
            disabled={add.isPending}
            onClick={() => add.mutate({ purpose, touch: t.value, dough_c: dough })}
          >
            {t.label}
          </button>
        ))}
      </div>
      <Fault text={otherFault(add.error, [])} />
    </div>
  );
}

function Limits() {
  const { job } = useJobContext();
  const format = useFormat();
  const touches = useTouches(job.id);
  const remove = useDeleteTouch();
  const t = touches.data;
  if (!t) return null;
  return (
    <section className="mt-6" aria-labelledby="limits-head">
      <h3 id="limits-head" className="h-part mb-1">
        This dough
      </h3>
      {t.limits.length === 0 ? (
        <p className="text-soft">Mostly liquid fat: no set temperatures for rolling or slicing.</p>
      ) : null}
      <table className="w-full max-w-[46rem] text-left">
        <thead className="text-fine text-soft">
          <tr>
            <th className="py-1 font-normal">Limit</th>
            <th className="py-1 pl-2 text-right font-normal">From its fat</th>
            <th className="py-1 pl-2 text-right font-normal">Now</th>
            <th className="py-1 pl-2 text-right font-normal">Give or take</th>
            <th className="hidden py-1 pl-2 text-right font-normal sm:table-cell">Times noted</th>
          </tr>
        </thead>
        <tbody>
          {t.limits.map((l) => (
            <tr key={l.name} className="border-t border-rule">
              <th className="py-2 font-normal">{l.name.charAt(0).toUpperCase() + l.name.slice(1)}</th>
              <td className="num py-2 pl-2 text-right">{format.temperature(l.by_fat_c)}</td>
              <td className="num py-2 pl-2 text-right font-semibold">{format.temperature(l.now_c)}</td>
              <td className="num py-2 pl-2 text-right">±{format.difference(l.within_k)}</td>
              <td className="num hidden py-2 pl-2 text-right sm:table-cell">{l.findings}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {t.touches.length > 0 ? (
        <ul className="mt-3 max-w-[46rem]" aria-label="How it felt">
          {t.touches.map((f) => (
            <li key={f.id} className="flex items-center gap-4 border-t border-rule">
              <span className="num w-24 text-soft">{dayClock(localTime(f.noted_at))}</span>
              <span className="flex-1">
                {f.purpose === "rolling" ? "Rolled" : "Sliced"} at{" "}
                <span className="num">{format.temperature(f.dough_c)}</span>: {f.touch}
              </span>
              <button
                type="button"
                className="btn btn-quiet btn-small"
                aria-label={`Remove ${f.touch} at ${format.temperature(f.dough_c)}`}
                onClick={() => remove.mutate(f.id)}
              >
                Remove
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-3 text-soft">No notes on how it felt yet.</p>
      )}
      <Fault text={otherFault(remove.error, [])} />
    </section>
  );
}

/** How much quicker or slower than assumed: heat that passes so many times as well. */
function paceWords(factor: number): string {
  const percent = Math.round(Math.abs(factor - 1) * 100);
  if (percent < 1) return "as fast as usual";
  return `${percent}% ${factor > 1 ? "faster" : "slower"} than usual`;
}
