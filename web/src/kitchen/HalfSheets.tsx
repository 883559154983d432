/** What the trays are called in a shop, where they are that; their fields tell what is usable inside the rims. */
import type { Kitchen } from "../api/client";
import { useFormat } from "../kit/settings";

/** A half-sheet over its rims, 13 by 18 in. Common practice. */
const HALF_SHEET_MM = [330.2, 457.2] as const;

export function HalfSheets({ kitchen }: { kitchen: Kitchen }) {
  const format = useFormat();
  if (!kitchen.half_sheets) return null;
  return (
    <p className="text-fine text-soft">
      Half-sheets: {HALF_SHEET_MM.map((mm) => format.length(mm)).join(" × ")} outside.
    </p>
  );
}
