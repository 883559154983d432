/** How the pieces lie on their trays, as cut and as baked. */
import { useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Live } from "../../kit/Live";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { OvenNav } from "./OvenNav";
import { TrayDrawing } from "./TrayDrawing";

export function TrayPage() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keepKitchen } = useChangeKitchen();
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
        <OvenNav jobId={job.id} />
        <TrayDrawing picture={picture} plan={plan} baked={baked} />
        <p className="mt-2 text-fine text-soft">
          A full tray to scale. {baked ? "Dark: as cut. Pale rim: the most it is likely to grow." : "As cut."} {format.length(Math.round(trays.gap_mm))} is kept between pieces
          {trays.rounds > 1 ? `; your trays go round ${trays.rounds} times` : ""}. They are laid by hand at <Link to={`/jobs/${job.id}/shape/trays`}>Shape, Trays</Link>.
        </p>
      </Work>
      <TicketBox>
        <Part title="Trays in order">
          <ol aria-label="Trays in order">
            {trays.fill.map((n, i) => (
              <li key={i} className="row">
                <span className="text-soft">Tray {i + 1}</span>
                <span className="num">{n}</span>
              </li>
            ))}
          </ol>
        </Part>
        <Part title="Room to grow">
          <Rows>
            <Row name="Grows at the rim by"><Live value={format.lengths(Math.round(oven.growth_least_mm * 10) / 10, Math.round(oven.growth_most_mm * 10) / 10)} /></Row>
            <Row name="Across, cut">{format.length(Math.round(oven.cut_width_mm * 10) / 10)}</Row>
          </Rows>
          {kitchen.data ? (
            <div className="mt-3">
              <Amount label="Least gap on the tray" kind="length" value={kitchen.data.least_gap_mm} field="least_gap_mm" onSave={(least_gap_mm) => keepKitchen({ least_gap_mm })} />
            </div>
          ) : null}
          <p className="mt-3 text-fine text-soft">One size to a tray. Turn the tray half way through where the oven has a hot side.</p>
        </Part>
      </TicketBox>
    </>
  );
}
