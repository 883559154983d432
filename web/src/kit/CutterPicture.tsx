/** A cutter's outline in a box. */
import type { Cutter } from "../api/client";
import { cutterPath } from "../drawing/path";

export function CutterPicture({
  cutter,
  size,
  className = "fill-cut stroke-cut-line",
}: {
  cutter: Pick<Cutter, "width_mm" | "height_mm" | "outline_mm" | "holes_mm">;
  size: number;
  className?: string;
}) {
  const { width_mm: w, height_mm: h } = cutter;
  // A little more than the outline, so that its line is whole all round.
  const side = Math.max(w, h) * 1.06;
  const high = Math.max(h * 1.06, side / 4);
  return (
    <svg
      width={size}
      height={(size * high) / side}
      viewBox={`${-side / 2} ${-high / 2} ${side} ${high}`}
      aria-hidden="true"
    >
      <path d={cutterPath(cutter)} className={className} strokeWidth={side / 90} strokeLinejoin="round" />
    </svg>
  );
}
