/** All bakes of the bakery: looked through, two of them side by side, as a table out and in. */
import { useState } from "react";
import { Link } from "react-router";
import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { useBesideBakes, useBook, useReadBook, type BookQuery, type BookRecord } from "../../api/ledger";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { FileButton } from "../../kit/FileButton";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Unread } from "../../kit/Unread";
import { DayField } from "../../kit/DayField";
import { useFormat } from "../../kit/settings";
import { LINER_WORDS, TRAY_WORDS } from "../oven/words";
import { LedgerNav } from "./LedgerNav";
import { EDGES } from "./NewRecord";

const AGAINST = { less: "less than forecast", within: "as forecast", more: "more than forecast" } as const;
const WHAT = {
  dough: "Dough",
  thickness: "Cut thickness",
  size: "Size and shape",
  start: "Temperature going in",
  oven: "Oven temperature",
  fan: "Fan",
  tray: "Tray and liner",
  end: "Doneness",
} as const;

export function BookPage() {
  const { job, dim } = useJobContext();
  const [query, setQuery] = useState<BookQuery>({});
  const [pair, setPair] = useState<readonly number[]>([]);
  const book = useBook(query);
  const read = useReadBook(job.id);
  const set = (changed: { [K in keyof BookQuery]?: BookQuery[K] | undefined }) =>
    setQuery(
      (now) =>
        Object.fromEntries(
          Object.entries({ ...now, from: undefined, ...changed }).filter(
            ([, v]) => v !== undefined && v !== "" && v !== 0,
          ),
        ) as BookQuery,
    );
  const choose = (id: number) =>
    setPair((now) => (now.includes(id) ? now.filter((n) => n !== id) : [...now, id].slice(-2)));
  const from = query.from ?? 0;
  const out = new URLSearchParams(
    Object.entries(query)
      .filter(([k]) => k !== "from")
      .map(([k, v]) => [k, String(v)]),
  ).toString();
  const file = (format: "csv" | "json") => at(`/api/book.${format}${out ? `?${out}` : ""}`);
  const total = book.data?.total ?? 0;
  const shown = book.data?.records ?? [];
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        <StationHead
          title={book.data ? (total === 1 ? "1 bake" : `${total} bakes`) : "All bakes"}
          sub={out ? "matching your search" : "in this bakery"}
        />
        {pair.length === 2 ? <SideBySide pair={pair} onClose={() => setPair([])} /> : null}
        {book.data ? (
          <>
            <ul aria-busy={book.isPlaceholderData}>
              {shown.map((r) => (
                <Entry key={r.id} record={r} chosen={pair.includes(r.id)} onChoose={() => choose(r.id)} />
              ))}
            </ul>
            {total === 0 ? (
              <p className="text-lg text-soft">
                {out
                  ? "No bakes match."
                  : "No bakes recorded yet. Measure a few cookies from the first tray once they’re cold."}
              </p>
            ) : null}
            {total > shown.length || from > 0 ? (
              <p className="mt-4 flex items-center gap-3">
                <button
                  type="button"
                  className="btn btn-small"
                  disabled={from === 0}
                  onClick={() => set({ from: Math.max(0, from - 50) })}
                >
                  Newer
                </button>
                <span className="num text-soft">
                  {from + 1}–{from + shown.length} of {total}
                </span>
                <button
                  type="button"
                  className="btn btn-small"
                  disabled={from + shown.length >= total}
                  onClick={() => set({ from: from + 50 })}
                >
                  Older
                </button>
              </p>
            ) : null}
          </>
        ) : (
          <Unread of={[book]} />
        )}
      </Work>
      <TicketBox>
        <Part title="Find bakes">
          <div className="space-y-3">
            <div>
              <label htmlFor="book-named" className="mb-1 block text-fine text-soft">
                Job, recipe or notes
              </label>
              <input
                id="book-named"
                type="search"
                className="field"
                value={query.named ?? ""}
                onChange={(e) => set({ named: e.target.value })}
                autoComplete="off"
              />
            </div>
            <Pick
              label="Edge"
              value={query.edge}
              options={EDGES}
              onChange={(edge) => set({ edge: edge as BookQuery["edge"] })}
            />
            <Pick
              label="Spread"
              value={query.spread}
              options={(["less", "within", "more"] as const).map((value) => ({
                value,
                label: AGAINST[value].replace(/^./, (c) => c.toUpperCase()),
              }))}
              onChange={(spread) => set({ spread: spread as BookQuery["spread"] })}
            />
            <div className="grid grid-cols-2 gap-3">
              <Day label="From" value={query.from_day} onChange={(from_day) => set({ from_day })} />
              <Day label="To" value={query.to_day} onChange={(to_day) => set({ to_day })} />
            </div>
            <Fault text={otherFault(book.error, [])} />
          </div>
        </Part>
        <Part title="Side by side">
          <p className="text-soft">
            {pair.length === 2
              ? "Two are chosen."
              : pair.length === 1
                ? "Choose one more."
                : "Choose two bakes."}
          </p>
        </Part>
        <Part title="Export and import">
          <div className="flex flex-wrap gap-2">
            <a className="btn btn-small" href={file("csv")} download>
              Export CSV
            </a>
            <a className="btn btn-small" href={file("json")} download>
              Export JSON
            </a>
            <FileButton
              label="Import bakes into this job (CSV or JSON)"
              accept=".csv,.json,text/csv,application/json"
              className="btn btn-small"
              onFile={(f) => read.mutate({ file: f, format: /\.json$/i.test(f.name) ? "json" : "csv" })}
            >
              Import bakes into this job
            </FileButton>
          </div>
          {read.data ? (
            <p role="status" className="mt-2">
              {read.data.added === 1 ? "1 bake" : `${read.data.added} bakes`} added to {job.name}.
            </p>
          ) : null}
          <Fault text={otherFault(read.error, [])} />
        </Part>
      </TicketBox>
    </>
  );
}

