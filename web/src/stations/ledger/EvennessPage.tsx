/** How even pieces are, tray after tray: control charts of mean and range, where it varies, and that against a tolerance. */
import { useQuery } from "@tanstack/react-query";
import { useRef, useState, type RefObject } from "react";
import { api, settled, type Schemas } from "../../api/client";
import { useJobContext } from "../../app/JobFrame";
import { stepFor, stepped } from "../../drawing/scale";
import { clock, longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Says } from "../../kit/Says";
import { Fold } from "../../kit/Fold";
import { Reasons, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Unread } from "../../kit/Unread";
import { useFine } from "../../kit/fine";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { LedgerNav } from "./LedgerNav";

type Charts = Schemas["ChartsView"];
type Measure = Schemas["EvenMeasure"];
type Chance = Schemas["PointView"];

const MEASURES = [
  { value: "width", label: "Widths" },
  { value: "thickness", label: "Thicknesses" },
] as const;
const SHOWN = 30;

export function EvennessPage() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const fine = useFine();
  const picture = useRef<SVGSVGElement>(null);
  const [measure, setMeasure] = useState<Measure>("width");
  const [tolerance, setTolerance] = useState<Partial<Record<Measure, number>>>({});
  const [wanted, setWanted] = useState<Partial<Record<Measure, number>>>({});
  const query = {
    measure,
    ...(tolerance[measure] === undefined ? {} : { tolerance_mm: tolerance[measure] }),
    ...(wanted[measure] === undefined ? {} : { wanted_mm: wanted[measure] }),
  };
  const asked = useQuery({
    queryKey: ["records", job.id, "evenness", query],
    queryFn: () => settled(api.GET("/api/jobs/{id}/bakes-even", { params: { path: { id: job.id }, query } })),
    placeholderData: (before) => before,
    retry: false,
  });
  const charts = asked.data?.charts;
  const tolerance_mm = asked.data?.tolerance_mm;
  const odd = (charts?.trays ?? []).flatMap((t) =>
    [t.mean.says, t.range.says].flatMap((says) =>
      says ? [{ at: t.recorded_at, id: t.record_id, says }] : [],
    ),
  );
  const FIELDS = ["tolerance_mm", "wanted_mm"];
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        {asked.data ? (
          charts ? (
            <>
              <StationHead
                title={
                  <>
                    {number(charts.beyond_percent, charts.beyond_percent < 10 ? 1 : 0)}% beyond ±
                    {format.length(asked.data.tolerance_mm)}
                  </>
                }
                sub={`${charts.trays.length} trays of this dough, cut the same`}
              >
                <SaveMenu>
                  <SaveSvg picture={picture} name={`${job.name} evenness`} />
                </SaveMenu>
              </StationHead>
              <ControlChart picture={picture} charts={charts} measure={measure} />
              {odd.length > 0 ? (
                <ul className="mt-4 space-y-1">
                  {odd.map((o) => (
                    <li key={`${o.id} ${o.says.text}`} className="border-t border-rule py-2">
                      <strong className="font-semibold">
                        {longDay(o.at)}, {clock(o.at)}
                      </strong>
                      : <Says of={o.says} />.
                    </li>
                  ))}
                </ul>
              ) : (
                <p className="mt-4">
                  Nothing unusual. Don’t change anything for one tray that’s a little off.
                </p>
              )}
            </>
          ) : (
            <>
              <StationHead title="Not enough trays yet" />
              <p className="max-w-xl text-lg text-soft">
                {asked.data.measured} of {asked.data.needed} trays measured, with two cookies or more on each.
                {measure === "thickness"
                  ? " Measure thickness with a caliper at each bake."
                  : " One photo measures a whole tray."}
              </p>
            </>
          )
        ) : (
          <Unread of={[asked]} />
        )}
      </Work>
      <TicketBox>
        <Part title="Measurement">
          <div className="space-y-3">
            <Choice
              label="Measurement"
              value={measure}
              options={MEASURES}
              onChange={(m: Measure) => setMeasure(m)}
            />
            {tolerance_mm === undefined ? null : (
              <Amount
                label="Tolerance, ±"
                kind="length"
                value={tolerance_mm}
                field="tolerance_mm"
                onSave={(mm) => {
                  setTolerance((now) => ({ ...now, [measure]: mm }));
                  return Promise.resolve();
                }}
              />
            )}
            {charts && wanted[measure] === undefined ? (
              <p className="flex flex-wrap items-center justify-between gap-x-3">
                <span>Target: their average, {fine.text(charts.wanted_mm)}</span>
                <button
                  type="button"
                  className="btn btn-small"
                  onClick={() => setWanted((now) => ({ ...now, [measure]: Math.round(charts.wanted_mm) }))}
                >
                  Set a target
                </button>
              </p>
            ) : null}
            {charts && wanted[measure] !== undefined ? (
              <Amount
                label="Target"
                kind="length"
                value={charts.wanted_mm}
                field="wanted_mm"
                onSave={(mm) => {
                  setWanted((now) => ({ ...now, [measure]: mm }));
                  return Promise.resolve();
                }}
              />
            ) : null}
            {wanted[measure] === undefined ? null : (
              <button
                type="button"
                className="btn btn-small"
                onClick={() => setWanted((now) => ({ ...now, [measure]: undefined }))}
              >
                Use their average
              </button>
            )}
            <Fault
              text={
                FIELDS.map((f) => faultOf(asked.error, f)).find(Boolean) ?? otherFault(asked.error, FIELDS)
              }
            />
          </div>
        </Part>
        {charts ? (
          <>
            <Part title="In short">
              <ul className="space-y-2">
                {charts.says.map((s) => (
                  <li key={s.text}>
                    <Says of={s} />
                  </li>
                ))}
              </ul>
            </Part>
            <Part title="Where they differ">
              <Shares charts={charts} />
              <div className="mt-3">
                <Rows>
                  <Row name="Average">{fine.text(charts.mean_mm)}</Row>
                  <Row name="Typical difference on one tray">{fine.text(charts.sd_within_mm, 1)}</Row>
                </Rows>
              </div>
              <Fold name="evenness" title="Why?">
                <Rows>
                  <Row name="Best it could do (Cp)">{number(charts.could, 2, 2)}</Row>
                  <Row name="What it does (Ppk)">{number(charts.does, 2, 2)}</Row>
                </Rows>
                <Reasons
                  items={[
                    "Limits: 3 standard deviations, estimated from the ranges (ISO 7870-2, ASTM E2587).",
                    "1.33 or more is usually called good.",
                  ]}
                />
              </Fold>
            </Part>
          </>
        ) : null}
      </TicketBox>
    </>
  );
}

