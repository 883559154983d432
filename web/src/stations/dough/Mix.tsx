/** The mixing sheet: temperatures, what to sift, the steps with their stops; readable from the bench, and printed. */
import type { Mixing } from "../../api/client";
import { useChangeJob, useMixing } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { say } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Why } from "../../kit/Fold";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Unread } from "../../kit/Unread";
import { useKept } from "../../kit/kept";
import { useFormat } from "../../kit/settings";
import { Bowl } from "./Bowl";
import { KeptVersion } from "./Dough";
import { DoughNav } from "./DoughNav";
import { Tints } from "../../kit/Tints";

export function Mix() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const sheet = useMixing(job.id);
  const m = sheet.data;
  return (
    <>
      <Work dim={dim || sheet.isFetching}>
        <StationHead
          title="Mixing card"
          sub={
            m
              ? `${m.formula}, ${m.mixes === 1 ? format.mass(m.mix_g) : `${m.mixes} batches of ${format.mass(m.mix_g)}`}`
              : undefined
          }
        >
          <button type="button" className="btn btn-small" onClick={() => print()}>
            Print mixing card
          </button>
        </StationHead>
        <DoughNav jobId={job.id} />
        <KeptVersion />
        {m ? null : <Unread of={[sheet]} />}
        {m ? (
          <>
            <Temperatures m={m} />
            {m.sift.length > 0 ? (
              <p className="mb-4">
                <strong>Sift or whisk:</strong>{" "}
                {m.sift.map((s) => `${s.name.toLowerCase()} (${s.why})`).join("; ")}.
              </p>
            ) : null}
            <Steps m={m} />
            <p className="mt-4 text-fine text-soft">{m.cautions.join(" ")}</p>
          </>
        ) : null}
      </Work>
      <TicketBox>
        <HowMixed />
        {m ? <Bowl m={m} /> : null}
        <Why
          name="mix"
          part
          title="Why these temperatures?"
          items={[
            ...(plan.dough.dough_measured
              ? [`You measured ${format.temperature(plan.dough.dough_c)}. The plan uses it.`]
              : []),
            ...(m?.reasons ?? []),
          ]}
        />
        <NextStep station="dough" />
      </TicketBox>
    </>
  );
}

function Temperatures({ m }: { m: Mixing }) {
  const format = useFormat();
  const parts = [
    { name: "Butter", c: m.fats_c },
    { name: "Eggs and liquids", c: m.wet_c },
    { name: "Flour and sugar", c: m.dry_c },
  ];
  return (
    <div className="mb-4 grid grid-cols-2 gap-2 sm:grid-cols-4">
      {parts.map((p) => (
        <div key={p.name} className="rounded-xl border border-rule bg-raised px-3 py-2">
          <p className="text-fine text-soft">{p.name}</p>
          <p className="font-head text-2xl font-bold">{format.temperature(p.c, 0)}</p>
        </div>
      ))}
      <div
        className={`rounded-xl px-3 py-2 ${m.reached ? "bg-pale text-on-pale" : "bg-warm-pale text-warm"}`}
      >
        <p className="text-fine">Dough after mixing</p>
        <p className="font-head text-2xl font-bold">{format.temperature(m.dough_c)}</p>
        <p className="text-fine">
          aim for {format.temperature(m.dough_least_c, 0)} to {format.temperature(m.dough_most_c, 0)}
        </p>
      </div>
    </div>
  );
}

function minutes(least: number | null | undefined, most: number | null | undefined): string {
  if (least === null || least === undefined || most === null || most === undefined) return "";
  if (most <= 1) return `${number(least * 60, 0)}–${number(most * 60, 0)}\u00a0s`;
  return `${number(least, 1)}–${number(most, 1)}\u00a0min`;
}

