/** A sheet's thickness as a map: paler where it is thin, deeper where it is thick, with every reading as a figure and a word. */
import type { RefObject } from "react";
import type { Job } from "../../api/client";
import { Ruler } from "../../drawing/Ruler";
import { linear } from "../../drawing/scale";
import { number } from "../../drawing/units";
import { useNarrow, usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import type { Schemas } from "../../api/client";

interface Props {
  picture: RefObject<SVGSVGElement | null>;
  even: Schemas["EvenView"] | undefined;
  readings: NonNullable<Job["measured"]>[number];
  width_mm: number;
  length_mm: number;
}

export function EvenDrawing({ picture, even, readings, width_mm, length_mm }: Props) {
  const format = useFormat();
  const narrow = useNarrow();
  const width = usePictureWidth();
  const scale = Math.min((width - 64) / length_mm, 330 / width_mm);
  const [w, h] = [length_mm * scale, width_mm * scale];
  const words = readings.read_mm
    .map((mm, i) =>
      mm == null
        ? ""
        : `${format.length(mm)}${even?.spots[i] && even.spots[i] !== "even" ? ` ${even.spots[i]}` : ""}`,
    )
    .filter(Boolean);
  return (
    <svg
      ref={picture}
      viewBox={`-50 -40 ${width} ${h + 50}`}
      className="w-full"
      role="img"
      aria-labelledby="even-title"
    >
      <title id="even-title">
        {words.length > 0
          ? `Thickness of the sheet: ${words.join(", ")}`
          : "The sheet, nothing read on it yet"}
      </title>
      <Ruler width_mm={length_mm} height_mm={width_mm} scale={scale} system={format.ruler} />
      <clipPath id="even-sheet">
        <rect width={w} height={h} rx="9" />
      </clipPath>
      <rect width={w} height={h} rx="9" className="fill-dough" />
      {even ? <Map even={even} w={w} h={h} /> : null}
      <rect width={w} height={h} rx="9" className="fill-none stroke-cut-line" strokeWidth="1.4" />
      {readings.read_mm.map((mm, i) => {
        const [column, row] = [i % readings.columns, Math.floor(i / readings.columns)];
        const x = ((row + 0.5) / readings.rows) * w;
        const y = h - ((column + 0.5) / readings.columns) * h;
        const spot = even?.spots[i];
        return (
          <g key={i} transform={`translate(${x} ${y})`} textAnchor="middle">
            {mm == null ? (
              <circle r="3.5" className="fill-none stroke-cut-line" />
            ) : (
              <>
                <rect
                  x={narrow ? -24 : -30}
                  y={spot && spot !== "even" ? -19 : -14}
                  width={narrow ? 48 : 60}
                  height={spot && spot !== "even" ? 40 : 26}
                  rx="7"
                  className="fill-worktop"
                  opacity="0.9"
                />
                <text y={spot && spot !== "even" ? -1 : 5} fontSize="16" fontWeight="600" className="num">
                  {number(format.shown("length", mm), 2)}
                </text>
                {spot && spot !== "even" ? (
                  <text
                    y="16"
                    fontSize="13.5"
                    fontWeight="600"
                    className={spot === "thin" ? "fill-cold" : "fill-warm"}
                  >
                    {spot}
                  </text>
                ) : null}
              </>
            )}
          </g>
        );
      })}
    </svg>
  );
}

function Map({ even, w, h }: { even: Schemas["EvenView"]; w: number; h: number }) {
  const n = even.map_cells;
  const [cw, ch] = [w / n, h / n];
  // At least a tenth of the thickness apart, so that an even sheet is not drawn as a mountain range.
  const half = Math.max((even.most_mm - even.least_mm) / 2, even.mean_mm * 0.05);
  const shade = linear([even.mean_mm - half, even.mean_mm + half], [0.05, 0.95]);
  const depth = (mm: number) => Math.min(Math.max(shade(mm), 0.05), 0.95);
  return (
    <g clipPath="url(#even-sheet)" shapeRendering="crispEdges" aria-hidden="true">
      {even.map_mm.map((mm, i) => {
        const [column, row] = [i % n, Math.floor(i / n)];
        return (
          <rect
            key={i}
            x={row * cw}
            y={h - (column + 1) * ch}
            width={cw}
            height={ch}
            className="fill-held"
            opacity={depth(mm)}
          />
        );
      })}
    </g>
  );
}
