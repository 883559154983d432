/** Sheets with their cuts, side by side, to one scale. */
import { useId, type RefObject } from "react";
import type { Cutter } from "../../api/client";
import { Ruler } from "../../drawing/Ruler";
import { cutterPath } from "../../drawing/path";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { Dough } from "./NestDrawing";
import { rollName, type Roll } from "./rolls";

const GAP = 26;

/** Cuts drawn as used on one sheet: all of them where several sheets are alike. */
const counted = (r: Roll) => (r.sheets > 1 ? r.cuts.length : r.pieces);

export function SheetDrawing({
  picture,
  rolls,
  cutter,
}: {
  picture: RefObject<SVGSVGElement | null>;
  rolls: readonly Roll[];
  cutter: Cutter;
}) {
  const format = useFormat();
  const id = useId();
  // Sheets lie with their length across the page; layouts have it down.
  const width = usePictureWidth();
  const width_mm = Math.max(...rolls.map((r) => r.width_mm));
  const total_mm = rolls.reduce((sum, r) => sum + r.length_mm, 0);
  const scale = Math.min((width - 64 - GAP * (rolls.length - 1)) / total_mm, 430 / width_mm);
  const h = width_mm * scale;
  const path = cutterPath(cutter);
  const before = (i: number) => rolls.slice(0, i).reduce((sum, r) => sum + r.length_mm * scale + GAP, 0);
  return (
    <svg
      ref={picture}
      viewBox={`-50 -40 ${width} ${h + 78}`}
      className="w-full"
      role="img"
      aria-labelledby={`${id}-title ${id}-desc`}
    >
      <title id={`${id}-title`}>{`Sheets of ${cutter.name}, to scale`}</title>
      <desc id={`${id}-desc`}>
        {rolls
          .map(
            (r) =>
              `${rollName(r.number)}: ${format.length(r.width_mm)} by ${format.length(r.length_mm)}, ${counted(r)} cuts${r.least_gap_mm == null ? "" : `, smallest gap ${format.length(r.least_gap_mm)}`}`,
          )
          .join("; ")}
      </desc>
      <defs>
        <pattern
          id={`${id}-scrap`}
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0v7" className="stroke-cut-line" strokeWidth="0.7" opacity="0.3" />
        </pattern>
      </defs>
      {rolls.map((r, i) => {
        const w = r.length_mm * scale;
        return (
          <g key={i} transform={`translate(${before(i)} 0)`}>
            <Ruler
              width_mm={r.length_mm}
              height_mm={i === 0 ? r.width_mm : 0}
              scale={scale}
              system={format.ruler}
              left={i === 0}
            />
            <Dough form={r.form} w={w} h={r.width_mm * scale} className="fill-dough stroke-cut-line" />
            <Dough form={r.form} w={w} h={r.width_mm * scale} fill={`url(#${id}-scrap)`} />
            {r.cuts.map((c, j) => {
              const used = j < counted(r);
              return (
                <g
                  key={j}
                  className="slides"
                  transform={`translate(${c.y_mm * scale} ${(r.width_mm - c.x_mm) * scale}) rotate(${c.turn_deg - 90}) scale(${scale})`}
                >
                  <path
                    d={path}
                    className={used ? "fill-cut stroke-cut-line" : "fill-none stroke-cut-line"}
                    strokeWidth={1.3 / scale}
                    strokeDasharray={used ? undefined : `${4 / scale}`}
                    strokeLinejoin="round"
                  />
                </g>
              );
            })}
            <g
              className="num"
              fontSize={Math.min(12, (Math.min(cutter.width_mm, cutter.height_mm) / 2) * scale * 0.6)}
              textAnchor="middle"
              aria-hidden="true"
            >
              {r.cuts.slice(0, counted(r)).map((c, j) => (
                <text key={j} className="on-cut" x={c.y_mm * scale} y={(r.width_mm - c.x_mm) * scale + 4}>
                  {j + 1}
                </text>
              ))}
            </g>
            <text
              x={rolls.length > 1 ? w / 2 : 0}
              y={h + 24}
              textAnchor={rolls.length > 1 ? "middle" : "start"}
              fontSize="15.5"
              fontWeight="600"
            >
              {caption(r, w, counted(r))}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** As much of the name as there is room for. */
function caption(roll: Roll, width: number, count: number): string {
  const short = roll.number === 0 ? "first" : roll.number === 1 ? "re-roll" : "2nd";
  const sheets = roll.sheets > 1 ? `, ${roll.sheets} sheets` : "";
  const long = `${rollName(roll.number)}: ${count}${sheets}`;
  if (long.length * 8.2 < width + GAP) return long;
  const middle = `${short}: ${count}`;
  return middle.length * 8.2 < width + GAP ? middle : String(count);
}
