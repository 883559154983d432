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
        <StationHead title="Oven card" sub={`${job.name}, ${longDay(plan.clock.start_at)}`}>
          <button type="button" className="btn btn-small no-print" onClick={() => print()}>
            Print the oven card
          </button>
        </StationHead>
        <OvenNav jobId={job.id} />
        <p className="mb-3 text-lg">
          {oven.cover_pot ? (
            <>{heat ? <strong>{clock(heat.start_at)} </strong> : null}Heat the covered pot over a low flame</>
          ) : (
            <>
              {heat ? (
                <>
                  <strong>{clock(heat.start_at)}</strong> preheat to{" "}
                </>
              ) : (
                "Oven at "
              )}
              <strong>{format.oven(oven.oven_c)}</strong>
            </>
          )}
          , {plan.shape.trays.fill.length === 1 ? "1 tray" : `${plan.shape.trays.fill.length} trays`}.
        </p>
        <table className="w-full border-collapse text-lg" aria-label="Trays in the oven">
          <thead>
            <tr className="border-b border-edge text-left text-fine text-soft">
              <th className="py-1 pr-2">Tray: cookies</th>
              <th className="pr-2">In</th>
              <th className="pr-2">Look</th>
              <th className="pr-2">Out when done</th>
              <th>To the rack</th>
            </tr>
          </thead>
          <tbody className="num">
            {bakes.map((t, i) => (
              <tr key={i} className="border-b border-rule">
                <td className="whitespace-nowrap py-2 pr-2 font-semibold">
                  {t.tray}: {plan.shape.trays.fill[(t.tray ?? 1) - 1] ?? 0} cookies
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
            Look at {number(oven.look_after_min, 0)}&nbsp;min, then every minute.{" "}
            {oven.turn
              ? say(oven.turn, format)
              : "Turn the tray when you look if one side of the oven is hotter."}
          </li>
          <li>
            Within a minute: press domed ones flat with a flat-bottomed can. Scoot uneven edges in with a
            larger round cutter. Dark enough? Slide the parchment off the tray.
          </li>
          <li>
            {number(oven.cool_on_tray_min, 0)}&nbsp;min on the tray, until one lifts without bending
            {cooling?.lifts_after_min == null
              ? ""
              : ` (forecast ${number(cooling.lifts_after_min, 0)}\u00a0min)`}
            . Then onto a rack.
          </li>
          <li>
            {cooling?.packs_after_min == null
              ? "Ice or pack once fully at room temperature: an hour or more after baking."
              : `Ice or pack once fully at room temperature: ${number(cooling.packs_after_min, 0)}\u00a0min on the tray, sooner on a rack.`}
          </li>
        </ol>
      </Work>
      <TicketBox>
        <Part title="Bake time per tray">
          <p className="answer">{`about ${number(oven.bake_about_min, 0)}\u00a0min`}</p>
          <p className="mt-1 text-soft">{`Nine of ten take ${number(oven.bake_least_min, 0)} to ${number(oven.bake_most_min, 0)}\u00a0min${oven.forecast ? `, cookies in at ${format.temperature(oven.forecast.start_c, 0)}` : ""}.`}</p>
        </Part>
        <Part title="Take care">
          {oven.warnings.map((w) => (
            <p key={textOf(w)} className="caution mb-2">
              {say(w, format)}
            </p>
          ))}
          <p className="caution">
            Wear oven mitts. Keep hot trays away from children.{" "}
            {oven.cover_pot
              ? ""
              : `Close the door quickly: the oven needs about ${number(oven.comes_back_min, 0)}\u00a0min to recover (already counted).`}
          </p>
        </Part>
      </TicketBox>
    </>
  );
}
