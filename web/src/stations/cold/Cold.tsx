/** When it is ready, how long it stays ready, and what to do if it is past it. */
import { capital } from "../../drawing/sentence";
import { useRef } from "react";
import type { Plan } from "../../api/client";
import { useJobContext } from "../../app/JobFrame";
import { pieceWord } from "../../app/pieceWord";
import { NextStep } from "../../app/NextStep";
import { clock, dayClock, duration, minutesBetween, sameDay, shifted } from "../../drawing/time";
import { say } from "../../drawing/sentence";
import { number, type Format } from "../../drawing/units";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { Chilling } from "./Chilling";
import { ColdNav } from "./ColdNav";
import { CoolingCurve } from "./CoolingCurve";
import { HaveReady } from "./HaveReady";
import { ChillBar } from "./ChillBar";
import { formWords, readyTo, worksBetween } from "./words";

export function Cold() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const picture = useRef<SVGSVGElement>(null);
  const { cold } = plan;
  return (
    <>
      <Work dim={dim}>
        <StationHead {...headOf(plan, format)}>
          {cold.thaw ? null : (
            <SaveMenu>
              <SaveSvg picture={picture} name={`${job.name} cooling`} />
            </SaveMenu>
          )}
        </StationHead>
        <ColdNav jobId={job.id} />
        {cold.thaw ? null : cold.stays === "no" ? (
          <p className="mb-2 text-soft">
            If you chilled it ({formWords(cold.piece, format)}, {cold.place}):
          </p>
        ) : null}
        {cold.thaw ? <Thawing plan={plan} /> : <CoolingCurve picture={picture} cold={cold} />}
        {cold.stays === "ready" || cold.stays === "best" || cold.stays === "at_least" ? <HaveReady /> : null}
      </Work>
      <TicketBox>
        <Answer plan={plan} />
        <Chilling job={job} plan={plan} />
        <Part title="How long it keeps">
          <Rows>
            <Row name="Fridge, well wrapped">{range(cold.keeping.fridge_days, "day")}</Row>
            <Row name="Freezer, well wrapped">{range(cold.keeping.freezer_months, "month")}</Row>
          </Rows>
          <Why name="cold-keeps" items={[cold.keeping.reason]} />
        </Part>
        <Part title="How sure is this?">
          <Rows>
            <Row name={capital(cold.works_as)}>{worksBetween(cold, format)}</Row>
            <Row name={`${onBench(cold)} at ${format.temperature(cold.room_c, 0)}`}>{benchWords(cold)}</Row>
            <Row name="Let it soften after a night">
              {cold.tempering_after_night_min == null
                ? "room too cold"
                : cold.tempering_after_night_min < 0.5
                  ? "not needed"
                  : duration(cold.tempering_after_night_min)}
            </Row>
          </Rows>
          <Cautions items={cold.warnings} />
          <Why name="cold" items={[...cold.reasons, cold.water]} />
          <Cautions items={plan.cautions} />
        </Part>
        <NextStep station="cold" />
      </TicketBox>
    </>
  );
}

function range([from = 0, to = 0]: readonly number[], unit: string): string {
  return `${from === to ? "" : `${number(from, 0)}–`}${number(to, 0)} ${unit}${to === 1 ? "" : "s"}`;
}

function headOf(plan: Plan, format: Format): { title: string; sub: string } {
  const { cold } = plan;
  if (cold.thaw)
    return {
      title: `${cold.count === 1 ? "1" : cold.count} ${pieceWord(plan, format)} from the freezer`,
      sub: `${format.mass(cold.mass_g)}${cold.count > 1 ? " each" : ""}`,
    };
  if (cold.stays === "no")
    return {
      title: cold.portions_first ? "Cookies not chilled" : "Dough not chilled",
      sub: `${cold.portions_first ? "into the oven" : "worked"} at ${format.temperature(cold.out_c)}`,
    };
  return {
    title: `${cold.count === 1 ? "1" : cold.count} ${pieceWord(plan, format)}`,
    sub: `${format.mass(cold.mass_g)}${cold.count > 1 ? " each" : ""} in the ${cold.place} at ${format.temperature(cold.air_c)}`,
  };
}

