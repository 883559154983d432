/** The kitchen as things with sizes. */
import { type Said } from "../drawing/sentence";
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import { BASE } from "../api/base";
import type { Kitchen } from "../api/client";
import { useChangeKitchen, useKitchen, useZones } from "../api/queries";
import { Amount } from "../kit/Amount";
import { Choice } from "../kit/Choice";
import { Fault, faultOf, otherFault } from "../kit/Fault";
import { TextField } from "../kit/TextField";
import { Unread } from "../kit/Unread";
import { useFormat } from "../kit/settings";
import { HalfSheets } from "../kitchen/HalfSheets";
import { Devices } from "../kitchen/Devices";
import { Safe } from "../kitchen/Safe";
import { EGGS, eggWord } from "../recipe/eggs";
import { TRAYS } from "../stations/oven/words";

export function KitchenPage() {
  const kitchen = useKitchen();
  const change = useChangeKitchen();
  if (!kitchen.data) {
    return (
      <main id="work" className="flex-1">
        <h1 className="visually-hidden">Kitchen</h1>
        <Unread of={[kitchen]} />
      </main>
    );
  }
  const k = kitchen.data;
  const save = (field: keyof Kitchen) => (value: number) => change.mutateAsync({ [field]: value });
  const amount = (
    field: keyof Kitchen & string,
    label: string,
    kind: "length" | "mass" | "temperature" | "duration" | "count",
    step = 1,
  ) => (
    <Amount
      label={label}
      kind={kind}
      value={k[field] as number}
      field={field}
      step={step}
      onSave={save(field)}
    />
  );
  return (
    <main id="work" className="flex-1 rounded-2xl bg-worktop p-5 sm:p-6">
      <div className="mb-5 flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="h-station mb-1">{k.name}</h1>
          <p className="text-soft">Every job uses these. Change one and every plan updates.</p>
        </div>
        <div className="flex flex-wrap gap-3">
          <div className="w-64">
            <TextField
              label="Kitchen name"
              value={k.name}
              field="name"
              onSave={(name) => change.mutateAsync({ name })}
            />
          </div>
          <Zone zone={k.zone ?? ""} onSave={(zone) => change.mutateAsync({ zone })} />
        </div>
      </div>
      <Fault text={otherFault(change.error, NAMED)} />
      <div className="grid gap-4 md:grid-cols-2 xl:grid-cols-3">
        <Thing name="Room" picture={<RoomPicture room={k.room_c} />}>
          {amount("room_c", "Temperature", "temperature")}
        </Thing>
        <Thing name="Fridge" picture={<CasePicture air={k.fridge_c} shelves={3} />}>
          {amount("fridge_c", "Temperature, by a thermometer", "temperature", 0.5)}
          {amount("fridge_places", "Spaces for trays or dough", "count")}
          <Choice
            label="Air in the fridge"
            value={k.fridge_fan ? "fan" : "still"}
            options={[
              { value: "still", label: "Still air" },
              { value: "fan", label: "With a fan" },
            ]}
            onChange={(v) => change.mutate({ fridge_fan: v === "fan" })}
          />
        </Thing>
        <Thing name="Freezer" picture={<CasePicture air={k.freezer_c} shelves={2} />}>
          {amount("freezer_c", "Temperature", "temperature")}
          {amount("freezer_places", "Spaces for trays or dough", "count")}
        </Thing>
        <Thing
          name="Trays"
          picture={<TrayPicture width={k.tray_width_mm} length={k.tray_length_mm} count={k.trays_owned} />}
        >
          <div className="grid grid-cols-2 gap-3">
            {amount("tray_width_mm", "Usable width", "length", 5)}
            {amount("tray_length_mm", "Usable length", "length", 5)}
            {amount("trays_owned", "How many", "count")}
            {amount("least_gap_mm", "Minimum gap", "length")}
          </div>
          <HalfSheets kitchen={k} />
          <Choice
            label="Trays are of"
            value={k.tray_kind}
            options={TRAYS}
            onChange={(v) => change.mutate({ tray_kind: v })}
          />
        </Thing>
        <Thing name="Rolling guides" picture={<RodPicture rods={k.rods_mm} />}>
          <Rods rods={k.rods_mm} onSave={(rods_mm) => change.mutateAsync({ rods_mm })} />
        </Thing>
        <Thing name="Mixer" picture={<BowlPicture />}>
          {amount("mixers", "How many", "count")}
          {amount("mixer_limit_g", "Largest batch of stiff dough", "mass", 50)}
          <Amount
            label="Bowl size"
            kind="volume"
            value={k.bowl_ml ?? 0}
            unset={k.bowl_ml === null || k.bowl_ml === undefined}
            placeholder="not known"
            field="bowl_ml"
            step={100}
            onSave={(bowl_ml) => change.mutateAsync({ bowl_ml })}
          />
        </Thing>
        <Thing name="Scale" picture={<ScalePicture />}>
          <div className="grid grid-cols-2 gap-3">
            {amount("scale_step_g", "Kitchen scale reads to", "mass")}
            {amount("fine_step_g", "Small scale reads to", "mass", 0.1)}
          </div>
          <p className="text-fine text-soft">Weigh leaveners, salt and spices on the small scale.</p>
        </Thing>
        <Thing name="Eggs and prices" picture={<EggPicture />}>
          <label className="block">
            <span className="mb-1 block text-fine text-soft">Egg size</span>
            <select
              className="field"
              value={k.egg_class}
              onChange={(e) =>
                change.mutate({ egg_class: e.target.value as NonNullable<Kitchen["egg_class"]> })
              }
            >
              {EGGS.map((egg) => (
                <option key={egg} value={egg}>
                  {eggWord(egg)}
                </option>
              ))}
            </select>
          </label>
          <TextField
            label="Currency"
            value={k.currency ?? "\u20ac"}
            field="currency"
            onSave={(currency) => change.mutateAsync({ currency })}
          />
        </Thing>
        <Thing name="Ovens" picture={<OvenPicture racks={k.racks_per_oven} />}>
          <div className="grid grid-cols-2 gap-3">
            {amount("ovens", "How many", "count")}
            {amount("racks_per_oven", "Trays at once", "count")}
            {amount("preheat_min", "Preheat time", "duration", 5)}
            {amount("cooling_places", "Spaces for cooling trays", "count")}
          </div>
          <Choice
            label="Oven mode"
            value={k.oven_fan ? "fan" : "still"}
            options={[
              { value: "still", label: "Conventional" },
              { value: "fan", label: "Convection (fan)" },
            ]}
            onChange={(v) => change.mutate({ oven_fan: v === "fan" })}
          />
          <p className="text-fine">
            <Link to="/kitchen/oven">{k.cover_pot ? "Baking in a covered pot" : ovenWords(k)}</Link>
          </p>
        </Thing>
        <Thing name="People" picture={<HandsPicture />}>
          {amount("hands", "People working", "count")}
          {amount("roll_min", "Time to roll a sheet", "duration")}
          <Amount
            label="Time to cut and place a cookie"
            kind="duration"
            value={Math.round((k.cut_s / 60) * 100) / 100}
            field="cut_s"
            step={0.1}
            onSave={(minutes) => change.mutateAsync({ cut_s: minutes * 60 })}
          />
        </Thing>
        {BASE === "" ? (
          <>
            <Safe />
            <Devices />
          </>
        ) : null}
      </div>
    </main>
  );
}

