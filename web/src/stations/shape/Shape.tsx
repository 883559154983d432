/** How the cutters lie on the sheet, and what comes of the scrap. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useRef } from "react";
import { useSearchParams } from "react-router";
import { api, settled, type Plan } from "../../api/client";
import { useChangeJob, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Fold, Why } from "../../kit/Fold";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { Thickness } from "../order/Thickness";
import { CutList } from "./CutList";
import { rollName, sizeWord } from "./rolls";
import { ShapeNav } from "./ShapeNav";
import { Pricked } from "./Pricked";
import { SheetDrawing } from "./SheetDrawing";

const ALL = "all";

/** Logs and portions are drawn by the station's other views. */
const MadeView = lazy(async () => ({ default: (await import("./views")).MadeView }));

export function Shape() {
  const { job } = useJobContext();
  return job.making && job.making.kind !== "cut" ? (
    <Suspense>
      <MadeView />
    </Suspense>
  ) : (
    <Sheets />
  );
}

const FORMS = { oblong: "Rectangle", round: "Round", oval: "Oval" } as const;

/** Sheets of another form or width that would need less dough, with what they save; nothing where none does. */
function OtherSheets() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const asked = useQuery({
    queryKey: ["sheets", job.id, job.revision, plan.dough.dough_g],
    queryFn: () => settled(api.GET("/api/jobs/{id}/sheets", { params: { path: { id: job.id } } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const found = asked.data ?? [];
  if (found.length === 0) return null;
  return (
    <Part title="A sheet that saves dough">
      <ul className={asked.isPlaceholderData ? "opacity-60" : ""}>
        {found.map((s) => (
          <li key={s.sheet} className="row">
            <span>
              <span className="font-semibold">{`${FORMS[s.sheet]}${s.width_mm == null ? "" : `, ${format.length(s.width_mm)} wide`}`}</span>
              <span className="block text-fine text-soft">{`${format.mass(s.saves_g)} less (${number(s.saves_percent, 1)}%)`}</span>
            </span>
            <button
              type="button"
              className="btn btn-small"
              aria-label={`Use this: ${FORMS[s.sheet].toLowerCase()}${s.width_mm == null ? "" : `, ${format.length(s.width_mm)} wide`}`}
              disabled={change.isPending}
              onClick={() =>
                change.mutate({
                  sheet: s.sheet,
                  ...(s.width_mm == null ? {} : { sheet_width_mm: s.width_mm }),
                })
              }
            >
              Use this
            </button>
          </li>
        ))}
      </ul>
      <Fault text={otherFault(change.error, [])} />
    </Part>
  );
}

function Sheets() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const [params, setParams] = useSearchParams();
  const { shape } = plan;
  const asked = params.get("roll");
  const chosen = asked !== null && shape.rolls[Number(asked)] ? asked : ALL;
  const shown = chosen === ALL ? shape.rolls : shape.rolls.filter((_, i) => String(i) === chosen);
  const [roll] = shown;
  if (!roll) return null;
  const count = shown.reduce((sum, r) => sum + r.pieces, 0);
  const rolled = (shape.rolls[0]?.mass_g ?? 0) * (shape.rolls[0]?.sheets ?? 1);
  return (
    <>
      <Work dim={dim}>
        <div className="no-print">
          <StationHead
            title={
              shown.length > 1
                ? "All rolls"
                : roll.sheets === 1
                  ? rollName(roll.number)
                  : `${rollName(roll.number)}, ${roll.sheets} sheets`
            }
            sub={
              shown.length > 1
                ? `${format.length(shape.thickness_mm)} thick`
                : `${sizeWord(roll, format)} at ${format.length(shape.thickness_mm)}`
            }
          >
            {shape.rolls.length > 1 ? (
              <Choice
                label="Which roll"
                value={chosen}
                options={[
                  { value: ALL, label: "All" },
                  ...shape.rolls.map((r, i) => ({ value: String(i), label: rollName(r.number) })),
                ]}
                onChange={(v) => setParams(v === ALL ? {} : { roll: v }, { replace: true, flushSync: true })}
              />
            ) : null}
            <SaveMenu>
              <SaveSvg picture={picture} name={`${job.name} sheets`} />
            </SaveMenu>
          </StationHead>
          <ShapeNav jobId={job.id} />
          <SheetDrawing picture={picture} rolls={shown} cutter={plan.cutter} />
          <YieldBar plan={plan} rolled={rolled} />
        </div>
        <CutList plan={plan} job={job} />
      </Work>
      <TicketBox>
        <Part title="How many you cut">
          <p className="answer">
            <Live value={String(count)} />
          </p>
          <p className="mb-3 mt-1 text-soft">
            {shown.length > 1
              ? "from all rolls"
              : roll.sheets > 1
                ? `from ${roll.sheets} sheets, up to ${roll.cuts.length} on each`
                : `from this sheet${roll.cuts.length > roll.pieces ? `, which holds ${roll.cuts.length}` : ""}`}
            , of {job.pieces}
          </p>
          <ul>
            {shape.rolls.map((r) => (
              <li key={shape.rolls.indexOf(r)} className="mb-2">
                <span className="flex justify-between">
                  <span>{rollName(r.number)}</span>
                  <span className="num">{`${r.pieces}/${job.pieces}`}</span>
                </span>
                <span className="block h-2 rounded-full bg-stone-2" aria-hidden="true">
                  <span
                    className="block h-2 rounded-full bg-spruce"
                    style={{ width: `${(100 * r.pieces) / job.pieces}%` }}
                  />
                </span>
              </li>
            ))}
          </ul>
          <Cautions items={shape.warnings} />
        </Part>
        <Part title="Sheet">
          <div className="space-y-3">
            <Thickness
              value={job.thickness_mm}
              rods={kitchen.data?.rods_mm ?? []}
              onSave={(thickness_mm) => keep({ thickness_mm })}
            />
            <div>
              <span className="mb-1 block text-fine text-soft">Sheet shape</span>
              <Choice
                label="Sheet shape"
                value={job.sheet ?? "oblong"}
                options={[
                  { value: "oblong", label: "Rectangle" },
                  { value: "round", label: "Round" },
                  { value: "oval", label: "Oval" },
                ]}
                onChange={(sheet) => change.mutate({ sheet, layout: [] })}
              />
            </div>
            <div className="grid grid-cols-2 gap-3">
              <Amount
                label={job.sheet === "round" ? "Maximum diameter" : "Maximum width"}
                kind="length"
                value={Math.round(shape.largest_mm[0] ?? 0)}
                field="sheet_width_mm"
                step={10}
                onSave={(sheet_width_mm) => keep({ sheet_width_mm })}
              />
              {job.sheet === "round" ? null : (
                <Amount
                  label="Maximum length"
                  kind="length"
                  value={Math.round(shape.largest_mm[1] ?? 0)}
                  field="sheet_length_mm"
                  step={10}
                  onSave={(sheet_length_mm) => keep({ sheet_length_mm })}
                />
              )}
            </div>
            {job.sheet_width_mm == null && job.sheet_length_mm == null ? null : (
              <button
                type="button"
                className="btn btn-small"
                onClick={() => change.mutate({ sheet_width_mm: null, sheet_length_mm: null })}
              >
                Use the tray size
              </button>
            )}
            <Why
              name="sheet"
              items={["Limited by your parchment, your pin, and what you can roll before it softens."]}
            />
            <Choice
              label="Where it is cut"
              value={plan.cut_in_place ? "tray" : "bench"}
              options={[
                { value: "bench", label: "On the bench, then moved" },
                { value: "tray", label: "On the tray’s paper" },
              ]}
              onChange={(where) =>
                change.mutate({ cut_in_place: where === "tray", ...(where === "tray" ? { layout: [] } : {}) })
              }
            />
            {plan.cut_in_place ? (
              <p className="text-fine text-soft">The tray’s gaps apply. Lift the scraps away.</p>
            ) : (
              <div className="grid grid-cols-2 gap-3">
                <Amount
                  label="Gap"
                  kind="length"
                  value={job.web_mm}
                  field="web_mm"
                  step={0.5}
                  onSave={(web_mm) => keep({ web_mm })}
                />
                <Amount
                  label="Margin"
                  kind="length"
                  value={job.edge_mm}
                  field="edge_mm"
                  step={1}
                  onSave={(edge_mm) => keep({ edge_mm })}
                />
              </div>
            )}
            <Choice
              label="Rolled on"
              value={job.surface}
              options={[
                { value: "floured_board", label: "Floured board" },
                { value: "between_papers", label: "Between parchment" },
              ]}
              onChange={(surface) => change.mutate({ surface })}
            />
            <Fold name="shape-more" title="More">
              <div className="space-y-3">
                <Pricked />
                <div className="grid grid-cols-2 gap-3">
                  <Amount
                    label="Maximum re-rolls"
                    kind="count"
                    value={job.rerolls}
                    field="rerolls"
                    onSave={(rerolls) => keep({ rerolls })}
                  />
                  <Amount
                    label="Spare dough"
                    kind="percent"
                    value={job.reserve_percent}
                    field="reserve_percent"
                    step={1}
                    onSave={(reserve_percent) => keep({ reserve_percent })}
                  />
                </div>
              </div>
            </Fold>
            <Fault
              text={otherFault(change.error, [
                "web_mm",
                "edge_mm",
                "sheet_width_mm",
                "sheet_length_mm",
                "rerolls",
                "reserve_percent",
                "thickness_mm",
              ])}
            />
          </div>
        </Part>
        <OtherSheets />
        <Part title="Scraps and spare dough">
          <Rows>
            <Row name="Scraps for hand-shaping">
              <Live value={format.mass(shape.left_g)} />
            </Row>
            <Row name="Stuck to board and hands">
              <Live value={format.mass(shape.lost_g)} />
            </Row>
            <Row name="Spare dough">
              <Live value={format.mass(shape.reserve_g)} />
            </Row>
            <Row name="Flour picked up in re-rolls">
              <Live value={`${number(shape.flour_taken_up_percent, 1, 1)}%`} />
            </Row>
          </Rows>
          <Why name="shape" items={shape.reasons} />
          <button type="button" className="btn btn-main mt-4" onClick={() => print()}>
            Print cut list
          </button>
        </Part>
        <NextStep station="shape" />
      </TicketBox>
    </>
  );
}

function YieldBar({ plan, rolled }: { plan: Plan; rolled: number }) {
  const { shape } = plan;
  const format = useFormat();
  const parts = [
    ...shape.rolls.map((r) => ({
      word: r.number === 0 ? "cut" : r.number === 1 ? "re-rolled" : "re-rolled twice",
      g: r.cut_g,
    })),
    { word: "scraps", g: shape.left_g },
  ];
  const fills = ["bg-butter", "bg-butter/60", "bg-butter/35", "bg-edge"];
  return (
    <div className="mt-4">
      <div className="flex h-3.5 overflow-hidden rounded-full" aria-hidden="true">
        {parts.map((p, i) => (
          <span
            key={p.word}
            className={i === parts.length - 1 ? "bg-edge" : fills[i]}
            style={{ width: `${(100 * p.g) / rolled}%` }}
          />
        ))}
      </div>
      <p className="mt-1 flex flex-wrap gap-x-5 text-fine text-soft">
        {parts.map((p) => (
          <span key={p.word}>
            <span className="num text-ink">{format.mass(p.g)}</span> {p.word}
          </span>
        ))}
      </p>
    </div>
  );
}