/** When it is ready, or what it is like when it comes out at a time of the baker's own. */
function Answer({ plan }: { plan: Plan }) {
  const format = useFormat();
  const { cold } = plan;
  const out = `${format.temperature(cold.out_c)} on average: ${cold.out_as}`;
  if (cold.thaw) {
    const bench = cold.thaw.way === "bench";
    return (
      <Part title={bench ? "Take out of the freezer at" : "Move to the fridge at"}>
        <p className="answer">
          <Live value={clock(cold.in_at)} />
        </p>
        <p className="mb-3 mt-1 text-soft">
          {sameDay(cold.in_at, plan.ready_by) ? "same day" : dayClock(cold.in_at)}
        </p>
        <p className="say">{`It can be shaped at ${clock(bench ? cold.out_at : cold.works_at)}, at ${format.temperature(cold.thaw.at_c)}.`}</p>
      </Part>
    );
  }
  if (cold.stays === "no") {
    return (
      <Part title={cold.portions_first ? "Bake right away, at" : "Shape right away, at"}>
        <p className="answer">
          <Live value={clock(cold.out_at)} />
        </p>
        <p className="mt-1 text-soft">{out}</p>
      </Part>
    );
  }
  const day = sameDay(cold.in_at, plan.ready_by) ? clock : dayClock;
  if (cold.stays === "exactly" || cold.stays === "overnight") {
    return (
      <Part title="Take it out at">
        <p className="answer">
          <Live value={clock(cold.out_at)} />
        </p>
        <p className="mb-3 mt-1 text-soft">
          {duration(minutesBetween(cold.in_at, cold.out_at))} in the {cold.place}, in at {day(cold.in_at)}
        </p>
        <p className="say">
          It comes out at {out}.
          {cold.tempering_min != null && cold.tempering_min >= 0.5
            ? ` Let it soften ${duration(cold.tempering_min)} on the bench.`
            : ""}
        </p>
      </Part>
    );
  }
  if (cold.stays === "best" && cold.told) {
    return (
      <Part title="Best at">
        <p className="answer">
          <Live value={clock(shifted(cold.in_at, Math.max(cold.told.best_min, cold.told.ready_min)))} />
        </p>
        <p className="mb-3 mt-1 text-soft">
          {duration(Math.max(cold.told.best_min, cold.told.ready_min))} in the {cold.place}, in at{" "}
          {day(cold.in_at)}. You can work it from {clock(cold.ready_at)}.
        </p>
        {cold.recipe ? <p className="say mb-2">{say(cold.recipe, format)}</p> : null}
        <p className="say">{staysSentence(plan)}</p>
      </Part>
    );
  }
  return (
    <Part title={readyTo(cold.purpose)}>
      <p className="answer">
        <Live value={clock(cold.ready_at)} />
      </p>
      <p className="mb-3 mt-1 text-soft">
        In the {cold.place} at {day(cold.in_at)}.
        {cold.told && cold.told.best_min > cold.told.ready_min
          ? ` Best from ${clock(shifted(cold.in_at, cold.told.best_min))}.`
          : ""}
      </p>
      {cold.told ? <ChillBar told={cold.told} /> : null}
      {cold.recipe ? <p className="say mb-2">{say(cold.recipe, format)}</p> : null}
      <p className="say">{staysSentence(plan)}</p>
    </Part>
  );
}

/** The way of dough from the freezer to the pin. */
function Thawing({ plan }: { plan: Plan }) {
  const format = useFormat();
  const { cold } = plan;
  if (!cold.thaw) return null;
  const steps =
    cold.thaw.way === "bench"
      ? [
          `${dayClock(cold.in_at)}: take it out of the freezer. Leave it wrapped on the bench.`,
          `${clock(cold.out_at)}: ${format.temperature(cold.thaw.at_c)} after ${duration(cold.thaw.bench_min)}. Unwrap it and start shaping.`,
        ]
      : [
          `${dayClock(cold.in_at)}: move it from the freezer to the fridge, wrapped.`,
          `${dayClock(cold.out_at)}: put it on the bench for ${duration(cold.thaw.bench_min)}.`,
          `${clock(cold.works_at)}: ${format.temperature(cold.thaw.at_c)}. Unwrap it and start shaping.`,
        ];
  return (
    <ol className="mt-4 max-w-xl list-decimal space-y-3 pl-6 text-lg">
      {steps.map((s) => (
        <li key={s}>{s}</li>
      ))}
    </ol>
  );
}

/** What of it lies on the bench while it is worked. */
function onBench(cold: Plan["cold"]): string {
  return cold.purpose === "rolling"
    ? "Sheet on the bench"
    : cold.purpose === "slicing"
      ? "Log on the bench"
      : "Dough ball on the bench";
}

function benchWords(cold: Plan["cold"]): string {
  if (cold.bench_min == null) return "stays workable";
  const longest = cold.bench_longest_min;
  return longest != null && longest > cold.bench_min + 0.5
    ? `${number(cold.bench_min, 0)}–${number(longest, 0)}\u00a0min`
    : `${number(cold.bench_min, 0)}\u00a0min`;
}

function staysSentence(plan: Plan): string {
  const { cold } = plan;
  const rest = cold.tempering_after_night_min;
  const stays = cold.past_at ? `Good until ${clock(cold.past_at)}.` : "Stays ready as long as it’s in there.";
  const hard = cold.purpose === "slicing" ? "it shatters when sliced" : "the edges crack";
  const after = cold.past_at
    ? rest == null
      ? ` After that ${hard}. Your room is too cold to soften it.`
      : ` After that ${hard}: let it soften on the bench, up to ${duration(Math.max(1, rest))} after overnight.`
    : "";
  const now =
    cold.tempering_min != null && cold.tempering_min >= 0.5
      ? ` The last one needs ${duration(cold.tempering_min)} on the bench.`
      : "";
  const out = clock(cold.out_at) === clock(cold.ready_at) ? "" : `Take it out at ${clock(cold.out_at)}. `;
  return out + stays + after + now;
}
