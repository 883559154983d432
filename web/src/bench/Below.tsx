/** The lower half of the bench: what came out, what was noted, what else can go wrong, and what this device tells. */
import { useState } from "react";
import { Link } from "react-router";
import { at, BASE } from "../api/base";
import { api, settled } from "../api/client";
import { clock } from "../drawing/time";
import { number } from "../drawing/units";
import { Amount } from "../kit/Amount";
import { Says } from "../kit/Says";
import { useFormat } from "../kit/settings";
import { setTelling, useTelling, type Happened, type Run } from "./run";

/** Notes what happened, with what its button said. */
export type Press = (what: Happened | readonly Happened[], said: string) => void;

/** A press is moved back by so much. */
const EARLIER_MIN = 5;

/** What came out, what was noted, what else can go wrong, and what this device tells. */
export function Below({ run, press }: { run: Run; press: Press }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3.5 lg:grid-cols-3">
      <Fold title={run.baked.length === 0 ? "Trays out" : `Trays out: ${run.baked.length}`}>
        {run.baked.length === 0 ? <p className="text-soft">None yet.</p> : null}
        <ul>
          {run.baked.map((b) => (
            <li key={b.task} className="border-t border-rule py-2.5 first:border-0">
              <p>
                <strong>Tray {b.tray}</strong>
                {run.lots.length > 1 ? `, ${b.lot}` : ""}:{" "}
                {b.pieces == null ? "" : `${b.pieces} ${b.pieces === 1 ? "cookie" : "cookies"}, `}
                {number(b.baked_min, 1)}&nbsp;min, out {clock(b.out_at)}
              </p>
              {b.cut == null ? null : (
                <Amount
                  label={`Cookies on tray ${b.tray}`}
                  kind="count"
                  value={b.pieces ?? 0}
                  field="pieces"
                  onSave={(pieces) => {
                    press({ kind: "counted", task: b.cut ?? 0, pieces }, `Tray ${b.tray}: ${pieces} cookies`);
                    return Promise.resolve();
                  }}
                />
              )}
              <Record baked={b} run={run.id} rehearsal={run.rehearsal} />
            </li>
          ))}
        </ul>
      </Fold>
      <Fold title="Notes so far">
        {run.events.length === 0 ? <p className="text-soft">Nothing yet.</p> : null}
        <ul>
          {run.events.map((e) => (
            <li
              key={e.id}
              className="flex items-center justify-between gap-3 border-t border-rule py-1 first:border-0"
            >
              <span className="min-w-0">
                <span className="num font-semibold">{clock(e.at)}</span> <Says of={e.says} />
              </span>
              <span className="flex shrink-0">
                <button
                  type="button"
                  className="btn btn-quiet min-h-14 px-3"
                  aria-label={`${EARLIER_MIN} minutes earlier: ${e.says.text}`}
                  onClick={() =>
                    press(
                      { kind: "moved", event: e.id, at_min: e.at_min - EARLIER_MIN },
                      `${EARLIER_MIN} minutes earlier: ${e.says.text}`,
                    )
                  }
                >
                  −{EARLIER_MIN} min
                </button>
                <button
                  type="button"
                  className="btn btn-quiet min-h-14 px-3"
                  aria-label={`Undo: ${e.says.text}`}
                  onClick={() => press({ kind: "taken_back", event: e.id }, `Undo: ${e.says.text}`)}
                >
                  Undo
                </button>
              </span>
            </li>
          ))}
        </ul>
      </Fold>
      <Fold title="Something else happened">
        <Else run={run} press={press} />
      </Fold>
    </div>
  );
}

function Fold({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <details className="rounded-2xl bg-worktop px-5 py-1">
      <summary className="flex min-h-14 cursor-pointer items-center font-semibold">{title}</summary>
      <div className="pb-3">{children}</div>
    </details>
  );
}

