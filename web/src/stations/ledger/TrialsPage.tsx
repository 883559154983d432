/** What is tried on purpose: trials of ways and tests of causes, planned, laid out, measured and read out. */
import { useState } from "react";
import { Link } from "react-router";
import { at } from "../../api/base";
import { api, settled, type Schemas } from "../../api/client";
import {
  useDeleteTry,
  useNoteTry,
  usePlanTrial,
  useTrialSize,
  useTries,
  useUnnoteTry,
  type Trial,
  type Try,
} from "../../api/ledger";
import { useJobContext } from "../../app/JobFrame";
import type { Said } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Says } from "../../kit/Says";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Unread } from "../../kit/Unread";
import { useFine } from "../../kit/fine";
import { useKept } from "../../kit/kept";
import { useFormat } from "../../kit/settings";
import { LedgerNav } from "./LedgerNav";
import { LETTERS, TrialTray } from "./TrialTray";
import { WaysChart } from "./WaysChart";
import { listed } from "./listed";

const MEASURES = [
  { value: "width", label: "Width" },
  { value: "thickness", label: "Thickness" },
] as const;

export function TrialsPage() {
  const { job, dim } = useJobContext();
  const tries = useTries(job.id);
  const open = tries.data?.filter((t) => !t.noted) ?? [];
  const done = tries.data?.filter((t) => t.noted) ?? [];
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        <StationHead
          title={
            tries.data
              ? open.length === 0
                ? "No tests planned"
                : open.length === 1
                  ? "1 test planned"
                  : `${open.length} tests planned`
              : "Tests"
          }
          sub={job.name}
        />
        {tries.data ? (
          <>
            {tries.data.length === 0 ? (
              <p className="max-w-xl text-lg text-soft">
                Two versions on one tray tell you more than two days’ bakes. Say what differs and the smallest
                difference that matters.
              </p>
            ) : null}
            <ul>
              {open.map((t) => (
                <Entry key={t.id} it={t} />
              ))}
            </ul>
            {done.length > 0 ? <h3 className="h-part mt-6">Past tests</h3> : null}
            <ul>
              {done.map((t) => (
                <Entry key={t.id} it={t} />
              ))}
            </ul>
          </>
        ) : (
          <Unread of={[tries]} />
        )}
      </Work>
      <TicketBox>
        <NewTrial jobId={job.id} />
      </TicketBox>
    </>
  );
}

function Entry({ it }: { it: Try }) {
  const remove = useDeleteTry();
  const again = useUnnoteTry();
  return (
    <li className="border-t border-rule py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h4 className="h-part">
          {it.test ? (
            <span>
              Test: <span className="font-normal">{it.name}</span>
            </span>
          ) : (
            it.name
          )}
        </h4>
        <span className="no-print -mr-3 flex flex-wrap gap-x-1">
          {it.trial && it.noted ? (
            <a className="btn btn-quiet btn-small" href={at(`/api/tries/${it.id}/noted.csv`)} download>
              Export CSV
            </a>
          ) : null}
          {it.noted ? (
            <button type="button" className="btn btn-quiet btn-small" onClick={() => again.mutate(it.id)}>
              Measure again
            </button>
          ) : null}
          <button
            type="button"
            className="btn btn-quiet btn-small"
            aria-label={`Remove ${it.name}`}
            onClick={() => remove.mutate(it.id)}
          >
            Remove
          </button>
        </span>
      </div>
      {it.says.map((s) => (
        <p key={s.text} className="mt-1 text-lg">
          <Says of={s} />
        </p>
      ))}
      {it.test ? <TestBody it={it} test={it.test} /> : null}
      {it.trial ? <TrialBody it={it} trial={it.trial} /> : null}
      <Fault text={otherFault(remove.error ?? again.error, [])} />
    </li>
  );
}

