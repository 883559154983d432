/** Nesting a sheet: the search shown live, pieces moved by hand, and what is kept of it. */
import { useRef, useState } from "react";
import { Navigate } from "react-router";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { AskToLeave } from "../../kit/AskToLeave";
import { Choice } from "../../kit/Choice";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { useLaying, type Ground } from "./laying";
import { NestDrawing } from "./NestDrawing";
import { ChosenCookie, Laid, Save, SearchPart, ThisLayout, Trays } from "./NestParts";
import { ShapeNav } from "./ShapeNav";

const TURNINGS = [
  { value: "free", label: "Any way" },
  { value: "half_turn", label: "Half turn" },
  { value: "fixed", label: "No turning" },
] as const;

export function NestView() {
  const { plan } = useJobContext();
  const [roll] = plan.shape.rolls;
  if (!roll) return null;
  const { form, width_mm, length_mm, cuts, nested } = roll;
  // Another sheet or another cutter is another board.
  return (
    <LayingBoard
      key={`${plan.cutter.id} ${form} ${Math.round(width_mm)}`}
      ground={{ kind: "sheet", form, width_mm, length_mm, cuts, kept: nested }}
    />
  );
}

export function TrayView() {
  const { job, plan } = useJobContext();
  // Each sheet is its tray: there is nothing to lay.
  if (plan.cut_in_place) return <Navigate to={`/jobs/${job.id}/shape`} replace />;
  const { width_mm, length_mm, cuts, gap_mm, edge_mm, nested } = plan.shape.trays;
  return (
    <LayingBoard
      key={`${plan.cutter.id} ${Math.round(width_mm)} ${Math.round(gap_mm)}`}
      ground={{
        kind: "tray",
        form: "oblong",
        width_mm,
        length_mm,
        cuts,
        kept: nested,
        tray: { gap_mm, edge_mm },
      }}
    />
  );
}

function LayingBoard({ ground }: { ground: Ground }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const [baked, setBaked] = useState(true);
  const laying = useLaying(job.id, ground, change);
  const { board, width_mm, length_mm, onTray, found, touched, search } = laying;
  return (
    <>
      <AskToLeave
        when={laying.dirty}
        what={
          onTray
            ? "You moved cookies on this tray and haven’t saved."
            : "You moved cookies on this sheet and haven’t saved."
        }
      />
      <Work dim={dim && !search}>
        <StationHead
          title={onTray ? "Tray layout" : "Tighter layout"}
          sub={`${format.length(width_mm)} × ${format.length(length_mm)}${onTray ? ", usable" : ` at ${format.length(plan.shape.thickness_mm)}`}`}
        >
          <button
            type="button"
            className="btn btn-small"
            disabled={!laying.canGoBack || search !== undefined}
            onClick={laying.back}
          >
            Undo last move
          </button>
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} ${onTray ? "tray" : "nested sheet"}`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <NestDrawing
          picture={picture}
          cutters={[plan.cutter]}
          form={ground.form}
          board={board}
          width_mm={width_mm}
          length_mm={length_mm}
          used_mm={touched ? undefined : found?.used_mm}
          chosen={search ? undefined : laying.chosen}
          tray={onTray}
          after={onTray && baked ? plan.oven.baked_outline_mm : undefined}
          turnable={job.turning !== "fixed"}
          onChoose={laying.select}
          onDrag={search ? () => undefined : laying.drag}
          onDrop={laying.drop}
        />
        <p className="mt-2 text-fine text-soft">
          {onTray ? `${format.length(ground.tray?.gap_mm ?? 0)} gap. ` : "Cut by number, row by row. "}
          Drag a cookie to move and lock it (dot).
          {job.turning === "fixed" ? "" : " Drag the ring to turn it."}
        </p>
        <ChosenCookie laying={laying} turning={job.turning} />
      </Work>
      <TicketBox>
        <Laid laying={laying} />
        {onTray ? <Trays plan={plan} laying={laying} baked={baked} onBaked={setBaked} /> : null}
        <SearchPart laying={laying} />
        <Part title="Turning allowed">
          <Choice
            label="Turning"
            value={job.turning ?? "free"}
            options={TURNINGS}
            onChange={(turning) => change.mutate({ turning, layout: [], tray_layout: [] })}
          />
          <p className="mt-2 text-fine text-soft">
            Never flipped: the floured or textured side would end up underneath.
          </p>
        </Part>
        <ThisLayout laying={laying} />
        <Save job={job} laying={laying} change={change} />
      </TicketBox>
    </>
  );
}
