/** Curves as SVG paths. */
import { curveMonotoneX, line } from "d3-shape";

/** A smooth curve through page points. */
export function curvePath(points: readonly (readonly [number, number])[]): string {
  return (
    line<readonly [number, number]>()
      .x((p) => p[0])
      .y((p) => p[1])
      .curve(curveMonotoneX)(points) ?? ""
  );
}
