/** A cutter as its file says, at its own size, over a line of 100 mm to check the screen against a ruler. */
import { Says } from "../../kit/Says";
import type { Cutter } from "../../api/client";
import { cutterPath } from "../../drawing/path";
import { useFormat } from "../../kit/settings";

const CHECK_MM = 100;

export function TrueSize({ cutter }: { cutter: Cutter }) {
  const format = useFormat();
  const { width_mm: w, height_mm: h } = cutter;
  const [wide, high] = [Math.max(w, CHECK_MM) + 4, h + 16];
  return (
    <figure>
      <div className="overflow-auto rounded-xl border border-rule bg-raised p-2">
        <svg
          width={`${wide}mm`}
          height={`${high}mm`}
          viewBox={`0 0 ${wide} ${high}`}
          role="img"
          aria-label={`${cutter.name} at its own size, with a line of 100 mm`}
        >
          <path
            d={cutterPath(cutter)}
            transform={`translate(${wide / 2} ${h / 2 + 2})`}
            className="fill-cut stroke-cut-line"
            strokeWidth="0.4"
          />
          <path
            d={`M${(wide - CHECK_MM) / 2} ${h + 8}h${CHECK_MM}m0 -3v6m${-CHECK_MM} -6v6`}
            className="stroke-ink"
            strokeWidth="0.5"
            fill="none"
          />
          <text x={wide / 2} y={h + 14} textAnchor="middle" fontSize="4">
            100 mm
          </text>
        </svg>
      </div>
      <figcaption className="mt-1 text-fine text-soft">
        The file says {format.length(Math.round(w * 10) / 10)} × {format.length(Math.round(h * 10) / 10)}
        {(cutter.holes_mm?.length ?? 0) > 0
          ? `, with ${cutter.holes_mm?.length === 1 ? "a hole" : `${cutter.holes_mm?.length} holes`}`
          : ""}
        . When the line is 100 mm by your ruler, hold your cutter to the drawing.{" "}
        {cutter.warning ? <Says of={cutter.warning} /> : null}
      </figcaption>
    </figure>
  );
}
