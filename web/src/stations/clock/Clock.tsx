/** The day's timeline, and the run sheet that goes with it. */
import { Says } from "../../kit/Says";
import { Fragment, useRef } from "react";
import { at } from "../../api/base";
import type { Plan } from "../../api/client";
import { useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { useFamily, useTogether } from "../../app/lots";
import { clock, dayClock, duration, isPast, longDay, sameDay, shifted } from "../../drawing/time";
import { Amount } from "../../kit/Amount";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useMinute } from "../../kit/minute";
import { useFormat } from "../../kit/settings";
import { Fault, otherFault } from "../../kit/Fault";
import { Timeline, type Lot } from "./Timeline";

export function Clock() {
  const { job, plan, day, dim } = useJobContext();
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const family = useFamily(job);
  const together = useTogether(job, family.length);
  const all = together.data;
  const lots: Lot[] = all ? all.lots : [{ name: job.name, plan }];
  useMinute();
  // By real minutes: where clocks go back, one hour's times come twice.
  const late = isPast(plan.ready_by, -day.total_min);
  const days = daysOf(day);
  return (
    <>
      <Work dim={dim || together.isFetching}>
        <div className="no-print">
          <StationHead
            title={<span>{longDay(day.start_at)}</span>}
            sub={`${clock(day.start_at)} to ${days.length > 1 ? dayClock(plan.ready_by) : clock(plan.ready_by)}`}
          >
            <SaveMenu>
              <SaveSvg picture={picture} name={`${job.name} day`} />
              <a
                className="btn btn-small"
                href={at(`/api/jobs/${job.id}/calendar`)}
                download={`${job.name}.ics`}
              >
                Save to calendar
              </a>
              <button type="button" className="btn btn-small" onClick={() => print()}>
                Print the schedule
              </button>
            </SaveMenu>
          </StationHead>
          <Timeline picture={picture} lots={lots} day={day} ready_by={plan.ready_by} />
        </div>
        <RunSheet lots={lots} day={day} name={family[0]?.name ?? job.name} ready_by={plan.ready_by} />
      </Work>
      <TicketBox>
        <Part title="When to start">
          <p className="answer">
            <Live value={clock(day.start_at)} />
          </p>
          <p className="mb-3 mt-1 text-soft">
            ready by {clock(plan.ready_by)}, {duration(day.total_min)} in all
          </p>
          {late ? (
            <p className="rounded-xl bg-warm-pale px-4 py-3 text-warm" role="status">
              <strong>That start time has passed.</strong> <Says of={day.when_late} />
            </p>
          ) : (
            <p className="say">
              <strong>{duration(day.hands_min)}</strong> of hands-on work.
            </p>
          )}
        </Part>
        {kitchen.data ? (
          <Part title="Your pace and trays">
            <div className="grid grid-cols-2 gap-3">
              <Amount
                label="Time to roll a sheet"
                kind="duration"
                value={kitchen.data.roll_min}
                field="roll_min"
                onSave={(roll_min) => keepKitchen({ roll_min })}
              />
              <Amount
                label="Time to cut a cookie"
                kind="duration"
                value={Math.round((kitchen.data.cut_s / 60) * 100) / 100}
                step={0.1}
                field="cut_s"
                onSave={(m) => keepKitchen({ cut_s: m * 60 })}
              />
              <Amount
                label="Trays you have"
                kind="count"
                value={kitchen.data.trays_owned}
                field="trays_owned"
                onSave={(trays_owned) => keepKitchen({ trays_owned })}
              />
              <Amount
                label="Trays per oven"
                kind="count"
                value={kitchen.data.racks_per_oven}
                field="racks_per_oven"
                onSave={(racks_per_oven) => keepKitchen({ racks_per_oven })}
              />
            </div>
          </Part>
        ) : null}
        <Part title="Trays and oven">
          <Rows>
            {all && all.lots.length > 1 ? (
              <Row name="Trays for all items">{String(all.trays)}</Row>
            ) : (
              <Row name="Each tray used">
                {plan.shape.trays.rounds === 1
                  ? "once"
                  : plan.shape.trays.rounds === 2
                    ? "twice"
                    : `${plan.shape.trays.rounds} times`}
              </Row>
            )}
            <Row name="Preheat at">
              {clock(day.tasks.find((t) => t.step === "preheat")?.start_at ?? day.start_at)}
            </Row>
          </Rows>
          <Cautions items={day.warnings} />
          <Why name="clock" items={day.reasons} />
          <Fault text={otherFault(together.error, [])} />
          <Cautions items={plan.cautions} />
        </Part>
        <NextStep station="clock" />
      </TicketBox>
    </>
  );
}

