/** The answer to 'what now': at the end of each station's ticket, the next sensible step. */
import { Link } from "react-router";
import type { Plan } from "../api/client";
import { clock } from "../drawing/time";
import { useFormat } from "../kit/settings";
import type { Format } from "../drawing/units";
import { useJobContext } from "./JobFrame";
import { pieceWord } from "./pieceWord";

type Station = "order" | "dough" | "cold" | "shape" | "oven" | "clock";

/** `disc` of `disc, 22 mm`. */
const bareWord = (plan: Plan, format: Format): string => pieceWord(plan, format).split(",")[0] ?? "";

const thaws = (plan: Plan, format: Format): { label: string; to: string } => ({
  label: `Take the ${bareWord(plan, format)} out of the freezer`,
  to: "cold",
});

function stepOf(station: Station, plan: Plan, format: Format): { label: string; to: string } {
  const { cold, making } = plan;
  switch (station) {
    case "order":
      if (cold.thaw) return thaws(plan, format);
      return { label: `Weigh out ${format.bigMass(plan.dough.dough_g)} of dough`, to: "dough/mix" };
    case "dough":
      if (cold.thaw) return thaws(plan, format);
      return cold.stays === "no"
        ? { label: making.kind === "cut" ? "Roll it at once" : "Shape it at once", to: "shape" }
        : {
            label: `Put ${cold.count === 1 ? "the" : "all"} ${bareWord(plan, format)} into the ${cold.place}`,
            to: "cold/now",
          };
    case "cold":
      return {
        label:
          making.kind === "cut"
            ? "Roll and cut it"
            : making.kind === "sliced"
              ? "Slice it"
              : "Lay out the trays",
        to: making.kind === "cut" ? "shape" : "shape/trays",
      };
    case "shape":
      return {
        label: `Bake ${plan.shape.trays.fill.length === 1 ? "the tray" : `${plan.shape.trays.fill.length} trays`}: print the oven card`,
        to: "oven/sheet",
      };
    case "oven":
      return { label: "See the whole day", to: "clock" };
    case "clock":
      return { label: "Record this bake", to: "ledger" };
  }
}

export function NextStep({ station }: { station: Station }) {
  const { job, plan, day } = useJobContext();
  const format = useFormat();
  const step = stepOf(station, plan, format);
  return (
    <section className="border-t border-rule pt-4" aria-label="What now">
      <p className="mb-2 text-fine text-soft">
        {station === "order" ? `Next, at ${clock(day.start_at)}` : "Next"}
      </p>
      <Link to={`/jobs/${job.id}/${step.to}`} className="btn btn-main inline-flex max-w-full items-center">
        {step.label}
      </Link>
    </section>
  );
}
