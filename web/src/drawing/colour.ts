/** How a baked surface looks, by its colour index from 0 (raw) to 100 (burnt). */

const STOPS: readonly (readonly [number, readonly [number, number, number]])[] = [
  [0, [246, 232, 196]], [12, [240, 211, 148]], [24, [226, 176, 92]], [40, [196, 134, 58]], [62, [140, 84, 36]], [100, [52, 31, 18]],
];

export function bakedColour(index: number): string {
  const at = Math.min(100, Math.max(0, index));
  const next = STOPS.findIndex(([i]) => i >= at);
  const [i1, b] = STOPS[Math.max(0, next)] ?? [0, [0, 0, 0] as const];
  const [i0, a] = STOPS[Math.max(0, next - 1)] ?? [0, b];
  const along = i1 > i0 ? (at - i0) / (i1 - i0) : 0;
  const mix = (k: 0 | 1 | 2) => Math.round((a[k] ?? 0) + ((b[k] ?? 0) - (a[k] ?? 0)) * along);
  return `rgb(${mix(0)} ${mix(1)} ${mix(2)})`;
}