function Record({
  baked: b,
  run,
  rehearsal,
}: {
  baked: Run["baked"][number];
  run: number;
  rehearsal: boolean;
}) {
  const format = useFormat();
  const query = new URLSearchParams({
    baked_min: String(Math.round(b.baked_min * 10) / 10),
    tray: String(b.tray),
    run: String(run),
    ...(b.start_c == null ? {} : { start_c: String(Math.round(b.start_c * 10) / 10) }),
  });
  return (
    <p className="text-soft">
      {b.went_in ? (
        <>
          It <Says of={b.went_in} />.{" "}
        </>
      ) : b.start_c == null ? (
        ""
      ) : (
        `Went in at about ${format.temperature(b.start_c, 0)} `
      )}
      {rehearsal ? (
        "Rehearsals aren’t recorded."
      ) : (
        <Link className="font-semibold underline" to={`/jobs/${b.job_id}/ledger?${query.toString()}`}>
          Record this bake
        </Link>
      )}
    </p>
  );
}

function Else({ run, press }: { run: Run; press: Press }) {
  const tells = useTelling();
  const [off, setOff] = useState(10);
  const trays = run.timers.filter(
    (t) => t.step !== "preheat" && t.step !== "chill" && t.step !== "thaw" && t.step !== "bulk_chill",
  );
  const dough = run.timers.find((t) => t.step === "chill");
  const asks = typeof Notification !== "undefined" && Notification.permission === "default";
  return (
    <div className="grid gap-2.5">
      {trays.map((t) => (
        <button
          key={t.tasks.join(".")}
          type="button"
          className="btn min-h-14 justify-start"
          onClick={() =>
            press(
              t.tasks.map((task) => ({ kind: "dropped", task })),
              `Dropped: ${t.title}`,
            )
          }
        >
          Dropped: {t.title}
        </button>
      ))}
      <span className="flex items-center gap-2">
        <button
          type="button"
          className="btn min-h-14 flex-1 justify-start"
          onClick={() => press({ kind: "power_went", min: off }, "Oven was off for")}
        >
          Oven was off for
        </button>
        <input
          className="field num w-20"
          type="number"
          min={1}
          max={600}
          value={off}
          aria-label="Minutes the oven was off"
          onChange={(e) => setOff(Number(e.target.value) || 1)}
        />{" "}
        min
      </span>
      {dough && !run.rehearsal ? (
        <Link
          className="btn min-h-14 justify-start no-underline"
          to={`/jobs/${run.lots[run.bars.find((b) => b.task === dough.tasks[0])?.lot ?? 0]?.job_id ?? 0}/cold/now`}
        >
          Put a thermometer in the dough
        </Link>
      ) : null}
      {dough ? (
        <Amount
          label="Dough temperature going in"
          kind="temperature"
          value={20}
          unset
          placeholder="not measured"
          field="c"
          onSave={(c) => {
            press({ kind: "measured", task: dough.tasks[0] ?? 0, c }, "The dough, measured");
            return Promise.resolve();
          }}
        />
      ) : null}
      <fieldset className="mt-2 grid gap-1 border-t border-rule pt-3">
        <legend className="visually-hidden">On this device</legend>
        <Toggle label="Ring until silenced" on={tells.sound} set={(sound) => setTelling({ sound })} />
        <Toggle label="Speak alarms" on={tells.spoken} set={(spoken) => setTelling({ spoken })} />
        <Toggle label="Keep the screen on" on={tells.awake} set={(awake) => setTelling({ awake })} />
        {asks ? (
          <button
            type="button"
            className="btn min-h-14"
            onClick={() => void Notification.requestPermission()}
          >
            Turn on notifications
          </button>
        ) : null}
      </fieldset>
      <figure className="mt-2 flex items-center gap-4 border-t border-rule pt-3">
        <img
          src={`${at(`/api/runs/${run.id}/code.svg`)}${BASE ? "?demo=true" : ""}`}
          alt="QR code for this page"
          width={120}
          height={120}
          className="rounded bg-white p-1"
        />
        <figcaption className="text-soft">Scan to open this on a phone on the same network.</figcaption>
      </figure>
      <button
        type="button"
        className="btn min-h-14"
        onClick={() => void settled(api.POST("/api/runs/{id}/end", { params: { path: { id: run.id } } }))}
      >
        End the day
      </button>
    </div>
  );
}

function Toggle({ label, on, set }: { label: string; on: boolean; set(on: boolean): void }) {
  return (
    <label className="flex min-h-14 cursor-pointer items-center gap-3">
      <input
        type="checkbox"
        className="size-7 accent-spruce"
        checked={on}
        onChange={(e) => set(e.target.checked)}
      />
      {label}
    </label>
  );
}
