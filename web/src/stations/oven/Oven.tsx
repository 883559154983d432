/** How long, how far they spread, and how they lie on the tray. */
import { useRef } from "react";
import { useSearchParams } from "react-router";
import { useChangeJob, useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { inUnits, number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Reasons, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { TrayDrawing } from "./TrayDrawing";

export function Oven() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const changeKitchen = useChangeKitchen();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const [params, setParams] = useSearchParams();
  const baked = params.get("show") !== "cut";
  const { oven, shape } = plan;
  const { trays } = shape;
  const last = trays.fill[trays.fill.length - 1] ?? 0;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={trays.fill.length === 1 ? "One tray" : `${trays.fill.length} trays`}
          sub={trays.fill.length === 1 ? `of ${last}` : `of ${trays.fill[0]}${last === trays.fill[0] ? "" : `, the last of ${last}`}`}
        >
          <Choice
            label="Pieces as"
            value={baked ? "baked" : "cut"}
            options={[{ value: "cut", label: "As cut" }, { value: "baked", label: "After baking" }]}
            onChange={(v) => setParams(v === "cut" ? { show: "cut" } : {}, { replace: true, flushSync: true })}
          />
          <SaveSvg picture={picture} name={`${job.name} tray`} />
        </StationHead>
        <TrayDrawing picture={picture} plan={plan} baked={baked} />
        <p className="mt-2 text-fine text-soft">
          A full tray to scale. {baked ? "Dark: as cut. Pale rim: the most it is likely to grow." : "As cut."} {format.length(trays.gap_mm)} is kept between pieces
          {trays.rounds > 1 ? `; your trays go round ${trays.rounds} times` : ""}.
        </p>
        <ol className="mt-3 flex flex-wrap gap-2" aria-label="Trays in order">
          {trays.fill.map((n, i) => (
            <li key={i} className="rounded-lg border border-rule px-3 py-1.5">
              <span className="text-soft">Tray {i + 1}</span> <span className="num font-semibold">{n}</span>
            </li>
          ))}
        </ol>
      </Work>
      <TicketBox>
        <Part title="In the oven">
          <p className="answer">
            <Live value={`${number(oven.bake_least_min, 0)}–${number(oven.bake_most_min, 0)} min`} />
          </p>
          <p className="mb-3 mt-1 text-soft">at {format.temperature(oven.oven_c, 0)}, look first after {number(oven.look_after_min, 0)} min</p>
          <p className="say">
            Done when the middle no longer shines, the edge just turns golden and the underside is light brown. It is still soft then; leave it {number(oven.cool_on_tray_min, 0)} min on the tray.
          </p>
        </Part>
        <Part title="The oven">
          <div className="space-y-3">
            <Amount label="Set to" kind="temperature" value={job.oven_c} step={5} field="oven_c" onSave={(oven_c) => keep({ oven_c })} />
            {kitchen.data ? (
              <Choice
                label="Heat"
                value={kitchen.data.oven_fan ? "fan" : "still"}
                options={[{ value: "still", label: "Top and bottom" }, { value: "fan", label: "Fan" }]}
                onChange={(v) => changeKitchen.mutate({ oven_fan: v === "fan" })}
              />
            ) : null}
            {kitchen.data ? (
              <Amount
                label="Least gap on the tray"
                kind="length"
                value={kitchen.data.least_gap_mm}
                field="least_gap_mm"
                onSave={(least_gap_mm) => keepKitchen({ least_gap_mm })}
              />
            ) : null}
            <Fault text={otherFault(change.error, ["oven_c"])} />
          </div>
        </Part>
        <Part title="What it rests on">
          <Rows>
            <Row name="Grows at the rim by">
              <Live value={format.lengths(oven.growth_least_mm, oven.growth_most_mm)} />
            </Row>
            <Row name="Spread across">
              <Live value={`${number(oven.spread_least_percent, 0)}–${number(oven.spread_most_percent, 0)} %`} />
            </Row>
            <Row name="Across, cut">{format.length(oven.cut_width_mm)}</Row>
            <Row name="Across, baked">
              <Live value={format.lengths(oven.baked_width_least_mm, oven.baked_width_most_mm)} />
            </Row>
          </Rows>
          <p className="mb-2 mt-3 rounded-lg bg-cold-pale px-3 py-2 text-fine text-ink">
            These are ranges of common practice, not a forecast for your oven. The bakes you record in the Ledger tell more.
          </p>
          <Reasons items={oven.reasons} />
          {oven.warnings.map((w) => (
            <p key={w} className="caution mt-3">{inUnits(w, format)}</p>
          ))}
          <p className="caution mt-3">Every oven differs: look early. Oven gloves; hot trays away from children.</p>
        </Part>
      </TicketBox>
    </>
  );
}