function Pick({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string | undefined;
  options: readonly { value: string; label: string }[];
  onChange(value: string | undefined): void;
}) {
  const id = `book-${label.toLowerCase()}`;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value ?? ""}
        onChange={(e) => onChange(e.target.value || undefined)}
      >
        <option value="">Any</option>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}

function Day({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string | undefined;
  onChange(day: string | undefined): void;
}) {
  const id = `book-${label.toLowerCase()}`;
  return (
    <DayField
      id={id}
      label={label}
      value={value ?? ""}
      field={label}
      past
      onSave={async (said) => onChange(said?.day)}
    />
  );
}

function Entry({ record: r, chosen, onChoose }: { record: BookRecord; chosen: boolean; onChoose(): void }) {
  const format = useFormat();
  const edge = EDGES.find((e) => e.value === r.edge_colour)?.label.toLowerCase();
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-t border-rule py-3">
      <div className="min-w-0">
        <h3 className="h-part">
          {r.job ? <Link to={`/jobs/${r.job_id}/ledger`}>{r.job}</Link> : "Deleted job"}{" "}
          <span className="font-normal text-soft">
            {longDay(r.recorded_at)}, {clock(r.recorded_at)}
          </span>
        </h3>
        <p className="text-soft">
          {r.formula ?? "deleted recipe"}, {format.length(r.cut_thickness_mm)} thick,{" "}
          {format.length(r.cut_width_mm)} across: spread {number(r.spread_percent, 1, 1)}%,{" "}
          {AGAINST[r.spread_against]}
          {r.baked_min == null ? "" : `; ${number(r.baked_min, 1)}\u00a0min`}; {edge}.
        </p>
      </div>
      <button
        type="button"
        className="seg-item"
        data-state={chosen ? "on" : "off"}
        aria-pressed={chosen}
        aria-label={`${chosen ? "Chosen" : "Choose"} for side by side: ${r.job ?? "deleted job"}, ${longDay(r.recorded_at)}`}
        onClick={onChoose}
      >
        {chosen ? "Chosen" : "Choose"}
      </button>
    </li>
  );
}

