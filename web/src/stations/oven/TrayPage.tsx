/** How the pieces lie on their trays, as cut and as baked. */
import { Why } from "../../kit/Fold";
import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { api, settled } from "../../api/client";
import { useChangeKitchen, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { useFamily, useTogether, type Together } from "../../app/lots";
import { say, textOf } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { OvenNav } from "./OvenNav";
import { TimesStrip, type OtherSize } from "./TimesStrip";
import { TrayDrawing } from "./TrayDrawing";

export function TrayPage() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const [params, setParams] = useSearchParams();
  const show = params.get("show") === "cut" || params.get("show") === "done" ? params.get("show") : "baked";
  const baked = show === "baked";
  const times = useQuery({
    queryKey: ["tray-times", job.id],
    queryFn: () => settled(api.GET("/api/jobs/{id}/tray-times", { params: { path: { id: job.id } } })),
    enabled: plan.oven.forecast != null,
    retry: false,
  }).data;
  const family = useFamily(job);
  const together = useTogether(job, family.length).data;
  const { oven, shape } = plan;
  const { trays } = shape;
  const last = trays.fill[trays.fill.length - 1] ?? 0;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={trays.fill.length === 1 ? "1 tray" : `${trays.fill.length} trays`}
          sub={
            trays.fill.length === 1
              ? `of ${last}`
              : `of ${trays.fill[0]}${last === trays.fill[0] ? "" : `, the last of ${last}`}`
          }
        >
          <Choice
            label="Show cookies"
            value={show as "baked" | "cut" | "done"}
            options={[
              { value: "cut", label: "As cut" },
              { value: "baked", label: "After baking" },
              ...(times ? [{ value: "done" as const, label: "When done" }] : []),
            ]}
            onChange={(v) => setParams(v === "baked" ? {} : { show: v }, { replace: true, flushSync: true })}
          />
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} tray`} />
          </SaveMenu>
        </StationHead>
        <OvenNav jobId={job.id} />
        <TrayDrawing
          picture={picture}
          plan={plan}
          baked={baked}
          times={show === "done" ? times : undefined}
        />
        <p className="mt-2 text-fine text-soft">
          {baked
            ? "Dark: cut size. Pale border: most growth likely."
            : show === "done"
              ? "Striped: needs longer than the timer."
              : null}{" "}
          <Link to={`/jobs/${job.id}/shape/trays`}>Move cookies by hand</Link>
        </p>
        {times ? (
          <>
            <h3 className="h-part mb-1 mt-5">When they’re done</h3>
            <TimesStrip times={times} others={otherSizes(together, job.id)} />
            <p className="mt-1 flex flex-wrap gap-x-4 text-fine text-soft">
              {times.measured ? null : (
                <Link to={`/jobs/${job.id}/shape/even`}>Measure the sheet to find thin cookies</Link>
              )}
              {times.mapped ? null : <Link to="/kitchen/oven">Map hot spots with bread or sugar</Link>}
            </p>
            <Why
              name="tray"
              items={[
                times.measured
                  ? "Uses the thickness you measured, in cutting order."
                  : "Assumes even thickness.",
                times.mapped ? "Uses your oven’s hot spots." : "Assumes an oven with no hot spots.",
              ]}
            />
          </>
        ) : null}
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
        {times ? (
          <Part title="Is one timer enough?">
            <p className="answer">
              {times.last_min - times.first_min < 0.05
                ? `${number(times.first_min, 1, 1)}\u00a0min`
                : `${number(times.first_min, 1, 1)}–${number(times.last_min, 1, 1)}\u00a0min`}
            </p>
            <div className="mt-2 space-y-2">
              {times.advice.map((a) => (
                <p key={textOf(a)} className={times.one_tray ? "say" : ""}>
                  {say(a, format)}
                </p>
              ))}
            </div>
          </Part>
        ) : null}
        <Part title="Room to spread">
          <Rows>
            <Row name="Growth all around">
              <Live
                value={format.lengths(
                  Math.round(oven.growth_least_mm * 10) / 10,
                  Math.round(oven.growth_most_mm * 10) / 10,
                )}
              />
            </Row>
            <Row name="Cut width">{format.length(Math.round(oven.cut_width_mm * 10) / 10)}</Row>
          </Rows>
          {kitchen.data ? (
            <div className="mt-3">
              <Amount
                label="Minimum gap on the tray"
                kind="length"
                value={kitchen.data.least_gap_mm}
                field="least_gap_mm"
                onSave={(least_gap_mm) => keepKitchen({ least_gap_mm })}
              />
            </div>
          ) : null}
          <p className="mt-3 text-fine text-soft">
            One size per tray. Items within {number(oven.one_class_percent, 0)}% of the same time can share.
          </p>
        </Part>
      </TicketBox>
    </>
  );
}

/** The other lots in the same heat, with their own time; whether they may share a tray is the server's word. */
function otherSizes(together: Together | undefined, id: number): OtherSize[] {
  if (!together) return [];
  const own = together.lots.findIndex((l) => l.job_id === id);
  const heat = together.lots[own]?.plan.oven.oven_c;
  const sharing = together.classes.find((c) => c.lots.includes(own))?.lots ?? [];
  return together.lots.flatMap((l, i) =>
    i === own || !l.plan.oven.forecast || l.plan.oven.oven_c !== heat
      ? []
      : [{ name: l.name, bake_min: l.plan.oven.forecast.bake_min, shares: sharing.includes(i) }],
  );
}
