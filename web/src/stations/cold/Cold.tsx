/** When it is ready, how long it stays ready, and what to do if it is past it. */
import { say, type Said } from "../../drawing/sentence";
import { useRef } from "react";
import type { Plan } from "../../api/client";
import { useChangeJob } from "../../api/queries";
import { pieceWord, useJobContext } from "../../app/JobFrame";
import { clock, duration } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveSvg } from "../../kit/SaveSvg";
import { Cautions, Part, Reasons, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ColdNav } from "./ColdNav";
import { CoolingCurve } from "./CoolingCurve";
import { HaveReady } from "./HaveReady";
import { capital, readyTo, worksBetween } from "./words";

export function Cold() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const { cold } = plan;
  return (
    <>
      <Work dim={dim}>
        <StationHead title={`${cold.count === 1 ? "One" : cold.count} ${pieceWord(plan, format)}`} sub={`${format.mass(cold.mass_g)}${cold.count > 1 ? " each" : ""} in the ${cold.place} at ${format.temperature(cold.air_c)}`}>
          <SaveSvg picture={picture} name={`${job.name} cooling`} />
        </StationHead>
        <ColdNav jobId={job.id} />
        <CoolingCurve picture={picture} cold={cold} />
        <HaveReady />
      </Work>
      <TicketBox>
        <Part title={readyTo(cold.purpose)}>
          <p className="answer">
            <Live value={clock(cold.ready_at)} />
          </p>
          <p className="mb-3 mt-1 text-soft">
            {duration(cold.told?.ready_min ?? 0)} after it goes in at {clock(cold.in_at)}; {clock(cold.ready_earliest_at)} to {clock(cold.ready_latest_at)} is likely
          </p>
          <p className="say">{staysSentence(plan)}</p>
        </Part>
        <Part title="How it is chilled">
          <div className="space-y-3">
            {plan.making.kind === "cut" ? <Choice
              label="Form for the cold"
              value={job.chill_as_disc ? "disc" : "sheets"}
              options={[{ value: "disc", label: "Pressed to discs" }, { value: "sheets", label: "Rolled first" }]}
              onChange={(v) => change.mutate({ chill_as_disc: v === "disc" })}
            /> : null}
            <Choice
              label="Place to chill"
              value={job.chill_place}
              options={[{ value: "fridge", label: "Fridge" }, { value: "freezer", label: "Freezer" }]}
              onChange={(chill_place) => change.mutate({ chill_place })}
            />
            {job.chill_as_disc && plan.making.kind === "cut" ? (
              <Amount label="Discs pressed to" kind="length" value={job.disc_mm} field="disc_mm" step={1} onSave={(disc_mm) => keep({ disc_mm })} />
            ) : null}
            <Amount
              label={job.flour_rest_min == null ? "Rests for its flour at least, as usual" : "Rests for its flour at least"}
              kind="duration"
              value={plan.cold.flour_rest_min}
              field="flour_rest_min"
              step={5}
              onSave={(flour_rest_min) => keep({ flour_rest_min })}
            />
            <Fault text={otherFault(change.error, ["disc_mm", "flour_rest_min"])} />
          </div>
        </Part>
        {cold.tray_chill ? <Part title="Cut pieces, before the oven">
          <Choice
            label="Place for the tray chill"
            value={job.tray_chill_place}
            options={[{ value: "fridge", label: "Fridge" }, { value: "freezer", label: "Freezer" }]}
            onChange={(tray_chill_place) => change.mutate({ tray_chill_place })}
          />
          <p className="mt-2">
            Firm after <strong><Live value={say(minuteRange(cold.tray_chill), format)} /></strong> on their tray, from {format.temperature(cold.tray_chill.start_c)} down to {format.temperature(cold.window.oven_ready_c)}.
          </p>
        </Part> : null}
        <Part title="How long it keeps">
          <Rows>
            <Row name="Fridge, well wrapped">{range(cold.keeping.fridge_days, "day")}</Row>
            <Row name="Freezer, well wrapped">{range(cold.keeping.freezer_months, "month")}</Row>
          </Rows>
          <div className="mt-2">
            <Reasons items={[cold.keeping.reason]} />
          </div>
        </Part>
        <Part title="How sure is this?">
          <Rows>
            <Row name={capital(cold.works_as)}>{worksBetween(cold, format)}</Row>
            <Row name={`${onBench(cold)} at ${format.temperature(cold.room_c, 0)}`}>{benchWords(cold)}</Row>
            <Row name="After a night, rest">{cold.tempering_after_night_min == null ? "the room is too cold" : cold.tempering_after_night_min < 0.5 ? "none needed" : duration(cold.tempering_after_night_min)}</Row>
          </Rows>
          <div className="mt-3">
            <Reasons items={[...cold.reasons, cold.water]} />
          </div>
          <Cautions items={plan.cautions} />
        </Part>
      </TicketBox>
    </>
  );
}

function range([from = 0, to = 0]: readonly number[], unit: string): string {
  return `${from === to ? "" : `${number(from, 0)}–`}${number(to, 0)} ${unit}${to === 1 ? "" : "s"}`;
}

function minuteRange(ready: NonNullable<Plan["cold"]["tray_chill"]>): Said {
  if (ready.never) return ready.never;
  const { earliest_min: from, latest_min: to } = ready.told ?? { earliest_min: 0, latest_min: 0 };
  return from === to ? `${to} min` : `${from}–${to} min`;
}

/** What of it lies on the bench while it is worked. */
function onBench(cold: Plan["cold"]): string {
  return cold.purpose === "rolling" ? "Sheet on the bench" : cold.purpose === "slicing" ? "Log on the bench" : "Portion on the bench";
}

function benchWords(cold: Plan["cold"]): string {
  if (cold.bench_min == null) return "stays workable";
  const longest = cold.bench_longest_min;
  return longest != null && longest > cold.bench_min + 0.5 ? `${number(cold.bench_min, 0)}–${number(longest, 0)} min` : `${number(cold.bench_min, 0)} min`;
}

function staysSentence(plan: Plan): string {
  const { cold } = plan;
  const rest = cold.tempering_after_night_min;
  const stays = cold.past_at ? `It stays right until ${clock(cold.past_at)}.` : "It stays right as long as it lies there.";
  const hard = cold.purpose === "slicing" ? "it shatters under the knife" : "it cracks at the rim";
  const after = cold.past_at
    ? rest == null
      ? ` After that ${hard}, and this room is too cold to soften it.`
      : ` Later ${hard}: let it rest on the bench, up to ${duration(Math.max(1, rest))} after a night.`
    : "";
  const now = cold.tempering_min != null && cold.tempering_min >= 0.5 ? ` In this plan the last piece waits long enough to need ${duration(cold.tempering_min)} on the bench.` : "";
  const out = clock(cold.out_at) === clock(cold.ready_at) ? "" : `The plan takes it out at ${clock(cold.out_at)}. `;
  return out + stays + after + now;
}