function TestBody({ it, test }: { it: Try; test: Schemas["CauseTestView"] }) {
  const note = useNoteTry();
  const lengths = useLengths();
  const [changed, setChanged] = useKept(`changed ${it.id}`, "");
  const [beside, setBeside] = useKept(`beside ${it.id}`, "");
  const [unread, setUnread] = useState<Said>();
  const save = async () => {
    setUnread(undefined);
    try {
      note.mutate({
        id: it.id,
        noted: { kind: "beside", changed_mm: await lengths(changed), beside_mm: await lengths(beside) },
      });
    } catch (fault) {
      setUnread(faultOf(fault, "text") ?? "That does not read.");
    }
  };
  return (
    <>
      <p className="mt-1">
        <Says of={test.says} />
      </p>
      {test.from ? (
        <p className="text-fine text-soft">
          Shows whether it’s “{test.of}” or “{test.from}”.
        </p>
      ) : null}
      {it.noted ? null : test.by_hand ? (
        <div className="mt-3 flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-main"
            disabled={note.isPending}
            onClick={() => note.mutate({ id: it.id, noted: { kind: "helped", helped: true } })}
          >
            It helped
          </button>
          <button
            type="button"
            className="btn"
            disabled={note.isPending}
            onClick={() => note.mutate({ id: it.id, noted: { kind: "helped", helped: false } })}
          >
            It made no difference
          </button>
        </div>
      ) : (
        <div className="mt-3 grid gap-3 sm:grid-cols-2">
          <Typed
            id={`changed-${it.id}`}
            label="Widths of the changed cookies"
            value={changed}
            onChange={setChanged}
          />
          <Typed
            id={`beside-${it.id}`}
            label="Widths of the ones beside them"
            value={beside}
            onChange={setBeside}
          />
          <button
            type="button"
            className="btn btn-main sm:justify-self-start"
            disabled={note.isPending}
            onClick={() => void save()}
          >
            See the result
          </button>
        </div>
      )}
      <Fault text={unread ?? otherFault(note.error, [])} />
    </>
  );
}

function TrialBody({ it, trial }: { it: Try; trial: Trial }) {
  const fine = useFine();
  return (
    <>
      <p className="mt-1 text-soft">
        {trial.per_way} cookies each · {trial.trays.length === 1 ? "1 tray" : `${trial.trays.length} trays`} ·
        measure {trial.measure === "width" ? "width" : "thickness"} · shows {fine.text(trial.difference_mm)}
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-5">
        {trial.ways.map((name, way) => (
          <li key={name}>
            <strong>{LETTERS[way]}</strong> {name}
          </li>
        ))}
      </ul>
      {it.noted ? (
        <WaysChart ways={it.ways} measure={trial.measure} />
      ) : (
        <>
          <div className="mt-3 grid gap-4 sm:grid-cols-2">
            {trial.trays.map((_, tray) => (
              <TrialTray key={tray} trial={trial} tray={tray} />
            ))}
          </div>
          <Measured it={it} trial={trial} />
        </>
      )}
    </>
  );
}

const cell = (tray: number, way: number) => `${tray} ${way}`;

/** What was measured, by tray and way. */
function Measured({ it, trial }: { it: Try; trial: Trial }) {
  const note = useNoteTry();
  const lengths = useLengths();
  const [typed, setTyped] = useKept<Record<string, string>>(`measured ${it.id}`, {});
  const [unread, setUnread] = useState<Said>();
  const save = async () => {
    setUnread(undefined);
    try {
      const trays_mm: number[][][] = [];
      for (const [tray] of trial.trays.entries()) {
        const of: number[][] = [];
        for (const [way] of trial.ways.entries()) of.push(await lengths(typed[cell(tray, way)] ?? ""));
        trays_mm.push(of);
      }
      note.mutate({ id: it.id, noted: { kind: "trial", trays_mm } });
    } catch (fault) {
      setUnread(faultOf(fault, "text") ?? "That does not read.");
    }
  };
  return (
    <details className="no-print mt-3" open={Object.keys(typed).length > 0 ? true : undefined}>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">Enter measurements</summary>
      <div className="space-y-3">
        {trial.trays.map((_, tray) =>
          trial.ways.map((name, way) => (
            <Typed
              key={cell(tray, way)}
              id={`try-${it.id}-${tray}-${way}`}
              label={`${trial.trays.length > 1 ? `Tray ${tray + 1}, ` : ""}${LETTERS[way]}: ${name}`}
              value={typed[cell(tray, way)] ?? ""}
              onChange={(text) => setTyped((now) => ({ ...now, [cell(tray, way)]: text }))}
            />
          )),
        )}
        <button type="button" className="btn btn-main" disabled={note.isPending} onClick={() => void save()}>
          See the result
        </button>
        <Fault text={unread ?? otherFault(note.error, [])} />
      </div>
    </details>
  );
}

function Typed({
  id,
  label,
  value,
  onChange,
}: {
  id: string;
  label: string;
  value: string;
  onChange(text: string): void;
}) {
  const us = useFormat().units.length === "in";
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        value={value}
        placeholder={us ? "3 13/16; 3 7/8" : "96.8 97.1 96.5"}
        autoComplete="off"
        onChange={(e) => onChange(e.target.value)}
      />
    </div>
  );
}

