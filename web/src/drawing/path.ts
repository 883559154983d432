/** Outlines and curves as SVG paths. */
import { curveMonotoneX, line } from "d3-shape";

/** A closed outline of millimetre points. */
export function outlinePath(points: readonly (readonly number[])[]): string {
  return points.map((p, i) => `${i === 0 ? "M" : "L"}${(p[0] ?? 0).toFixed(2)} ${(p[1] ?? 0).toFixed(2)}`).join("") + "Z";
}

/** A smooth curve through page points. */
export function curvePath(points: readonly (readonly [number, number])[]): string {
  return line<readonly [number, number]>().x((p) => p[0]).y((p) => p[1]).curve(curveMonotoneX)(points) ?? "";
}
