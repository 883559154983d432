/** The cut list for the bench, on paper. */
import { useRef } from "react";
import type { Job, Plan } from "../../api/client";
import { clock, longDay } from "../../drawing/time";
import { useFormat } from "../../kit/settings";
import { SheetDrawing } from "./SheetDrawing";
import { rollName, sizeWord } from "./rolls";

export function CutList({ plan, job }: { plan: Plan; job: Job }) {
  const format = useFormat();
  const { shape } = plan;
  const picture = useRef<SVGSVGElement>(null);
  return (
    <section className="only-print">
      <h1 className="h-station">Cut list: {job.name}</h1>
      <p>
        {job.pieces} × {plan.cutter.name}, {format.length(shape.thickness_mm)} thick, ready by{" "}
        {longDay(plan.ready_by)} {clock(plan.ready_by)}
      </p>
      <table className="mt-4 w-full border-collapse">
        <thead>
          <tr className="border-b text-left">
            <th>Roll</th>
            <th>Sheets</th>
            <th>Dough per sheet</th>
            <th>Roll to</th>
            <th>Cut</th>
            <th>Done</th>
          </tr>
        </thead>
        <tbody>
          {shape.rolls.map((r) => (
            <tr key={shape.rolls.indexOf(r)} className="border-b">
              <td className="py-2">{rollName(r.number)}</td>
              <td>{r.sheets}</td>
              <td>{format.mass(r.mass_g)}</td>
              <td>{sizeWord(r, format)}</td>
              <td>
                {r.pieces} {r.nested ? "as laid out" : "in rows"}, by number,{" "}
                {plan.cut_in_place
                  ? "on the tray’s parchment, scraps lifted away"
                  : `${format.length(job.web_mm)} gap`}
              </td>
              <td>□</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-4">
        <SheetDrawing picture={picture} rolls={shape.rolls} cutter={plan.cutter} />
      </div>
      <p className="mt-4">
        Trays: {shape.trays.fill.map((n, i) => `${i + 1}: ${n}`).join(" · ")},{" "}
        {format.length(shape.trays.gap_mm)} between cookies.
      </p>
      {plan.pricked ? <p>Prick each with a fork before baking. □</p> : null}
      <p>
        Scraps: {format.mass(shape.left_g)}. Spare dough: {format.mass(shape.reserve_g)}.
      </p>
    </section>
  );
}
