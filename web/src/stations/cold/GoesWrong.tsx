/** What to do when something goes wrong, with this job's own figures. */
import { useSearchParams } from "react-router";
import type { Trouble } from "../../api/client";
import { useAdvice } from "../../api/cold";
import { useJobContext } from "../../app/JobFrame";
import { duration } from "../../drawing/time";
import { say, textOf } from "../../drawing/sentence";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Why } from "../../kit/Fold";
import { Cautions, Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ColdNav } from "./ColdNav";

const TROUBLES: readonly { value: Trouble; label: string }[] = [
  { value: "too_warm", label: "Dough too warm" },
  { value: "too_hard", label: "Dough too hard" },
  { value: "warm_room", label: "Hot room" },
  { value: "no_space", label: "No room in the fridge" },
  { value: "power_out", label: "Power’s out" },
];

const FIGURES = {
  dough_c: { label: "Middle of the dough", kind: "temperature", step: 0.5 },
  room_c: { label: "Room", kind: "temperature", step: 1 },
  ago_min: { label: "Power out for", kind: "duration", step: 10 },
} as const;
/** Which figures belong to a trouble; what they begin with is the server's to say. */
const OF: Record<Trouble, readonly (keyof typeof FIGURES)[]> = {
  too_warm: ["dough_c"],
  too_hard: ["dough_c"],
  warm_room: ["room_c"],
  no_space: [],
  power_out: ["dough_c", "ago_min"],
};

export function GoesWrong() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const trouble = TROUBLES.find((t) => t.value === search.get("trouble"))?.value ?? "too_warm";
  const asked = Object.fromEntries(
    OF[trouble].filter((n) => search.get(n) !== null).map((n) => [n, Number(search.get(n))]),
  );
  const advice = useAdvice(job.id, { trouble, ...asked });
  const a = advice.data;
  return (
    <>
      <Work dim={dim || advice.isPlaceholderData}>
        <StationHead title="If it goes wrong" sub="for this job, in your kitchen" />
        <ColdNav jobId={job.id} />
        <div className="mb-4">
          <Choice
            label="What’s wrong"
            value={trouble}
            options={TROUBLES}
            onChange={(t) => setSearch({ trouble: t }, { replace: true })}
          />
        </div>
        <div className="mb-4 grid max-w-[34rem] grid-cols-2 gap-3">
          {OF[trouble].map((n) => (
            <Amount
              key={`${trouble} ${n}`}
              label={FIGURES[n].label}
              kind={FIGURES[n].kind}
              step={FIGURES[n].step}
              value={asked[n] ?? Math.round((a?.[n] ?? 0) * 10) / 10}
              field={n}
              onSave={(value) => {
                setSearch(
                  (s) => {
                    s.set("trouble", trouble);
                    s.set(n, String(value));
                    return s;
                  },
                  { replace: true },
                );
                return Promise.resolve();
              }}
            />
          ))}
        </div>
        <Fault text={otherFault(advice.error, [])} />
        {a && !advice.error ? (
          <>
            <p className="say mb-4 max-w-[46rem]" role="status">
              {say(a.headline, format)}
            </p>
            <ol>
              {a.remedies.map((r) => (
                <li
                  key={textOf(r.what)}
                  className="grid grid-cols-[6.5rem_1fr] gap-x-4 border-t border-rule py-3 sm:grid-cols-[8rem_1fr]"
                >
                  <p className="font-head text-2xl font-bold tracking-tight tabular-nums">
                    {r.takes_min == null
                      ? ""
                      : r.takes_min < 0.5
                        ? "right away"
                        : duration(Math.max(1, r.takes_min))}
                  </p>
                  <div>
                    <p className="font-semibold">{say(r.what, format)}</p>
                    <p className="text-soft">{r.why.map((why) => say(why, format)).join(" ")}</p>
                  </div>
                </li>
              ))}
            </ol>
          </>
        ) : null}
      </Work>
      <TicketBox>
        <Part title="Keep it safe">
          <Cautions
            items={
              a?.caution
                ? [a.caution, ...plan.cautions.filter((c) => !a.caution?.text.includes(c.text))]
                : plan.cautions
            }
          />
        </Part>
        <Why
          name="trouble"
          part
          title="Where these times come from"
          items={["Same math as the plan: your recipe, your fridge and freezer, and how the dough felt."]}
        />
      </TicketBox>
    </>
  );
}