/** Fields that say themselves what is wrong with them. */
const NAMED = [
  "name",
  "zone",
  "currency",
  "room_c",
  "fridge_c",
  "freezer_c",
  "tray_width_mm",
  "tray_length_mm",
  "trays_owned",
  "least_gap_mm",
  "rods_mm",
  "mixer_limit_g",
  "bowl_ml",
  "scale_step_g",
  "fine_step_g",
  "ovens",
  "racks_per_oven",
  "preheat_min",
  "roll_min",
  "cut_s",
  "hands",
  "mixers",
  "fridge_places",
  "freezer_places",
  "cooling_places",
];

/** Whose clock the kitchen goes by: every time on every screen is of it. */
function Zone({ zone, onSave }: { zone: string; onSave(zone: string): Promise<unknown> }) {
  const zones = useZones(true);
  const [fault, setFault] = useState<Said>();
  const all = zones.data ?? [];
  const save = (wanted: string) => {
    setFault(undefined);
    onSave(wanted).catch((error: unknown) => setFault(faultOf(error, "zone") ?? otherFault(error, [])));
  };
  return (
    <label className="block w-64">
      <span className="mb-1 block text-fine text-soft">Time zone</span>
      <select className="field" value={zone} onChange={(e) => save(e.target.value)}>
        {all.includes(zone) ? null : (
          <option value={zone}>{zone === "" ? "UTC" : zone.replaceAll("_", " ")}</option>
        )}
        {all.map((z) => (
          <option key={z} value={z}>
            {z.replaceAll("_", " ")}
          </option>
        ))}
      </select>
      <Fault text={fault ?? otherFault(zones.error, [])} />
    </label>
  );
}

