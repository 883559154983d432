/** A cutter's outline in a box. */
import type { Cutter } from "../api/client";
import { cutterPath } from "../drawing/path";

export function CutterPicture({ cutter, size, className = "fill-cut stroke-cut-line" }: { cutter: Cutter; size: number; className?: string }) {
  const { width_mm: w, height_mm: h } = cutter;
  const side = Math.max(w, h) * 1.04;
  return (
    <svg width={size} height={(size * Math.max(h, side / 4)) / side} viewBox={`${-side / 2} ${-Math.max(h, side / 4) / 2} ${side} ${Math.max(h, side / 4)}`} aria-hidden="true">
      <path d={cutterPath(cutter)} className={className} strokeWidth={side / 90} strokeLinejoin="round" />
    </svg>
  );
}