/** Lengths typed one after the other, read by the server in the units shown. */
function useLengths() {
  const format = useFormat();
  return async (text: string): Promise<number[]> => {
    const values: number[] = [];
    for (const part of listed(text))
      values.push(
        (
          await settled(
            api.POST("/api/units/parse", {
              body: { quantity: "length", text: part, default_symbol: format.symbol("length") },
            }),
          )
        ).value,
      );
    return values;
  };
}

const EMPTY = {
  name: "",
  ways: ["as usual", ""],
  measure: "width" as Schemas["EvenMeasure"],
  difference_mm: 1,
};

function NewTrial({ jobId }: { jobId: number }) {
  const fine = useFine();
  const [draft, setDraft] = useKept(`new trial ${jobId}`, EMPTY);
  const plan = usePlanTrial(jobId);
  const size = useTrialSize(jobId, {
    ways: draft.ways.length,
    measure: draft.measure,
    difference_mm: draft.difference_mm,
  });
  const way = (i: number, name: string) =>
    setDraft((now) => ({ ...now, ways: now.ways.map((w, k) => (k === i ? name : w)) }));
  const trays = size.data?.on_trays.length ?? 0;
  return (
    <Part title="New test">
      {/* An amount keeps itself at Enter: it stands outside the form, which Enter would send. */}
      <form
        id="new-trial"
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          plan.mutate(draft, { onSuccess: () => setDraft(EMPTY) });
        }}
      >
        <div>
          <label htmlFor="trial-name" className="mb-1 block text-fine text-soft">
            What are you testing?
          </label>
          <input
            id="trial-name"
            className="field"
            value={draft.name}
            maxLength={80}
            placeholder="Powdered sugar"
            autoComplete="off"
            onChange={(e) => setDraft((now) => ({ ...now, name: e.target.value }))}
          />
          <Fault text={faultOf(plan.error, "name")} />
        </div>
        {draft.ways.map((name, i) => (
          <div key={i}>
            <label htmlFor={`trial-way-${i}`} className="mb-1 block text-fine text-soft">
              {i === 0 ? "A: how you do it now" : `${LETTERS[i]}: the change`}
            </label>
            <input
              id={`trial-way-${i}`}
              className="field"
              value={name}
              maxLength={60}
              placeholder={i === 0 ? "as usual" : "half the sugar powdered"}
              autoComplete="off"
              onChange={(e) => way(i, e.target.value)}
            />
            <Fault text={faultOf(plan.error, `ways[${i}]`)} />
          </div>
        ))}
        <div className="flex flex-wrap gap-2">
          {draft.ways.length < 4 ? (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => setDraft((now) => ({ ...now, ways: [...now.ways, ""] }))}
            >
              Add a version
            </button>
          ) : null}
          {draft.ways.length > 2 ? (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => setDraft((now) => ({ ...now, ways: now.ways.slice(0, -1) }))}
            >
              Remove the last
            </button>
          ) : null}
        </div>
      </form>
      <div className="mt-3 space-y-3">
        <div>
          <p className="mb-1 text-fine text-soft">Measurement</p>
          <Choice
            label="Measurement"
            value={draft.measure}
            options={MEASURES}
            onChange={(measure: Schemas["EvenMeasure"]) => setDraft((now) => ({ ...now, measure }))}
          />
        </div>
        <Amount
          label="Smallest difference that matters"
          kind="length"
          step={0.1}
          value={draft.difference_mm}
          field="difference_mm"
          onSave={(difference_mm) => {
            setDraft((now) => ({ ...now, difference_mm }));
            return Promise.resolve();
          }}
        />
        {size.data && !size.error ? (
          <p className="text-lg">
            {size.data.per_way} cookies of each, on {trays === 1 ? "1 tray" : `${trays} trays`}.
            <span className="block text-fine text-soft">
              Enough to show it {number(Math.floor(size.data.seen_percent / 10), 0)} times in 10.{" "}
              {size.data.sd_own ? "Typical difference on your trays:" : "Usual difference on one tray:"}{" "}
              {fine.text(size.data.sd_mm)}.{size.data.sd_own ? "" : " Measure three trays to use your own."}
            </span>
          </p>
        ) : null}
        <Fault
          text={
            faultOf(size.error, "difference_mm") ??
            otherFault(size.error, ["difference_mm"]) ??
            otherFault(plan.error, ["name", "ways"])
          }
        />
        <button
          type="submit"
          form="new-trial"
          className="btn btn-main w-full"
          disabled={plan.isPending || !size.data}
        >
          Plan the test
        </button>
      </div>
      <p className="mt-3 text-fine text-soft">
        Change one thing. Bake all versions on the same tray, from dough mixed the same day.{" "}
        <Link to={`/jobs/${jobId}/ledger/evenness`}>How even your trays are</Link>
      </p>
    </Part>
  );
}
