/** What hangs by the oven: for each tray when it goes in, when to look, what to look for, and what to do when it comes out. */
import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../api/client";
import { useJobContext } from "../../app/JobFrame";
import { clock, longDay, shifted } from "../../drawing/time";
import { say, textOf } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { OvenNav } from "./OvenNav";

export function BakeSheet() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { oven } = plan;
  const bakes = plan.clock.tasks.filter((t) => t.step === "bake");
  const heat = plan.clock.tasks.find((t) => t.step === "preheat");
  const cooling = useQuery({
    queryKey: ["cooling", job.id, oven.forecast?.bake_min, oven.forecast?.thickness_mm],
    queryFn: () => settled(api.GET("/api/jobs/{id}/cooling", { params: { path: { id: job.id } } })),
    enabled: oven.forecast != null,
    retry: false,
  }).data;
  const early = Math.round(oven.look_after_min);
  const least = Math.round(oven.bake_least_min);
  return (
    <>
      <Work dim={dim}>
        <StationHead title="Bake sheet" sub={`${job.name}, ${longDay(plan.clock.start_at)}`}>
          <button type="button" className="btn btn-small no-print" onClick={() => print()}>
            Print the bake sheet
          </button>
        </StationHead>
        <OvenNav jobId={job.id} />
        <p className="mb-3 text-lg">
          {oven.cover_pot ? (
            <>{heat ? <strong>{clock(heat.start_at)} </strong> : null}heat the covered pot over a low flame</>
          ) : (
            <>
              {heat ? (
                <>
                  <strong>{clock(heat.start_at)}</strong> heat the oven to{" "}
                </>
              ) : (
                "Oven at "
              )}
              <strong>{format.oven(oven.oven_c)}</strong>
            </>
          )}
          , {plan.shape.trays.fill.length === 1 ? "one tray" : `${plan.shape.trays.fill.length} trays`}.
        </p>
        <table className="w-full border-collapse text-lg" aria-label="Trays in the oven">
          <thead>
            <tr className="border-b border-edge text-left text-fine text-soft">
              <th className="py-1 pr-2">Tray</th>
              <th className="pr-2">In</th>
              <th className="pr-2">Look</th>
              <th className="pr-2">Take out when it looks done</th>
              <th>On the rack</th>
            </tr>
          </thead>
          <tbody className="num">
            {bakes.map((t, i) => (
              <tr key={i} className="border-b border-rule">
                <td className="whitespace-nowrap py-2 pr-2 font-semibold">
                  {t.tray}: {plan.shape.trays.fill[(t.tray ?? 1) - 1] ?? 0}
                </td>
                <td className="pr-2">{clock(t.start_at)}</td>
                <td className="pr-2">{clock(shifted(plan.ready_by, t.start_min + early))}</td>
                <td className="pr-2">
                  {clock(shifted(plan.ready_by, t.start_min + least))}–{clock(t.end_at)}
                </td>
                <td>{clock(shifted(t.end_at, Math.round(oven.cool_on_tray_min)))}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <ol className="mt-4 list-decimal space-y-2 pl-6 text-lg">
          <li>{say(oven.look_for, format)}</li>
          <li>
            Look first after {number(oven.look_after_min, 0)}&nbsp;min; then every minute.{" "}
            {oven.turn
              ? say(oven.turn, format)
              : "Turn the tray when you look, if one side of the oven is hotter."}
          </li>
          <li>
            On leaving the oven: domed ones are pressed flat with the bottom of a tin within a minute;
            misshapen edges are pushed in with a larger round cutter. Slide the paper with them off the tray
            if they are dark enough.
          </li>
          <li>
            {number(oven.cool_on_tray_min, 0)}&nbsp;min on the tray, until one lifts without bending
            {cooling?.lifts_after_min == null
              ? ""
              : ` (by the forecast after ${number(cooling.lifts_after_min, 0)})`}
            ; then on a rack.
          </li>
          <li>
            {cooling?.packs_after_min == null
              ? "Ice or pack them once they're cool all the way through, an hour or more after the bake."
              : `Ice or pack them after ${number(cooling.packs_after_min, 0)}\u00a0min on the tray. On a rack it's sooner.`}
          </li>
        </ol>
      </Work>
      <TicketBox>
        <Part title="A tray takes">
          <p className="answer">{`about ${number(oven.bake_about_min, 0)}\u00a0min`}</p>
          <p className="mt-1 text-soft">{`Nine of ten take ${number(oven.bake_least_min, 0)} to ${number(oven.bake_most_min, 0)}\u00a0min${oven.forecast ? `, from ${format.temperature(oven.forecast.start_c, 0)} pieces` : ""}.`}</p>
        </Part>
        <Part title="Mind">
          {oven.warnings.map((w) => (
            <p key={textOf(w)} className="caution mb-2">
              {say(w, format)}
            </p>
          ))}
          <p className="caution">
            Oven gloves; hot trays away from children.{" "}
            {oven.cover_pot
              ? ""
              : `Shut the door at once: the oven takes some ${number(oven.comes_back_min, 0)}\u00a0min to come back, which the forecast reckons with.`}
          </p>
        </Part>
      </TicketBox>
    </>
  );
}
