/** The day's timeline, and the run sheet that goes with it. */
import { useRef, useState } from "react";
import type { Plan } from "../../api/client";
import { useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, duration, longDay, now, shifted } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Live } from "../../kit/Live";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Reasons, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { Timeline } from "./Timeline";

type Task = Plan["clock"]["tasks"][number];

export function Clock() {
  const { job, plan, dim } = useJobContext();
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const { clock: day } = plan;
  const [seen] = useState(now);
  const late = day.start_at < seen;
  return (
    <>
      <Work dim={dim}>
        <div className="no-print">
        <StationHead title={<span>{longDay(day.start_at)}</span>} sub={`${clock(day.start_at)} to ${clock(plan.ready_by)}`}>
          <SaveSvg picture={picture} name={`${job.name} day`} />
          <button type="button" className="btn btn-small" onClick={() => print()}>
            Print the run sheet
          </button>
        </StationHead>
          <Timeline picture={picture} plan={plan} />
        </div>
        <RunSheet plan={plan} name={job.name} />
      </Work>
      <TicketBox>
        <Part title="Start">
          <p className="answer">
            <Live value={clock(day.start_at)} />
          </p>
          <p className="mb-3 mt-1 text-soft">for {clock(plan.ready_by)}, {duration(day.total_min)} later</p>
          {late ? (
            <p className="rounded-xl bg-warm-pale px-4 py-3 text-warm" role="status">
              <strong>That start has passed.</strong> Move the wanted time, chill in the freezer, or roll the dough first and chill it as sheets.
            </p>
          ) : (
            <p className="say">
              Begin no later than this. <strong>{duration(day.hands_min)}</strong> of it is work by hand, the rest is waiting.
            </p>
          )}
        </Part>
        {kitchen.data ? (
          <Part title="Hands and oven">
            <div className="grid grid-cols-2 gap-3">
              <Amount label="To roll a sheet" kind="duration" value={kitchen.data.roll_min} field="roll_min" onSave={(roll_min) => keepKitchen({ roll_min })} />
              <Amount label="To cut a piece" kind="duration" value={Math.round((kitchen.data.cut_s / 60) * 100) / 100} step={0.1} field="cut_s" onSave={(m) => keepKitchen({ cut_s: m * 60 })} />
              <Amount label="Trays owned" kind="count" value={kitchen.data.trays_owned} field="trays_owned" onSave={(trays_owned) => keepKitchen({ trays_owned })} />
              <Amount label="Trays an oven takes" kind="count" value={kitchen.data.racks_per_oven} field="racks_per_oven" onSave={(racks_per_oven) => keepKitchen({ racks_per_oven })} />
            </div>
          </Part>
        ) : null}
        <Part title="What it rests on">
          <Rows>
            <Row name="Trays go round">{plan.shape.trays.rounds === 1 ? "once" : `${plan.shape.trays.rounds} times`}</Row>
            <Row name="Oven heats from">{clock(day.tasks.find((t) => t.step === "preheat")?.start_at ?? day.start_at)}</Row>
          </Rows>
          <div className="mt-3">
            <Reasons items={day.reasons} />
          </div>
          <p className="caution mt-3">Dough and fillings: not more than two hours out of the cold, all told.</p>
        </Part>
      </TicketBox>
    </>
  );
}

function does(task: Task, plan: Plan): string {
  const { mixes } = plan.dough;
  const mix = mixes > 1 ? ` mix ${task.mix}` : "";
  const sheets = plan.cold.piece.kind === "sheet";
  switch (task.step) {
    case "mix":
      return `Weigh and mix${mix || " the dough"}`;
    case "form":
      return sheets ? `Roll${mix} between papers` : `Press${mix} to ${plan.cold.count === 1 ? "a disc" : "discs"}, wrap`;
    case "chill":
      return `${mix ? `Mix ${task.mix}` : "Dough"} into the ${plan.cold.place}`;
    case "cut":
      return `${sheets ? "Cut" : "Roll and cut"} tray ${task.tray}: ${plan.shape.trays.fill[(task.tray ?? 1) - 1] ?? 0} pieces`;
    case "tray_chill":
      return `Tray ${task.tray} into the ${plan.cold.tray_chill.place}`;
    case "preheat":
      return "Heat the oven";
    case "bake":
      return `Tray ${task.tray} into the oven`;
    case "cool":
      return `Tray ${task.tray} out, ${number(plan.oven.cool_on_tray_min, 0)} min on the tray`;
  }
}

function RunSheet({ plan, name }: { plan: Plan; name: string }) {
  const format = useFormat();
  const { oven } = plan;
  return (
    <section className="mt-5" aria-labelledby="run-head">
      <h1 className="only-print h-station">Run sheet: {name}</h1>
      <p className="only-print">
        {longDay(plan.clock.start_at)}, ready {clock(plan.ready_by)}. Oven {format.temperature(oven.oven_c, 0)}.
      </p>
      <h3 id="run-head" className="no-print h-part mb-1">
        Run sheet
      </h3>
      <ol className="gap-x-8 sm:columns-2 print:columns-1">
        {plan.clock.tasks.map((t, i) => (
          <li key={i} className="flex break-inside-avoid gap-3 border-t border-rule py-1.5 text-[1.0625rem]">
            <span className="num w-14 shrink-0 text-right font-semibold">{clock(t.start_at)}</span>
            <span className="min-w-0">
              {does(t, plan)}
              <span className="block text-fine text-soft">
                {t.step === "bake"
                  ? `look from ${clock(addWhole(t.start_at, oven.look_after_min))}, out by ${clock(t.end_at)}`
                  : t.step === "chill" || t.step === "tray_chill"
                    ? `until ${clock(t.end_at)}`
                    : `${duration(t.end_min - t.start_min)}`}
                {t.why ? `; ${t.why}` : ""}
              </span>
            </span>
            <span className="only-print ml-auto">□</span>
          </li>
        ))}
      </ol>
    </section>
  );
}


function addWhole(iso: string, minutes: number): string {
  return shifted(iso, Math.round(minutes));
}
