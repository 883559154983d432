/** One portion from above and from the side, to one scale; a tray-wide bar with its cuts. */
import type { RefObject } from "react";
import type { Portioned, PortionQuery } from "../../api/logs";
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
  const figures = kind === "rope";
  const wide_mm = tray ? (sizes.length_mm ?? 0) : figures ? Math.max(sizes.length_mm ?? 0, 3 * ropeRing(sizes) + 2 * GAP_MM) : found.across_mm;
  const top_mm = tray ? (sizes.width_mm ?? 0) : kind === "figure" ? found.high_mm : figures ? (sizes.across_mm ?? 0) : found.across_mm;
  const under_mm = figures ? ropeRing(sizes) : kind === "figure" ? -GAP_MM : found.high_mm;
  const scale = Math.min((width - 90) / wide_mm, 360 / (top_mm + under_mm + GAP_MM), 6);
  const h = (top_mm + under_mm + GAP_MM) * scale;
  const mid = (width - 64) / 2;
  const left = tray ? 0 : mid - (wide_mm * scale) / 2;
  const y2 = (top_mm + GAP_MM) * scale;
  return (
    <svg ref={picture} viewBox={`-50 -40 ${width} ${h + 86}`} className="w-full" role="img" aria-labelledby="portion-title">
      <title id="portion-title">{`${kind.replace("_", " ")}: ${format.length(Math.round(found.across_mm))} across, ${format.length(Math.round(found.high_mm))} high, from above and from the side`}</title>
      <g transform={`translate(${left} 0)`}>
        <Ruler width_mm={wide_mm} height_mm={top_mm} scale={scale} system={format.system} left={tray} />
        <g strokeWidth="1.4" strokeLinejoin="round">
          {tray ? (
            <Tray sizes={sizes} scale={scale} />
          ) : kind === "figure" ? (
            <Row of={sizes.parts_mm ?? []} scale={scale} top={top_mm} />
          ) : figures ? (
            <rect width={(sizes.length_mm ?? 0) * scale} height={(sizes.across_mm ?? 0) * scale} rx={((sizes.across_mm ?? 0) / 2) * scale} className={DOUGH} />
          ) : (
            <>
              <circle cx={(found.across_mm / 2) * scale} cy={(found.across_mm / 2) * scale} r={(found.across_mm / 2) * scale} className={DOUGH} />
              {sizes.dent_mm ? <circle cx={(found.across_mm / 2) * scale} cy={(found.across_mm / 2) * scale} r={(sizes.dent_mm / 2) * scale} className="fill-warm-pale stroke-cut-line" /> : null}
            </>
          )}
          <g transform={`translate(0 ${y2})`}>
            {figures ? (
              <Bent sizes={sizes} scale={scale} />
            ) : tray ? (
              <rect width={wide_mm * scale} height={found.high_mm * scale} className={DOUGH} />
            ) : kind === "pressed" ? (
              <rect width={found.across_mm * scale} height={found.high_mm * scale} rx={(found.high_mm / 2) * scale} className={DOUGH} />
            ) : kind === "figure" ? null : (
              <Side found={found} scale={scale} />
            )}
          </g>
        </g>
        <text x="0" y={h + 26} fontSize="15.5" fontWeight="600">
          {tray ? `${sizes.columns} × ${sizes.rows}: from above, and its edge` : kind === "figure" ? "Its parts, each as a ball" : figures ? "Rolled out, and bent to a ring, a crescent and a knot" : "From above, and from the side"}
        </text>
      </g>
    </svg>
  );
}

type Sizes = Portioned["sizes"];

/** Across a ring bent of the rope: its middle line is as long as the rope. */
const ropeRing = (s: Sizes): number => (s.length_mm ?? 0) / Math.PI + (s.across_mm ?? 0);

