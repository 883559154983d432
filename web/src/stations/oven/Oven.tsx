/** The forecast of one piece: how long, how far it spreads, how it looks, and what that rests on. */
import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link } from "react-router";
import { api, settled } from "../../api/client";
import { useChangeJob, useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { say, textOf } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Fold, Why } from "../../kit/Fold";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { BakeCurve } from "./BakeCurve";
import { BesidePractice } from "./BesidePractice";
import { OvenNav } from "./OvenNav";
import { PieceDrawing } from "./PieceDrawing";
import { ENDS, LINERS } from "./words";

export function Oven() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const changeKitchen = useChangeKitchen();
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const { oven } = plan;
  const { forecast } = oven;
  const parts =
    useQuery({
      queryKey: [
        "parts-ahead",
        job.id,
        job.cutter_id,
        job.oven_c,
        forecast?.bake_min,
        forecast?.thickness_mm,
      ],
      queryFn: () => settled(api.GET("/api/jobs/{id}/parts-ahead", { params: { path: { id: job.id } } })),
      enabled: forecast != null,
      retry: false,
    }).data ?? [];
  const readings = kitchen.data?.oven_readings ?? [];
  const here = readings.find((r) => r.set_c === job.oven_c);
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={forecast ? `Done in ${number(oven.bake_about_min, 0)}\u00a0min` : "Bake time"}
          sub={`at ${format.oven(oven.oven_c)}${forecast ? `, cookies in at ${format.temperature(forecast.start_c, 0)}` : ""}`}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} baked`} />
          </SaveMenu>
        </StationHead>
        <OvenNav jobId={job.id} />
        {forecast ? (
          <>
            <PieceDrawing picture={picture} plan={plan} forecast={forecast} parts={parts} />
            {parts.length > 0 ? (
              <ol className="mt-2 space-y-1" aria-label="Parts that bake faster">
                {parts.map((p, i) => (
                  <li key={p.sentence.text} className="flex gap-2">
                    <span
                      className="num grid size-6 shrink-0 place-items-center rounded-full border border-ink text-sm font-bold"
                      aria-hidden="true"
                    >
                      {i + 1}
                    </span>
                    {say(p.sentence, format)}
                  </li>
                ))}
              </ol>
            ) : null}
            <h3 className="h-part mb-1 mt-4">Minute by minute</h3>
            <BakeCurve forecast={forecast} oven={oven} />
          </>
        ) : (
          <p className="my-6 max-w-xl text-lg">
            {oven.cover_pot ? (
              "No forecast for a covered pot. Usual time: about twice an oven’s. Look often."
            ) : (
              <>No forecast for this bake. {oven.warnings[0] ? say(oven.warnings[0], format) : ""}</>
            )}
          </p>
        )}
      </Work>
      <TicketBox>
        <Part title="Bake time">
          <p className="answer">
            <Live value={`about ${number(oven.bake_about_min, 0)}\u00a0min`} />
          </p>
          <p className="mt-1 text-soft">
            Look at {number(oven.look_after_min, 0)}
            {forecast
              ? ""
              : `. Nine of ten take ${number(oven.bake_least_min, 0)} to ${number(oven.bake_most_min, 0)}\u00a0min`}
            .
          </p>
          {forecast ? (
            <BesidePractice
              name="9 in 10 bakes"
              unit="min"
              own={{ least: oven.bake_least_min, most: oven.bake_most_min }}
              at={oven.bake_about_min}
              practice={{ least: oven.practice_bake_least_min, most: oven.practice_bake_most_min }}
            />
          ) : null}
          {oven.recipe ? <p className="say mt-3">{say(oven.recipe, format)}</p> : null}
          <p className="say mt-3">
            {say(oven.look_for, format)} Leave them on the tray {number(oven.cool_on_tray_min, 0)}&nbsp;min:
            they’re soft at first.
          </p>
        </Part>
        <Part title="Bake until">
          <Choice
            label="Bake until"
            value={job.bake_end ?? "just_golden"}
            options={ENDS}
            onChange={(bake_end) => change.mutate({ bake_end })}
          />
        </Part>
        <Part title="Oven and tray">
          <div className="space-y-3">
            <Amount
              label="Oven set to"
              kind="oven"
              value={job.oven_c}
              step={5}
              field="oven_c"
              onSave={(oven_c) => keep({ oven_c })}
            />
            {forecast ? (
              <div className="flex items-end gap-2">
                <Amount
                  className="flex-1"
                  label={
                    job.goes_in_c == null
                      ? "Cookies go in at (from the chill)"
                      : "Cookies go in at (measured)"
                  }
                  kind="temperature"
                  value={job.goes_in_c ?? Math.round(forecast.start_c * 10) / 10}
                  field="goes_in_c"
                  onSave={(goes_in_c) => keep({ goes_in_c })}
                />
                {job.goes_in_c == null ? null : (
                  <button type="button" className="btn" onClick={() => change.mutate({ goes_in_c: null })}>
                    Use the chill
                  </button>
                )}
              </div>
            ) : null}
            <Fold name="oven-more" title="More">
              <div className="space-y-3">
                {kitchen.data && !oven.cover_pot ? (
                  <Choice
                    label="Oven mode"
                    value={kitchen.data.oven_fan ? "fan" : "still"}
                    options={[
                      { value: "still", label: "Conventional" },
                      { value: "fan", label: "Fan (convection)" },
                    ]}
                    onChange={(v) => changeKitchen.mutate({ oven_fan: v === "fan" })}
                  />
                ) : null}
                <div>
                  <span className="mb-1 block text-fine text-soft">Under the cookies</span>
                  <Choice
                    label="Under the cookies"
                    value={job.liner ?? "parchment"}
                    options={LINERS}
                    onChange={(liner) => change.mutate({ liner })}
                  />
                </div>
                {kitchen.data && !oven.cover_pot ? (
                  <Amount
                    label={`Thermometer reading at ${format.oven(job.oven_c)}`}
                    kind="temperature"
                    value={here?.read_c ?? job.oven_c}
                    step={1}
                    field="oven_readings"
                    onSave={(read_c) =>
                      keepKitchen((now) => ({
                        oven_readings: [
                          ...(now.oven_readings ?? []).filter((r) => r.set_c !== job.oven_c),
                          { set_c: job.oven_c, read_c, swing_k: here?.swing_k ?? 0 },
                        ],
                      }))
                    }
                  />
                ) : null}
              </div>
            </Fold>
            <p className="text-fine text-soft">
              {readings.length === 0
                ? "Check your oven with a thermometer for a surer time."
                : `Measured at ${readings.map((r) => format.oven(r.set_c)).join(", ")}.`}{" "}
              <Link to="/kitchen/oven">Test your oven</Link>
            </p>
            <Fault text={otherFault(change.error, ["oven_c"]) ?? otherFault(changeKitchen.error, [])} />
          </div>
        </Part>
        <Part title="How they come out">
          <Rows>
            <Row name="Growth all around">
              <Live
                value={format.lengths(
                  Math.round(oven.growth_least_mm * 10) / 10,
                  Math.round(oven.growth_most_mm * 10) / 10,
                )}
              />
            </Row>
            <Row name="Spread of this cookie">
              <Live
                value={`${number(oven.spread_least_percent, 1)}–${number(oven.spread_most_percent, 1)}%`}
              />
            </Row>
            <Row name="Baked width">
              <Live
                value={format.lengths(
                  Math.round(oven.baked_width_least_mm * 10) / 10,
                  Math.round(oven.baked_width_most_mm * 10) / 10,
                )}
              />
            </Row>
            {forecast ? (
              <>
                <Row name="Thickness, cut → baked">
                  <Live
                    value={`${format.length(Math.round(oven.thickness_mm * 10) / 10)} → ${format.length(Math.round(forecast.thickness_mm * 10) / 10)}`}
                  />
                </Row>
                <Row name="Density, baked">
                  <Live value={`${number(forecast.density_kg_m3 / 1000, 2, 2)}\u00a0g/cm³`} />
                </Row>
                <Row name="Middle when it comes out">
                  <Live value={format.temperature(forecast.core_c, 0)} />
                </Row>
                <Row name="Weight lost in baking">
                  <Live value={`${number(forecast.loss_percent, 1)}%`} />
                </Row>
                <Row name="Edges vs. middle">
                  <Live value={`${forecast.rim_apart_seen ? "clearly darker" : "barely darker"}`} />
                </Row>
              </>
            ) : null}
          </Rows>
          {forecast ? (
            <BesidePractice
              name="Spread of a plain round"
              unit="%"
              own={{ least: oven.round_spread_least_percent, most: oven.round_spread_most_percent }}
              at={forecast.spread_percent}
              practice={{
                least: oven.practice_spread_least_percent,
                most: oven.practice_spread_most_percent,
              }}
            />
          ) : null}
          <Why
            name="oven"
            items={forecast ? oven.reasons : [...oven.reasons, "Usual ranges, not a forecast for your oven."]}
          />
          {oven.warnings.map((w) => (
            <p key={textOf(w)} className="caution mt-3">
              {say(w, format)}
            </p>
          ))}
          <p className="caution mt-3">
            Every oven differs: look early. Wear oven mitts. Keep hot trays away from children. Don’t taste
            raw dough with flour or egg in it.
          </p>
        </Part>
        <NextStep station="oven" />
      </TicketBox>
    </>
  );
}
