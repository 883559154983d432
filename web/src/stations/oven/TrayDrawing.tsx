/** A full tray to scale, pieces as cut and as baked. */
import type { RefObject } from "react";
import type { Plan, Schemas } from "../../api/client";
import { Ruler } from "../../drawing/Ruler";
import { cutterPath, outlinePath } from "../../drawing/path";
import { number } from "../../drawing/units";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

/** With `times`, each piece has its minutes on it, and those that are done too late for one time are hatched. */
export function TrayDrawing({
  picture,
  plan,
  baked,
  times,
}: {
  picture: RefObject<SVGSVGElement | null>;
  plan: Plan;
  baked: boolean;
  times?: Schemas["TrayTimesView"] | undefined;
}) {
  const format = useFormat();
  const { trays } = plan.shape;
  const { width_mm, length_mm } = trays;
  const width = usePictureWidth();
  const scale = Math.min((width - 80) / length_mm, 440 / width_mm);
  const [w, h] = [length_mm * scale, width_mm * scale];
  const path = cutterPath(plan.cutter);
  const shown = Math.min(trays.cuts.length, trays.fill[0] ?? trays.cuts.length);
  const grown = outlinePath(plan.oven.baked_outline_mm, plan.oven.baked_holes_mm);
  return (
    <svg
      ref={picture}
      viewBox={`-54 -42 ${width} ${h + (times ? 72 : 60)}`}
      className="w-full"
      role="img"
      aria-labelledby="tray-title tray-desc"
    >
      <title id="tray-title">{`A tray of ${shown} cookies`}</title>
      <desc id="tray-desc">{`Usable area ${format.length(width_mm)} by ${format.length(length_mm)}; gap ${format.length(trays.gap_mm)} as cut.`}</desc>
      <Ruler width_mm={length_mm} height_mm={width_mm} scale={scale} system={format.ruler} />
      <rect
        x="-7"
        y="-7"
        width={w + 14}
        height={h + 14}
        rx="16"
        className="fill-stone-2 stroke-edge"
        strokeWidth="1.6"
      />
      <rect width={w} height={h} rx="6" className="fill-raised stroke-rule" />
      {times ? (
        <>
          <pattern
            id="tray-late"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="7" height="7" className="fill-cold-pale" />
            <path d="M0 0V7" className="stroke-cold" strokeWidth="1.6" />
          </pattern>
          <text x={w / 2} y={h + 24} textAnchor="middle" fontSize="14" className="soft">
            door
          </text>
        </>
      ) : null}
      {trays.cuts.slice(0, shown).map((c, i) => {
        const done = times?.pieces[i]?.done_min;
        const late = times !== undefined && done !== undefined && done > times.one_time_to_min;
        const place = `translate(${c.y_mm * scale} ${(width_mm - c.x_mm) * scale}) rotate(${c.turn_deg - 90})`;
        return (
          <g key={i} className="slides" transform={place}>
            {baked ? (
              <path
                d={grown}
                transform={`scale(${scale})`}
                className="fill-pale stroke-butter-deep"
                strokeWidth={1.3 / scale}
                strokeLinejoin="round"
              />
            ) : null}
            <path
              d={path}
              transform={`scale(${scale})`}
              className={done !== undefined && late ? "stroke-cold" : "fill-cut stroke-cut-line"}
              fill={done !== undefined && late ? "url(#tray-late)" : undefined}
              strokeWidth={1.3 / scale}
              strokeLinejoin="round"
            />
            {done === undefined ? null : (
              <g transform={`rotate(${90 - c.turn_deg})`}>
                <rect x="-19" y="-11" width="38" height="22" rx="6" className="fill-worktop" />
                <text y="5.5" textAnchor="middle" fontSize="15" fontWeight="600" className="num">
                  {number(done, 1, 1)}
                </text>
              </g>
            )}
          </g>
        );
      })}
    </svg>
  );
}
