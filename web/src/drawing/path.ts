/** Outlines as SVG paths. */

type Ring = readonly (readonly number[])[];

/** A closed outline of millimetre points; its holes go round the other way, so that they stay empty. */
export function outlinePath(points: Ring, holes: readonly Ring[] = []): string {
  return [points, ...holes]
    .map(
      (ring) =>
        ring
          .map((p, i) => `${i === 0 ? "M" : "L"}${(p[0] ?? 0).toFixed(2)} ${(p[1] ?? 0).toFixed(2)}`)
          .join("") + "Z",
    )
    .join("");
}

/** A cutter's outline with its holes. */
export const cutterPath = (cutter: { outline_mm: Ring; holes_mm?: readonly Ring[] }): string =>
  outlinePath(cutter.outline_mm, cutter.holes_mm);
