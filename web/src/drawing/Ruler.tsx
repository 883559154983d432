/** A ruler along the top and left of a picture, in millimetres or inches. */
import { rulerTicks } from "./scale";
import type { System } from "./units";

const LONG = { short: 5, middle: 8, long: 12 } as const;

/** `scale` is page units to the millimetre; without `left` only the top is ruled. */
export function Ruler({
  width_mm,
  height_mm,
  scale,
  system,
  left = true,
}: {
  width_mm: number;
  height_mm: number;
  scale: number;
  system: System;
  left?: boolean;
}) {
  return (
    <g className="stroke-edge" strokeWidth="1.1" aria-hidden="true">
      {rulerTicks(width_mm, system).map((t) => (
        <g key={`x${t.at_mm}`}>
          <path d={`M${t.at_mm * scale} -5v${-LONG[t.kind]}`} />
          {t.kind === "long" ? (
            <text
              x={t.at_mm * scale}
              y="-21"
              textAnchor="middle"
              fontSize="13.5"
              className="num soft"
              stroke="none"
            >
              {t.figure}
            </text>
          ) : null}
        </g>
      ))}
      {(left ? rulerTicks(height_mm, system) : []).map((t) => (
        <g key={`y${t.at_mm}`}>
          <path d={`M-5 ${t.at_mm * scale}h${-LONG[t.kind]}`} />
          {t.kind === "long" ? (
            <text
              x="-21"
              y={t.at_mm * scale + 5}
              textAnchor="end"
              fontSize="13.5"
              className="num soft"
              stroke="none"
            >
              {t.figure}
            </text>
          ) : null}
        </g>
      ))}
    </g>
  );
}
