/** One portion from above and from the side, to one scale; a tray-wide bar with its cuts. */
import type { RefObject } from "react";
import type { Portioned, PortionQuery } from "../../api/logs";
import { cutterPath } from "../../drawing/path";
import { Ruler } from "../../drawing/Ruler";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

interface Props {
  picture: RefObject<SVGSVGElement | null>;
  kind: PortionQuery["kind"];
  found: Portioned;
}

const DOUGH = "fill-cut stroke-cut-line";
const GAP_MM = 14;

export function PortionDrawing({ picture, kind, found }: Props) {
  const format = useFormat();
  const width = usePictureWidth();
  const { sizes } = found;
  const tray = kind === "tray_bar";
  // Bent and put together, a piece is drawn by its own outline; others are round.
  const own = kind === "rope" || kind === "figure";
  const wide_mm = tray ? (sizes.length_mm ?? 0) : own ? found.width_mm : found.across_mm;
  const top_mm = tray ? (sizes.width_mm ?? 0) : own ? found.height_mm : found.across_mm;
  const under_mm = own ? -GAP_MM : found.high_mm;
  const scale = Math.min((width - 90) / wide_mm, 360 / (top_mm + under_mm + GAP_MM), 6);
  const h = (top_mm + under_mm + GAP_MM) * scale;
  const mid = (width - 64) / 2;
  const left = tray ? 0 : mid - (wide_mm * scale) / 2;
  const y2 = (top_mm + GAP_MM) * scale;
  return (
    <svg
      ref={picture}
      viewBox={`-50 -40 ${width} ${h + 86}`}
      className="w-full"
      role="img"
      aria-labelledby="portion-title"
    >
      <title id="portion-title">{`${kind.replace("_", " ")}: ${format.length(Math.round(found.across_mm))} across, ${format.length(Math.round(found.high_mm))} high, from above and from the side`}</title>
      <g transform={`translate(${left} 0)`}>
        <Ruler width_mm={wide_mm} height_mm={top_mm} scale={scale} system={format.ruler} left={tray} />
        <g strokeWidth="1.4" strokeLinejoin="round">
          {tray ? (
            <Tray sizes={sizes} scale={scale} />
          ) : own ? (
            <path
              d={cutterPath(found)}
              transform={`translate(${(wide_mm / 2) * scale} ${(top_mm / 2) * scale}) scale(${scale})`}
              strokeWidth={1.4 / scale}
              className={DOUGH}
            />
          ) : (
            <>
              <circle
                cx={(found.across_mm / 2) * scale}
                cy={(found.across_mm / 2) * scale}
                r={(found.across_mm / 2) * scale}
                className={DOUGH}
              />
              {sizes.dent_mm ? (
                <circle
                  cx={(found.across_mm / 2) * scale}
                  cy={(found.across_mm / 2) * scale}
                  r={(sizes.dent_mm / 2) * scale}
                  className="fill-warm-pale stroke-cut-line"
                />
              ) : null}
            </>
          )}
          <g transform={`translate(0 ${y2})`}>
            {tray ? (
              <rect width={wide_mm * scale} height={found.high_mm * scale} className={DOUGH} />
            ) : kind === "pressed" || kind === "stamped" ? (
              kind === "stamped" ? (
                <Stamped found={found} scale={scale} />
              ) : (
                <rect
                  width={found.across_mm * scale}
                  height={found.high_mm * scale}
                  rx={(found.high_mm / 2) * scale}
                  className={DOUGH}
                />
              )
            ) : own ? null : (
              <Side found={found} scale={scale} />
            )}
          </g>
        </g>
        <text x="0" y={h + 26} fontSize="15.5" fontWeight="600">
          {tray
            ? `${sizes.columns} × ${sizes.rows}: from above, and its edge`
            : own
              ? "From above, on the tray"
              : "From above, and from the side"}
        </text>
      </g>
    </svg>
  );
}

/** A stamped piece from the side: its raised parts and what the stamp has sunk. */
function Stamped({ found, scale }: { found: Portioned; scale: number }) {
  const [w, h, deep] = [found.across_mm * scale, found.high_mm * scale, (found.sizes.deep_mm ?? 0) * scale];
  const teeth = 6;
  const step = w / (2 * teeth + 1);
  const top = Array.from(
    { length: teeth },
    (_, i) => `H${(2 * i + 1) * step}V${deep}H${(2 * i + 2) * step}V0`,
  ).join("");
  return <path d={`M0 0${top}H${w}V${h}H0z`} className={DOUGH} />;
}

type Sizes = Portioned["sizes"];

function Side({ found, scale }: { found: Portioned; scale: number }) {
  const r = (found.across_mm / 2) * scale;
  const dent = ((found.sizes.dent_mm ?? 0) / 2) * scale;
  const deep = (found.sizes.deep_mm ?? 0) * scale;
  if (dent === 0) return <circle cx={r} cy={r} r={r} className={DOUGH} />;
  const drop = r - Math.sqrt(Math.max(0, r * r - dent * dent));
  return (
    <>
      <path
        d={`M${r - dent} ${drop}A${r} ${r} 0 1 0 ${r + dent} ${drop}Q${r} ${drop + 2 * deep} ${r - dent} ${drop}z`}
        className={DOUGH}
      />
      <path
        d={`M${r - dent} ${drop}H${r + dent}`}
        className="stroke-cut-line"
        strokeDasharray="4 3"
        fill="none"
      />
    </>
  );
}

function Tray({ sizes, scale }: { sizes: Sizes; scale: number }) {
  const [w, h] = [(sizes.length_mm ?? 0) * scale, (sizes.width_mm ?? 0) * scale];
  const [along, across] = [sizes.rows ?? 1, sizes.columns ?? 1];
  return (
    <>
      <rect width={w} height={h} rx={(sizes.corner_mm ?? 0) * scale} className={DOUGH} />
      {Array.from({ length: along - 1 }, (_, i) => (
        <path
          key={`a${i}`}
          d={`M${((i + 1) * w) / along} 0v${h}`}
          className="stroke-cut-line"
          strokeDasharray="6 4"
        />
      ))}
      {Array.from({ length: across - 1 }, (_, i) => (
        <path
          key={`b${i}`}
          d={`M0 ${((i + 1) * h) / across}h${w}`}
          className="stroke-cut-line"
          strokeDasharray="6 4"
        />
      ))}
    </>
  );
}
