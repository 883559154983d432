/** Test and set up your oven: measured against a thermometer, its hot places, its door, how high it stands. */
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import { Refusal, type Kitchen } from "../api/client";
import { useOvenTest, writeCsv, type OvenTest } from "../api/oven";
import { useChangeKitchen, useKitchen } from "../api/queries";
import { download } from "../drawing/save";
import { say, textOf } from "../drawing/sentence";
import { number } from "../drawing/units";
import { Amount } from "../kit/Amount";
import { Fault, otherFault } from "../kit/Fault";
import { Unread } from "../kit/Unread";
import { FileButton } from "../kit/FileButton";
import { Why } from "../kit/Fold";
import { useFormat } from "../kit/settings";
import { CoverPot } from "./CoverPot";
import { HotSpotMap } from "./HotSpotMap";
import { OvenCurve } from "./OvenCurve";

export function OvenPage() {
  const kitchen = useKitchen();
  if (!kitchen.data) {
    return (
      <main id="work" className="flex-1">
        <h1 className="visually-hidden">Oven</h1>
        <Unread of={[kitchen]} />
      </main>
    );
  }
  const k = kitchen.data;
  return (
    <main id="work" className="flex-1 rounded-2xl bg-worktop p-5 sm:p-6">
      <p className="mb-1">
        <Link to="/kitchen">{k.name}</Link>
      </p>
      <h1 className="h-station mb-1">Oven</h1>
      <p className="mb-5 max-w-2xl text-soft">
        Oven dials are often wrong. Check yours with a thermometer or bread.
      </p>
      <div className="grid gap-x-8 gap-y-6 xl:grid-cols-[3fr_2fr]">
        <div className="space-y-6">
          {k.cover_pot ? null : <Test kitchen={k} />}
          {k.cover_pot ? null : (
            <Box title="Hot spots">
              <HotSpotMap kitchen={k} />
            </Box>
          )}
        </div>
        <div className="space-y-6">
          <Box title="What you bake in">
            <CoverPot kitchen={k} />
          </Box>
          {k.cover_pot ? null : <Readings kitchen={k} />}
          <Door kitchen={k} />
        </div>
      </div>
    </main>
  );
}

function Box({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="rounded-xl border border-rule bg-raised p-4 sm:p-5" aria-label={title}>
      <h2 className="h-part mb-3">{title}</h2>
      {children}
    </section>
  );
}

function Test({ kitchen }: { kitchen: Kitchen }) {
  const format = useFormat();
  const test = useOvenTest();
  const change = useChangeKitchen();
  const [set_c, setSet] = useState(175);
  const at = test.set_c ?? set_c;
  const take = (found: OvenTest) =>
    change.mutate((now) => ({
      oven_readings: [
        ...(now.oven_readings ?? []).filter((r) => r.set_c !== at),
        { set_c: at, read_c: Math.round(found.holds_c * 2) / 2, swing_k: Math.round(found.swing_k * 2) / 2 },
      ].toSorted((a, b) => a.set_c - b.set_c),
      ...(found.preheat_min == null ? {} : { preheat_min: Math.ceil(found.preheat_min) }),
      ...(found.door_dip_k == null || found.recovery_min == null
        ? {}
        : {
            door_dip_k: Math.round(found.door_dip_k),
            recovery_min: Math.round(found.recovery_min * 10) / 10,
          }),
    }));
  const taken = (kitchen.oven_readings ?? []).some(
    (r) => r.set_c === at && test.found !== undefined && Math.abs(r.read_c - test.found.holds_c) < 0.3,
  );
  return (
    <Box title="Check it with a thermometer">
      <p className="mb-3 max-w-2xl text-soft">
        Turn the oven on cold and let it hold 30 min. Open the door once for 30 s.
      </p>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="w-32">
          <Amount
            label="Set to"
            kind="temperature"
            step={5}
            value={set_c}
            field="set_c"
            onSave={async (v) => setSet(v)}
          />
        </div>
        {test.running ? (
          <button type="button" className="btn" onClick={test.cancel}>
            Stop
          </button>
        ) : (
          <button type="button" className="btn btn-main" onClick={() => void test.standIn(set_c)}>
            Use the simulated thermometer
          </button>
        )}
        <FileButton
          label="Readings as CSV"
          accept=".csv,text/csv,text/plain"
          onFile={(f) => void f.text().then((t) => test.fromFile(set_c, t))}
        >
          Read a CSV
        </FileButton>
        {test.readings.length > 0 && !test.running ? (
          <button
            type="button"
            className="btn"
            onClick={() => download(`oven at ${at} C.csv`, "text/csv", writeCsv(test.readings))}
          >
            Save as CSV
          </button>
        ) : null}
      </div>
      <Fault
        text={
          test.trouble instanceof Error && !(test.trouble instanceof Refusal)
            ? test.trouble.message
            : otherFault(test.trouble, [])
        }
      />
      {test.readings.length > 0 ? <OvenCurve set_c={at} readings={test.readings} found={test.found} /> : null}
      <div role="status">
        {test.running ? (
          <p className="mt-2 text-soft">{`${number(test.readings.at(-1)?.after_min ?? 0, 0)}\u00a0min on: ${format.temperature(test.readings.at(-1)?.shows_c ?? 0)}`}</p>
        ) : null}
        {test.found ? (
          <>
            <div className="say mt-2 space-y-1">
              {test.found.reasons.map((r) => (
                <p key={textOf(r)}>{say(r, format)}</p>
              ))}
            </div>
            <button
              type="button"
              className="btn btn-main mt-3"
              disabled={taken || change.isPending}
              onClick={() => test.found && take(test.found)}
            >
              {taken ? "In use" : "Use this"}
            </button>
          </>
        ) : null}
      </div>
      <Fault text={otherFault(change.error, [])} />
    </Box>
  );
}