/** So much more or less, in words; nothing that is too little to be told. */
const apart = (value: number, unit: string, [more, less, alike]: readonly [string, string, string]) => {
  const size = number(Math.abs(value), 1, 1);
  return Number(size) === 0 ? alike : `${size}${unit} ${value > 0 ? more : less}`;
};
const SPREAD = ["more spread", "less spread", "same spread"] as const;
const TIME = ["longer", "shorter", "same time"] as const;

function SideBySide({ pair, onClose }: { pair: readonly number[]; onClose(): void }) {
  const format = useFormat();
  const asked = useBesideBakes(pair);
  const d = asked.data;
  if (!d) return <Unread of={[asked]} />;
  const both = [d.one, d.other];
  const rows: [string, (r: BookRecord) => string][] = [
    ["Spread", (r) => `${number(r.spread_percent, 1, 1)}%`],
    ["Time in the oven", (r) => (r.baked_min == null ? "not noted" : `${number(r.baked_min, 1)}\u00a0min`)],
    ["Edge", (r) => EDGES.find((e) => e.value === r.edge_colour)?.label.toLowerCase() ?? ""],
    [
      "Dough",
      (r) =>
        `${r.formula ?? "deleted recipe"}${r.formula_version == null ? "" : `, version ${r.formula_version}`}`,
    ],
    ["Cut", (r) => `${format.length(r.cut_width_mm)} wide, ${format.length(r.cut_thickness_mm)} thick`],
    [
      "Cookies went in at",
      (r) => (r.conditions?.start_c == null ? "not known" : format.temperature(r.conditions.start_c, 0)),
    ],
    [
      "Oven",
      (r) =>
        r.conditions?.oven_c == null
          ? "not known"
          : `${format.oven(r.conditions.oven_c)}${r.conditions.oven_fan ? ", convection" : ""}`,
    ],
    [
      "Tray and liner",
      (r) =>
        [
          r.conditions?.tray_kind == null ? null : TRAY_WORDS[r.conditions.tray_kind as Schemas["TrayKind"]],
          r.conditions?.liner == null ? null : LINER_WORDS[r.conditions.liner as keyof typeof LINER_WORDS],
        ]
          .filter(Boolean)
          .join(", ") || "not known",
    ],
  ];
  return (
    <section aria-label="Side by side" className="mb-6 rounded-xl border border-edge p-4">
      <div className="flex items-baseline justify-between">
        <h3 className="h-part">Side by side</h3>
        <button type="button" className="btn btn-quiet btn-small" onClick={onClose}>
          Close
        </button>
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <thead>
            <tr>
              <th scope="col" className="text-left font-normal text-soft">
                Bake
              </th>
              {both.map((r) => (
                <th key={r.id} scope="col" className="py-1 pr-3 font-semibold">
                  {r.job ?? "deleted job"}
                  <span className="block text-fine font-normal text-soft">{longDay(r.recorded_at)}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, of]) => {
              const [a, b] = both.map(of);
              return (
                <tr key={name} className="border-t border-rule">
                  <th scope="row" className="py-1.5 pr-3 font-normal text-soft">
                    {name}
                  </th>
                  {[a, b].map((text, i) => (
                    <td key={i} className={`py-1.5 pr-3 ${a === b ? "" : "font-semibold"}`}>
                      {text}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="mt-3 text-lg">
        Measured difference: {apart(d.spread_percent, "%", SPREAD)}
        {d.min == null ? "" : `, ${apart(d.min, "\u00a0min", TIME)}`}.
        {d.told_spread_percent == null || d.told_min == null
          ? ""
          : ` Forecast difference: ${apart(d.told_spread_percent, "%", SPREAD)}, ${apart(d.told_min, "\u00a0min", TIME)}.`}
      </p>
      {d.differs == null ? (
        <p className="text-fine text-soft">One bake has no settings saved.</p>
      ) : d.differs.length === 0 ? (
        <p className="text-fine text-soft">Same settings: this is normal tray-to-tray difference.</p>
      ) : (
        <ul className="mt-1 text-fine">
          {d.differs.map((x) => (
            <li key={x.what}>
              <span className="font-semibold">{WHAT[x.what]}</span> alone:{" "}
              {apart(x.spread_percent, "%", SPREAD)}, {apart(x.min, "\u00a0min", TIME)}.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
