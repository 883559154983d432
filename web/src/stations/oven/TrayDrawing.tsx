/** A full tray to scale, pieces as cut and as baked. */
import type { RefObject } from "react";
import type { Plan } from "../../api/client";
import { Ruler } from "../../drawing/Ruler";
import { cutterPath, outlinePath } from "../../drawing/path";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

export function TrayDrawing({ picture, plan, baked }: { picture: RefObject<SVGSVGElement | null>; plan: Plan; baked: boolean }) {
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
    <svg ref={picture} viewBox={`-54 -42 ${width} ${h + 60}`} className="w-full" role="img" aria-labelledby="tray-title tray-desc">
      <title id="tray-title">{`A tray of ${shown} pieces`}</title>
      <desc id="tray-desc">{`Usable ${format.length(width_mm)} by ${format.length(length_mm)}, ${format.length(trays.gap_mm)} between pieces as cut.`}</desc>
      <Ruler width_mm={length_mm} height_mm={width_mm} scale={scale} system={format.system} />
      <rect x="-7" y="-7" width={w + 14} height={h + 14} rx="16" className="fill-stone-2 stroke-edge" strokeWidth="1.6" />
      <rect width={w} height={h} rx="6" className="fill-raised stroke-rule" />
      {trays.cuts.slice(0, shown).map((c, i) => {
        const place = `translate(${c.y_mm * scale} ${(width_mm - c.x_mm) * scale}) rotate(${c.turn_deg - 90})`;
        return (
          <g key={i} className="slides" transform={place}>
            {baked ? <path d={grown} transform={`scale(${scale})`} className="fill-pale stroke-butter-deep" strokeWidth={1.3 / scale} strokeLinejoin="round" /> : null}
            <path d={path} transform={`scale(${scale})`} className="fill-cut stroke-cut-line" strokeWidth={1.3 / scale} strokeLinejoin="round" />
          </g>
        );
      })}
    </svg>
  );
}