function Readings({ kitchen }: { kitchen: Kitchen }) {
  const format = useFormat();
  const change = useChangeKitchen();
  const readings = kitchen.oven_readings ?? [];
  return (
    <Box title="How hot it really runs">
      {readings.length === 0 ? (
        <p className="text-soft">
          No thermometer reading yet. Forecasts trust the dial, so their range is wide.
        </p>
      ) : (
        <table className="w-full border-collapse" aria-label="Readings of the oven">
          <thead>
            <tr className="border-b border-edge text-left text-fine text-soft">
              <th className="py-1">Set to</th>
              <th>Averages</th>
              <th>Swings</th>
              <th>
                <span className="visually-hidden">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody className="num">
            {readings.map((r) => (
              <tr key={r.set_c} className="border-b border-rule">
                <td className="py-1">{format.temperature(r.set_c, 0)}</td>
                <td>{`${format.temperature(r.read_c)}, ${r.read_c < r.set_c ? "−" : "+"}${format.difference(Math.abs(r.read_c - r.set_c))}`}</td>
                <td>{r.swing_k ? `± ${format.difference(r.swing_k)}` : "–"}</td>
                <td className="text-right">
                  <button
                    type="button"
                    className="min-h-11 min-w-11 text-soft"
                    aria-label={`Remove the reading at ${format.temperature(r.set_c, 0)}`}
                    onClick={() =>
                      change.mutate((now) => ({
                        oven_readings: (now.oven_readings ?? []).filter((o) => o.set_c !== r.set_c),
                      }))
                    }
                  >
                    ×
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Why
        name="oven-readings"
        items={[
          "Between two settings we draw a straight line.",
          "A new reading counts more than earlier bakes.",
        ]}
      />
      <Fault text={otherFault(change.error, [])} />
    </Box>
  );
}

/** Exactly, by the international agreement of 1959. */
const METRES_PER_FOOT = 0.3048;

function Door({ kitchen }: { kitchen: Kitchen }) {
  const { mutateAsync: keep } = useChangeKitchen();
  const format = useFormat();
  // A difference in the shown unit.
  const us = format.units.length === "in";
  const metres = us ? METRES_PER_FOOT : 1;
  const degree = format.shown("temperature", 1) - format.shown("temperature", 0);
  return (
    <Box title="Door, altitude and preheat">
      <div className="grid grid-cols-2 gap-3">
        <Amount
          label="Preheat time"
          kind="duration"
          step={5}
          value={kitchen.preheat_min}
          field="preheat_min"
          onSave={(preheat_min) => keep({ preheat_min })}
        />
        <Amount
          label="Recovers after opening in"
          kind="duration"
          step={0.5}
          value={kitchen.recovery_min ?? 1.5}
          field="recovery_min"
          onSave={(recovery_min) => keep({ recovery_min })}
        />
        <Amount
          label={`The door costs, ${format.symbol("temperature")}`}
          kind="count"
          step={1}
          value={Math.round((kitchen.door_dip_k ?? 15) * degree)}
          field="door_dip_k"
          onSave={(shown) => keep({ door_dip_k: shown / degree })}
        />
        <Amount
          label={`Altitude, ${us ? "ft" : "m"}`}
          kind="count"
          step={us ? 500 : 100}
          value={Math.round((kitchen.altitude_m ?? 0) / metres)}
          field="altitude_m"
          onSave={(shown) => keep({ altitude_m: shown * metres })}
        />
      </div>
      <Why
        name="oven-room"
        items={[
          "Each tray cools the oven as it goes in. A cool start spreads more.",
          "At altitude the air is thinner: water leaves sooner and gas expands more.",
        ]}
      />
    </Box>
  );
}