function ovenWords(k: Kitchen): string {
  const read = (k.oven_readings ?? []).length;
  return `${read === 0 ? "Measure it with a thermometer" : `Measured at ${read === 1 ? "one setting" : `${read} settings`}`}; ${k.hot_spots ? "its hot places" : "find its hot places"}, door and height`;
}

function Thing({ name, picture, children }: { name: string; picture: ReactNode; children: ReactNode }) {
  return (
    <section className="rounded-xl border border-rule bg-raised p-4" aria-label={name}>
      <div className="mb-3 flex items-end justify-between gap-3">
        <h2 className="h-part">{name}</h2>
        {picture}
      </div>
      <div className="space-y-3">{children}</div>
    </section>
  );
}

function Rods({ rods, onSave }: { rods: number[]; onSave(rods: number[]): Promise<unknown> }) {
  const format = useFormat();
  return (
    <>
      <ul className="seg" aria-label="Rolling guides you have">
        {rods.map((r) => (
          <li key={r} className="flex items-center rounded-lg border-[1.5px] border-edge pl-3">
            <span className="num">{format.length(r)}</span>
            <button
              type="button"
              className="min-h-11 min-w-11 text-soft"
              aria-label={`Remove ${format.length(r)}`}
              onClick={() => void onSave(rods.filter((x) => x !== r))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <Amount
        label="Add a thickness"
        kind="length"
        value={0}
        unset
        placeholder="8 mm"
        field="rods_mm"
        onSave={(v) => onSave([...rods, v])}
      />
    </>
  );
}

function RoomPicture({ room }: { room: number }) {
  return (
    <svg width="36" height="52" viewBox="0 0 36 52" aria-hidden="true">
      <rect x="13" y="3" width="10" height="34" rx="5" className="fill-none stroke-edge" strokeWidth="2" />
      <circle cx="18" cy="42" r="8" className="fill-warm" />
      <rect
        x="16"
        y={36 - Math.min(30, Math.max(2, room * 0.8))}
        width="4"
        height={Math.min(30, Math.max(2, room * 0.8)) + 4}
        className="fill-warm"
      />
    </svg>
  );
}

function CasePicture({ air, shelves }: { air: number; shelves: number }) {
  return (
    <svg width="40" height="56" viewBox="0 0 40 56" aria-hidden="true">
      <rect
        x="3"
        y="2"
        width="34"
        height="52"
        rx="4"
        className={air < 0 ? "fill-cold stroke-edge" : "fill-cold-pale stroke-edge"}
        strokeWidth="2"
      />
      {Array.from({ length: shelves }, (_, i) => (
        <path key={i} d={`M7 ${14 + i * (36 / shelves)}h26`} className="stroke-worktop" strokeWidth="2.5" />
      ))}
    </svg>
  );
}

function TrayPicture({ width, length, count }: { width: number; length: number; count: number }) {
  const scale = 56 / Math.max(width, length, 1);
  const shown = Math.min(count, 5);
  return (
    <svg width="92" height="56" viewBox="0 0 92 56" aria-hidden="true">
      {Array.from({ length: shown }, (_, i) => (
        <rect
          key={i}
          x={3 + (shown - 1 - i) * 5}
          y={3 + i * 2.5}
          width={length * scale}
          height={width * scale}
          rx="3"
          className="fill-stone-2 stroke-edge"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}

function RodPicture({ rods }: { rods: number[] }) {
  const tallest = Math.max(10, ...rods);
  return (
    <svg width="92" height="46" viewBox="0 0 92 46" aria-hidden="true">
      {rods.slice(0, 7).map((r, i) => (
        <rect
          key={r}
          x={3 + i * 12}
          y={43 - (r / tallest) * 40}
          width="9"
          height={(r / tallest) * 40}
          className="fill-butter stroke-cut-line"
        />
      ))}
      <path d="M0 44.5h92" className="stroke-edge" strokeWidth="2" />
    </svg>
  );
}

function BowlPicture() {
  return (
    <svg width="64" height="46" viewBox="0 0 64 46" aria-hidden="true">
      <path d="M4 14h56c0 18-12 28-28 28S4 32 4 14Z" className="fill-stone-2 stroke-edge" strokeWidth="2" />
      <path d="M10 17c14 6 30 6 44 0-2 10-10 17-22 17S12 27 10 17Z" className="fill-butter" />
      <path d="M32 2v18M26 20h12" className="stroke-ink" strokeWidth="2.5" />
    </svg>
  );
}

function ScalePicture() {
  return (
    <svg width="72" height="40" viewBox="0 0 72 40" aria-hidden="true">
      <path d="M8 8h56" className="stroke-edge" strokeWidth="4" strokeLinecap="round" />
      <path d="M36 8v6" className="stroke-edge" strokeWidth="3" />
      <rect
        x="12"
        y="14"
        width="48"
        height="23"
        rx="5"
        className="fill-stone-2 stroke-edge"
        strokeWidth="2"
      />
      <rect x="22" y="20" width="28" height="11" rx="2" className="fill-cold-pale" />
    </svg>
  );
}

function EggPicture() {
  return (
    <svg width="72" height="40" viewBox="0 0 72 40" aria-hidden="true">
      {[14, 36, 58].map((x) => (
        <ellipse
          key={x}
          cx={x}
          cy="21"
          rx="10"
          ry="13.5"
          className="fill-dough stroke-cut-line"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}

function OvenPicture({ racks }: { racks: number }) {
  const shown = Math.min(racks, 5);
  return (
    <svg width="60" height="52" viewBox="0 0 60 52" aria-hidden="true">
      <rect x="2" y="2" width="56" height="48" rx="5" className="fill-stone-2 stroke-edge" strokeWidth="2" />
      <rect x="8" y="14" width="44" height="30" rx="3" className="fill-ink" />
      {Array.from({ length: shown }, (_, i) => (
        <path
          key={i}
          d={`M12 ${14 + ((i + 1) * 30) / (shown + 1)}h36`}
          className="stroke-butter"
          strokeWidth="2"
        />
      ))}
    </svg>
  );
}

function HandsPicture() {
  return (
    <svg width="92" height="34" viewBox="0 0 92 34" aria-hidden="true">
      <rect
        x="20"
        y="8"
        width="52"
        height="17"
        rx="8"
        className="fill-butter stroke-cut-line"
        strokeWidth="1.5"
      />
      <rect x="2" y="13" width="18" height="7" rx="3.5" className="fill-edge" />
      <rect x="72" y="13" width="18" height="7" rx="3.5" className="fill-edge" />
    </svg>
  );
}
