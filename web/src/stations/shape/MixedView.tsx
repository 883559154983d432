/** Several lots of one dough cut from the same sheets: laid out sheet by sheet until all that is wanted lies there. */
import { useRef } from "react";
import { Link } from "react-router";
import type { Cutter, Job } from "../../api/client";
import { useChangeJob, useCutters } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { cutWith, leadOf, useFamily } from "../../app/lots";
import { number } from "../../drawing/units";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { AskToLeave } from "../../kit/AskToLeave";
import { useFormat } from "../../kit/settings";
import { NestDrawing } from "./NestDrawing";
import { CameOut, ForHowLong, PrintTrueSize } from "./Searching";
import { ShapeNav } from "./ShapeNav";
import { useSharedSheets, type SharedSheets } from "./sharedSheets";

export function MixedView() {
  const { job } = useJobContext();
  const family = useFamily(job);
  const cutters = useCutters();
  const lots = cutWith(job, family);
  const shelf = lots
    .map((l) => cutters.data?.find((c) => c.id === l.cutter_id))
    .filter((c) => c !== undefined);
  const [first, ...others] = shelf;
  const lead = family.find((j) => j.id === leadOf(job));
  if (lots.length < 2 || !lead || !first || shelf.length < lots.length) return <Alone />;
  return (
    <Mixed
      key={lots.map((l) => `${l.id} ${l.cutter_id}`).join(",")}
      lots={lots}
      lead={lead}
      cutters={[first, ...others]}
    />
  );
}

function Alone() {
  const { job, dim } = useJobContext();
  return (
    <Work dim={dim}>
      <StationHead title="Shared sheets" />
      <ShapeNav jobId={job.id} />
      <p className="max-w-xl text-lg">
        Items of the same dough and thickness can share a sheet.{" "}
        <Link to={`/jobs/${job.id}/order`}>Add another item at Order</Link>.
      </p>
    </Work>
  );
}

function Mixed({ lots, lead, cutters }: { lots: Job[]; lead: Job; cutters: readonly [Cutter, ...Cutter[]] }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(lead.id);
  const picture = useRef<SVGSVGElement>(null);
  const shared = useSharedSheets({ lots, lead, largest_mm: plan.shape.largest_mm, change, format });
  const { at, sheet, sheets, show, stop, width_mm } = shared;
  return (
    <>
      <AskToLeave
        when={shared.unkept && stop === undefined}
        what="You have unsaved changes to these sheets."
      />
      <Work dim={dim && !stop}>
        <StationHead
          title="Items sharing a sheet"
          sub={
            sheet
              ? `sheet ${at + 1} of ${sheets.length}, ${format.length(Math.round(width_mm))} × ${format.length(Math.round(sheet.length_mm))}`
              : `${lots.length} items, ${format.length(plan.shape.thickness_mm)} thick`
          }
        >
          {sheets.length > 1 ? (
            <Choice
              label="Which sheet"
              value={String(at)}
              options={sheets.map((_, i) => ({ value: String(i), label: String(i + 1) }))}
              onChange={(v) => show(Number(v))}
            />
          ) : null}
          <SaveMenu>
            <SaveSvg picture={picture} name={`${lead.name} sheet ${at + 1}`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        {sheet ? (
          <>
            <NestDrawing
              picture={picture}
              cutters={cutters}
              board={sheet.board}
              width_mm={width_mm}
              length_mm={sheet.length_mm}
              chosen={stop ? undefined : shared.chosen}
              turnable={job.turning !== "fixed"}
              onChoose={shared.select}
              onDrag={shared.drag}
              onDrop={() => undefined}
            />
            <p className="mt-2 text-fine text-soft">
              Cut by number, row by row. Drag a cookie to move and lock it.
            </p>
          </>
        ) : (
          <p className="my-8 max-w-xl text-lg">
            Small cookies fill the space between large ones. Fewer sheets, fewer scraps.
          </p>
        )}
      </Work>
      <TicketBox>
        <Counted shared={shared} lots={lots} />
        <SearchPart shared={shared} holed={cutters.some((c) => (c.holes_mm ?? []).length > 0)} />
        <Save shared={shared} lead={lead} change={change} />
      </TicketBox>
    </>
  );
}

/** How many lie on how many sheets. */
function Counted({ shared, lots }: { shared: SharedSheets; lots: Job[] }) {
  const { bad, counts, sheet, sheets } = shared;
  return (
    <Part title={sheets.length === 1 ? "Sheet" : "Sheets"}>
      <p className="answer" aria-live="polite">
        <Live value={String(sheets.length)} />
      </p>
      <ol className="mt-2">
        {lots.map((lot, i) => (
          <li key={lot.id} className="row">
            <span>{lot.name}</span>
            <span className="num">{`${counts[i] ?? 0}/${lot.pieces - (lot.freeze_pieces ?? 0)}`}</span>
          </li>
        ))}
      </ol>
      {sheet?.cut_percent === undefined ? null : (
        <Rows>
          <Row name="Sheet used for cookies">{`${number(sheet.cut_percent, 1)}%`}</Row>
        </Rows>
      )}
      {bad > 0 ? (
        <p className="mt-2 font-semibold text-warm" role="alert">
          {bad === 1 ? "1 cookie is" : `${bad} cookies are`} too close to another or the edge.
        </p>
      ) : null}
    </Part>
  );
}

function SearchPart({ shared, holed }: { shared: SharedSheets; holed: boolean }) {
  const { improve, inHoles, layAll, said, seconds, setInHoles, setSeconds, sheet, sheets, stop, trouble } =
    shared;
  return (
    <Part title="Search">
      <div className="space-y-3">
        <ForHowLong label="For how long, each sheet" value={seconds} onChange={setSeconds} />
        {holed ? (
          <Choice
            label="Holes"
            value={inHoles ? "used" : "empty"}
            options={[
              { value: "used", label: "Small ones in holes" },
              { value: "empty", label: "Holes left empty" },
            ]}
            onChange={(v) => setInHoles(v === "used")}
          />
        ) : null}
        {stop ? (
          <button type="button" className="btn btn-main w-full" onClick={() => stop.abort()}>
            Stop
          </button>
        ) : (
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-main grow" onClick={() => void layAll()}>
              {sheets.length > 0 ? "Start over" : "Lay them out"}
            </button>
            {sheet ? (
              <button type="button" className="btn" onClick={() => void improve()}>
                Improve this sheet
              </button>
            ) : null}
          </div>
        )}
        <CameOut said={said} fault={otherFault(trouble, [])} />
      </div>
    </Part>
  );
}

function Save({
  shared,
  lead,
  change,
}: {
  shared: SharedSheets;
  lead: Job;
  change: ReturnType<typeof useChangeJob>;
}) {
  const { at, unkept } = shared;
  const kept = (lead.mixed ?? []).length > 0;
  return (
    <Part title="Save">
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-main"
          disabled={!shared.canKeep || change.isPending}
          onClick={shared.keep}
        >
          Save these sheets
        </button>
        {kept ? (
          <button type="button" className="btn" onClick={shared.giveUp}>
            Use separate sheets
          </button>
        ) : null}
      </div>
      <Fault text={otherFault(change.error, [])} />
      {kept && !unkept ? <PrintTrueSize job={lead.id} what={`sheet ${at + 1}`} mixed={at} /> : null}
      <p className="mt-3 text-fine text-soft">Scraps of shared sheets aren’t re-rolled in the plan.</p>
    </Part>
  );
}
