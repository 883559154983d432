/** Which units are shown, and the way to choose others; the window for that comes when it is asked for. */
import { lazy, Suspense, useState } from "react";
import type { Units } from "../drawing/units";
import { useSettings } from "../kit/settings";

export const unitsWindow = () => import("./UnitsWindow");
const UnitsWindow = lazy(async () => ({ default: (await unitsWindow()).UnitsWindow }));

const SIGNS: { [K in keyof Units]: Record<Units[K], string> } = {
  weight: { g: "g", oz: "oz", cups: "g + cups" },
  length: { mm: "mm", in: "in" },
  temperature: { c: "\u00b0C", f: "\u00b0F" },
  clock: { "24": "14:00", "12": "2 pm" },
};

export function UnitsButton() {
  const { units } = useSettings();
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(false);
  const short = [SIGNS.weight[units.weight], SIGNS.length[units.length]].join(" \u00b7 ");
  return (
    <>
      <button
        type="button"
        className="btn btn-quiet btn-small"
        aria-haspopup="dialog"
        aria-label={`Units: ${short} \u00b7 ${SIGNS.temperature[units.temperature]} \u00b7 ${SIGNS.clock[units.clock]}`}
        onClick={() => {
          setWanted(true);
          setOpen(true);
        }}
      >
        <span>
          {short}
          <span className="hidden sm:inline"> · {SIGNS.temperature[units.temperature]}</span>
        </span>
      </button>
      {wanted ? (
        <Suspense>
          <UnitsWindow open={open} onOpen={setOpen} />
        </Suspense>
      ) : null}
    </>
  );
}