function Steps({ m }: { m: Mixing }) {
  const format = useFormat();
  const { job } = useJobContext();
  // What is ticked off stays so while somebody looks at another page, until the formula's steps are others.
  const [done, setDone] = useKept<readonly string[]>(`mixing ${job.id}`, []);
  const toggle = (title: string) =>
    setDone((d) => (d.includes(title) ? d.filter((t) => t !== title) : [...d, title]));
  return (
    <ol className="space-y-3" aria-label="Steps">
      {m.steps.map((s, i) => {
        const ticked = done.includes(s.title);
        return (
          <li
            key={s.title}
            className={`break-inside-avoid rounded-xl border border-rule bg-raised p-4 ${ticked ? "opacity-55" : ""}`}
          >
            <div className="flex items-start gap-3">
              <button
                type="button"
                role="checkbox"
                aria-checked={ticked}
                aria-label={`Step ${i + 1}, ${s.title}, done`}
                className="tick no-print"
                onClick={() => toggle(s.title)}
              >
                {ticked ? "✓" : i + 1}
              </button>
              <div className="min-w-0 flex-1">
                <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                  <h3 className="text-xl">
                    <span className="hidden print:inline">{i + 1}. </span>
                    {s.title}
                  </h3>
                  <span className="num text-lg font-semibold">{minutes(s.least_min, s.most_min)}</span>
                </div>
                {s.takes.length > 0 ? (
                  <ul className="my-2 grid gap-x-8 sm:grid-cols-2">
                    {s.takes.map((t) => (
                      <li
                        key={t.name}
                        className="flex items-baseline justify-between gap-3 border-b border-rule py-1 text-lg"
                      >
                        <span>{t.name}</span>
                        <span className="text-right">
                          <span className="num whitespace-nowrap font-semibold">{format.mass(t.mass_g)}</span>
                          {format.units.weight === "cups" && t.beside ? (
                            <span className="block text-fine text-soft">{t.beside}</span>
                          ) : null}
                        </span>
                      </li>
                    ))}
                  </ul>
                ) : null}
                <p className="text-lg">{say(s.what, format)}</p>
                <p className="mt-1 text-lg">
                  <strong>Stop when:</strong> {say(s.stop, format)}
                </p>
                {s.scrape ? (
                  <p className="mt-1 text-fine text-soft">Scrape the sides and bottom of the bowl.</p>
                ) : null}
              </div>
            </div>
          </li>
        );
      })}
    </ol>
  );
}

function HowMixed() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const { dough } = plan;
  return (
    <Part title="How you mix">
      <div className="space-y-3">
        <Choice
          label="Mixing method"
          value={job.method}
          options={[
            { value: "just_combined", label: "Just combined" },
            { value: "light_and_fluffy", label: "Light and fluffy" },
            { value: "rubbed_in", label: "Cut in" },
            { value: "pulsed", label: "Food processor" },
          ]}
          onChange={(method) => change.mutate({ method })}
        />
        <p className="text-fine text-soft">
          {job.method === "pulsed"
            ? "Cold butter, pulsed 10 to 20 s. Short, with little spread."
            : job.method === "rubbed_in"
              ? "Crumbly, little spread, a colder dough."
              : job.method === "just_combined"
                ? "Little air: holds edges and stamped detail."
                : "More air, more lift, more spread, a softer bite."}
        </p>
        <Amount
          label="Held-back flour"
          kind="percent"
          value={job.hold_back_percent ?? 0}
          field="hold_back_percent"
          step={1}
          onSave={(hold_back_percent) => keep({ hold_back_percent })}
        />
        <Amount
          label="Measured dough temperature"
          kind="temperature"
          value={dough.dough_c}
          unset={!dough.dough_measured}
          placeholder={`${format.temperature(dough.dough_c)} forecast`}
          field="dough_c"
          step={0.5}
          onSave={(dough_c) => keep({ dough_c })}
        />
        {dough.dough_measured ? (
          <button type="button" className="btn btn-small" onClick={() => change.mutate({ dough_c: null })}>
            Use the forecast
          </button>
        ) : null}
        <Fault text={otherFault(change.error, ["hold_back_percent", "dough_c"])} />
        <Tints of="the dough" field="tints" tints={job.tints ?? []} onSave={(tints) => keep({ tints })} />
      </div>
    </Part>
  );
}