/** The days on which something begins. */
const daysOf = (day: Plan["clock"]): string[] => [...new Set(day.tasks.map((t) => t.start_at.slice(0, 10)))];

function RunSheet({
  lots,
  day,
  name,
  ready_by,
}: {
  lots: readonly Lot[];
  day: Plan["clock"];
  name: string;
  ready_by: string;
}) {
  const format = useFormat();
  const heats = [...new Set(lots.map((l) => l.plan.oven.oven_c))];
  const many = daysOf(day).length > 1;
  return (
    <section className="mt-5" aria-labelledby="run-head">
      <h2 className="only-print h-station">Schedule: {name}</h2>
      <p className="only-print">
        {longDay(day.start_at)}, ready {many ? dayClock(ready_by) : clock(ready_by)}. Oven{" "}
        {heats.map((c) => format.temperature(c, 0)).join(", then ")}.
      </p>
      <h3 id="run-head" className="no-print h-part mb-1">
        Schedule
      </h3>
      <ol className="gap-x-8 sm:columns-2 print:columns-1">
        {day.tasks.map((t, i) => {
          const lot = lots[t.lot];
          if (!lot) return null;
          const { oven } = lot.plan;
          const before = day.tasks[i - 1];
          const dawns = many && !(before && sameDay(before.start_at, t.start_at));
          return (
            <Fragment key={i}>
              {dawns ? (
                <li className="break-inside-avoid break-after-avoid border-t border-rule pb-1 pt-3 font-semibold">
                  {longDay(t.start_at)}
                </li>
              ) : null}
              <li className="flex break-inside-avoid gap-3 border-t border-rule py-1.5 text-[1.0625rem]">
                <span className="num w-14 shrink-0 text-right font-semibold">{clock(t.start_at)}</span>
                <span className="min-w-0">
                  {t.does}
                  {lots.length > 1 && t.step !== "preheat" ? (
                    <span className="text-soft">{` · ${lot.name}`}</span>
                  ) : null}
                  {t.step === "preheat" && heats.length > 1 ? ` to ${format.oven(oven.oven_c)}` : ""}
                  <span className="block text-fine text-soft">
                    {t.step === "bake"
                      ? `${heats.length > 1 ? `${format.oven(oven.oven_c)}, ` : ""}look at ${clock(shifted(ready_by, t.start_min + oven.look_after_min))}, out by ${clock(t.end_at)}`
                      : t.step === "chill" ||
                          t.step === "bulk_chill" ||
                          t.step === "thaw" ||
                          t.step === "tray_chill" ||
                          t.step === "cool_on_rack" ||
                          t.step === "dry"
                        ? `until ${sameDay(t.start_at, t.end_at) ? clock(t.end_at) : dayClock(t.end_at)}`
                        : `${duration(t.end_min - t.start_min)}`}
                    {t.why ? (
                      <>
                        ; <Says of={t.why} />
                      </>
                    ) : null}
                  </span>
                </span>
                <span className="only-print ml-auto">□</span>
              </li>
            </Fragment>
          );
        })}
      </ol>
    </section>
  );
}
