/** Bars on lanes: what lies over each other gets rows of its own. */

interface Span {
  start_min: number;
  end_min: number;
}

/** Bars by rows, in order of their starts, none over another in a row. */
export function rowsOf<T extends Span>(bars: readonly T[]): T[][] {
  const found: T[][] = [];
  for (const bar of bars.toSorted((a, b) => a.start_min - b.start_min)) {
    const free = found.find(
      (row) => (row.at(-1)?.end_min ?? Number.NEGATIVE_INFINITY) <= bar.start_min + 0.01,
    );
    if (free) free.push(bar);
    else found.push([bar]);
  }
  return found;
}

/** Lanes under each other from `top`, each as high as its rows (one at least) and a gap; and where the last ends. */
export function stacked<T extends { rows: readonly unknown[] }>(
  lanes: readonly T[],
  top: number,
  row: number,
  gap: number,
): { lanes: (T & { top: number })[]; bottom: number } {
  const heights = lanes.map((lane) => Math.max(1, lane.rows.length) * row + gap);
  const tops = heights.map((_, i) => top + heights.slice(0, i).reduce((sum, h) => sum + h, 0));
  return {
    lanes: lanes.map((lane, i) => ({ ...lane, top: tops[i] ?? top })),
    bottom: top + heights.reduce((sum, h) => sum + h, 0),
  };
}