function Bent({ sizes, scale }: { sizes: Sizes; scale: number }) {
  const thick = (sizes.across_mm ?? 0) * scale;
  const r = ((sizes.length_mm ?? 0) / Math.PI / 2) * scale;
  const side = ropeRing(sizes) * scale;
  const step = side + GAP_MM * scale;
  // A crescent bends over two thirds of a circle on a radius half as large again.
  const [cr, half] = [r * 1.5, (Math.PI * 2) / 3 / 2];
  const [cx, cy] = [cr * Math.sin(half), cr * Math.cos(half)];
  // A rope that crosses itself is drawn part by part, the later part over the earlier.
  const bent = (parts: readonly string[], at: number, drop: number, joint?: string) => (
    <g transform={`translate(${at + side / 2} ${side / 2 + drop})`} fill="none" strokeLinecap="round">
      {parts.map((d) => (
        <g key={d}>
          <path d={d} className="stroke-cut-line" strokeWidth={thick + 2.6} />
          <path d={d} className="stroke-cut" strokeWidth={thick} />
        </g>
      ))}
      {joint ? <path d={joint} className="stroke-cut" strokeWidth={thick - 0.4} strokeLinecap="butt" /> : null}
    </g>
  );
  return (
    <>
      {bent([`M${r} 0A${r} ${r} 0 1 1 ${r * Math.cos(0.02)} ${-r * Math.sin(0.02)}`], 0, 0)}
      {bent([`M${-cx} ${cr - cy}A${cr} ${cr} 0 0 1 ${cx} ${cr - cy}`], step, -cr / 3)}
      {bent([`M${-r} ${r * 0.9}C${r * 0.5} ${r * 0.4} ${r * 1.3} ${-r * 0.9} 0 ${-r}`, `M0 ${-r}C${-r * 1.3} ${-r * 0.9} ${-r * 0.5} ${r * 0.4} ${r} ${r * 0.9}`], 2 * step, 0, `M${-r * 0.1} ${-r}H${r * 0.55}`)}
    </>
  );
}

function Side({ found, scale }: { found: Portioned; scale: number }) {
  const r = (found.across_mm / 2) * scale;
  const dent = ((found.sizes.dent_mm ?? 0) / 2) * scale;
  const deep = (found.sizes.deep_mm ?? 0) * scale;
  if (dent === 0) return <circle cx={r} cy={r} r={r} className={DOUGH} />;
  const drop = r - Math.sqrt(Math.max(0, r * r - dent * dent));
  return (
    <>
      <path d={`M${r - dent} ${drop}A${r} ${r} 0 1 0 ${r + dent} ${drop}Q${r} ${drop + 2 * deep} ${r - dent} ${drop}z`} className={DOUGH} />
      <path d={`M${r - dent} ${drop}H${r + dent}`} className="stroke-cut-line" strokeDasharray="4 3" fill="none" />
    </>
  );
}

function Row({ of, scale, top }: { of: readonly number[]; scale: number; top: number }) {
  const before = (i: number) => of.slice(0, i).reduce((sum, d) => sum + d, 0);
  return of.map((d, i) => <circle key={i} cx={(before(i) + d / 2) * scale} cy={(top - d / 2) * scale} r={(d / 2) * scale} className={DOUGH} />);
}

function Tray({ sizes, scale }: { sizes: Sizes; scale: number }) {
  const [w, h] = [(sizes.length_mm ?? 0) * scale, (sizes.width_mm ?? 0) * scale];
  const [along, across] = [sizes.rows ?? 1, sizes.columns ?? 1];
  return (
    <>
      <rect width={w} height={h} className={DOUGH} />
      {Array.from({ length: along - 1 }, (_, i) => <path key={`a${i}`} d={`M${((i + 1) * w) / along} 0v${h}`} className="stroke-cut-line" strokeDasharray="6 4" />)}
      {Array.from({ length: across - 1 }, (_, i) => <path key={`b${i}`} d={`M0 ${((i + 1) * h) / across}h${w}`} className="stroke-cut-line" strokeDasharray="6 4" />)}
    </>
  );
}
