/** A size class of eggs as it stands on the box: `US large`, `EU medium`. */
export function eggWord(egg: string): string {
  const [where, ...size] = egg.split("_");
  return `${(where ?? "").toUpperCase()} ${size.join("-")}`;
}

/** The size classes, small to large. */
export const EGGS = [
  "us_small",
  "us_medium",
  "us_large",
  "us_extra_large",
  "us_jumbo",
  "eu_small",
  "eu_medium",
  "eu_large",
  "eu_extra_large",
] as const;