/** Within trays, between trays, between days: parts of one bar. */
function Shares({ charts }: { charts: Charts }) {
  const parts = [
    { name: "on one tray", percent: charts.within_percent, tone: "fill-butter" },
    { name: "tray to tray", percent: charts.trays_percent, tone: "fill-ice" },
    { name: "day to day", percent: charts.days_percent, tone: "fill-blush" },
  ];
  const from = (i: number) => parts.slice(0, i).reduce((sum, p) => sum + p.percent, 0);
  return (
    <div>
      <svg
        viewBox="0 0 300 26"
        className="w-full"
        role="img"
        aria-label={parts.map((p) => `${p.name} ${number(p.percent, 0)} percent`).join(", ")}
      >
        {parts.map((p, i) => (
          <rect
            key={p.name}
            x={3 * from(i)}
            y="1"
            width={3 * p.percent}
            height="24"
            className={`${p.tone} stroke-worktop`}
            strokeWidth="1.5"
          />
        ))}
      </svg>
      <ul className="mt-1 flex flex-wrap gap-x-4 text-fine">
        {parts.map((p) => (
          <li key={p.name} className="flex items-center gap-1.5">
            <svg viewBox="0 0 10 10" width="10" height="10" aria-hidden="true">
              <rect width="10" height="10" rx="2" className={p.tone} />
            </svg>
            {p.name} <span className="num">{number(p.percent, 0)}%</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

const HEIGHT = { mean: 210, range: 120 } as const;

/** Means above, ranges below, tray by tray; between the steps is what chance does. */
function ControlChart({
  picture,
  charts,
  measure,
}: {
  picture: RefObject<SVGSVGElement | null>;
  charts: Charts;
  measure: Measure;
}) {
  const width = usePictureWidth();
  const unit = useFine();
  const shown = charts.trays.slice(-SHOWN);
  const [LEFT, RIGHT] = [66, width - 12];
  const step = (RIGHT - LEFT) / shown.length;
  const x = (i: number) => LEFT + (i + 0.5) * step;
  const rows = [
    { name: "Average", of: shown.map((t) => t.mean), top: 24, height: HEIGHT.mean },
    {
      name: "Widest to narrowest",
      of: shown.map((t) => t.range),
      top: 24 + HEIGHT.mean + 44,
      height: HEIGHT.range,
    },
  ];
  const bottom = 24 + HEIGHT.mean + 44 + HEIGHT.range;
  const each = Math.max(1, Math.ceil(64 / step));
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${bottom + 28}`}
      className="w-full"
      role="img"
      aria-labelledby="even-title even-desc"
    >
      <title id="even-title">{`${measure === "width" ? "Widths" : "Thicknesses"} tray by tray: average, and widest to narrowest`}</title>
      <desc id="even-desc">
        {shown
          .map(
            (t) =>
              `${longDay(t.recorded_at)}: average ${unit.text(t.mean.value_mm)}, widest to narrowest ${unit.text(t.range.value_mm)}`,
          )
          .join("; ")}
      </desc>
      {rows.map((row) => {
        const values = row.of.flatMap((p) => [p.value_mm, p.low_mm, p.high_mm]).map((mm) => mm / unit.mm);
        const [low, high] = [Math.min(...values), Math.max(...values)];
        const scale = stepped(low, high, [row.top + row.height, row.top], stepFor(high - low, 5, unit.steps));
        const y = (mm: number) => scale(mm / unit.mm);
        const edge = (of: (p: Chance) => number) =>
          row.of
            .map((p, i) => `${LEFT + i * step} ${y(of(p))}H${LEFT + (i + 1) * step}`)
            .join("V")
            .replaceAll(/V(\S+) (\S+)H/g, "V$2H");
        return (
          <g key={row.name}>
            <text x="0" y={row.top - 9} fontSize="15" fontWeight="600">{`${row.name}, ${unit.symbol}`}</text>
            {scale.ticks.map((t) => (
              <g key={t}>
                <path d={`M${LEFT} ${scale(t)}H${RIGHT}`} className="stroke-rule" strokeWidth="0.7" />
                <text x={LEFT - 8} y={scale(t) + 5} textAnchor="end" fontSize="13.5" className="num soft">
                  {number(t, unit.places)}
                </text>
              </g>
            ))}
            {row.of.map((p, i) => (
              <rect
                key={i}
                x={LEFT + i * step}
                y={y(p.high_mm)}
                width={step}
                height={y(p.low_mm) - y(p.high_mm)}
                className="fill-pale"
              />
            ))}
            <path
              d={`M${edge((p) => p.high_mm)}`}
              className="fill-none stroke-spruce"
              strokeWidth="1"
              strokeDasharray="5 4"
            />
            <path
              d={`M${edge((p) => p.low_mm)}`}
              className="fill-none stroke-spruce"
              strokeWidth="1"
              strokeDasharray="5 4"
            />
            <path
              d={`M${row.of.map((p, i) => `${x(i)} ${y(p.value_mm)}`).join("L")}`}
              className="fill-none stroke-spruce"
              strokeWidth="1.6"
            />
            {row.of.map((p, i) => (
              <g key={i}>
                {p.says ? (
                  <circle
                    cx={x(i)}
                    cy={y(p.value_mm)}
                    r="9.5"
                    className="fill-none stroke-warm"
                    strokeWidth="2.2"
                  />
                ) : null}
                <circle
                  cx={x(i)}
                  cy={y(p.value_mm)}
                  r="4.6"
                  className={p.says ? "fill-warm" : "fill-spruce"}
                />
              </g>
            ))}
          </g>
        );
      })}
      {shown.map((t, i) =>
        i % each === 0 ? (
          <text
            key={t.record_id}
            x={x(i)}
            y={bottom + 21}
            textAnchor="middle"
            fontSize="13.5"
            className="num soft"
          >
            {longDay(t.recorded_at).replace(/^\w+, /, "")}
          </text>
        ) : null,
      )}
    </svg>
  );
}
