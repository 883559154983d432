/** Which three of a log's measures are given: the address holds them in the order in which they were typed. */

export const MEASURES = ["mass_g", "length_mm", "width_mm", "height_mm", "slice_mm", "slices"] as const;
export type Measure = (typeof MEASURES)[number];
export type Given = readonly (readonly [Measure, number])[];

export function givenIn(search: URLSearchParams): Given {
  const given = [...search.entries()]
    .filter((e): e is [Measure, string] => (MEASURES as readonly string[]).includes(e[0]))
    .map(([name, value]) => [name, Number(value)] as const);
  return given.length === 3 || (given.length === 4 && isBar(given)) ? given : [];
}

const BAR: readonly Measure[] = ["mass_g", "length_mm", "width_mm", "height_mm"];

/** Whether three of mass, length, width and height are given: they settle the bar, and a slice divides it. */
function isBar(given: Given): boolean {
  return given.filter(([n]) => BAR.includes(n)).length === 3;
}

/** What may be given once `name` is typed, the likeliest first: where it was open, the one typed longest ago gives way. */
export function candidates(given: Given, name: Measure, value: number): Given[] {
  if (given.some(([n]) => n === name))
    return [given.map((g) => (g[0] === name ? ([name, value] as const) : g))];
  if (given.length === 3 && isBar(given) && !BAR.includes(name))
    return [[...given, [name, value] as const], ...dropped(given, name, value)];
  return dropped(given, name, value);
}

function dropped(given: Given, name: Measure, value: number): Given[] {
  return given.map((_, drop) => [...given.filter((__, i) => i !== drop), [name, value] as const]);
}
