/** A ruler along the top and left of a picture in millimetres, with a tick every ten. */
import { rulerTicks } from "./scale";

const LONG = { short: 5, middle: 8, long: 12 } as const;

/** `scale` is page units to the millimetre; `figure` writes the length at a hundred millimetres. */
export function Ruler({ width_mm, height_mm, scale, figure, left = true }: {
  width_mm: number;
  height_mm: number;
  scale: number;
  figure(mm: number): string;
  left?: boolean;
}) {
  return (
    <g className="stroke-edge" strokeWidth="1.1" aria-hidden="true">
      {rulerTicks(width_mm).map((t) => (
        <g key={`x${t.at}`}>
          <path d={`M${t.at * scale} -5v${-LONG[t.kind]}`} />
          {t.kind === "long" ? (
            <text x={t.at * scale} y="-21" textAnchor="middle" fontSize="13.5" className="num soft" stroke="none">
              {figure(t.at)}
            </text>
          ) : null}
        </g>
      ))}
      {(left ? rulerTicks(height_mm) : []).map((t) => (
        <g key={`y${t.at}`}>
          <path d={`M-5 ${t.at * scale}h${-LONG[t.kind]}`} />
          {t.kind === "long" ? (
            <text x="-21" y={t.at * scale + 5} textAnchor="end" fontSize="13.5" className="num soft" stroke="none">
              {figure(t.at)}
            </text>
          ) : null}
        </g>
      ))}
    </g>
  );
}
