/** What the trays are called in a shop, where they are that; their fields tell what is usable inside the rims. */
import type { Kitchen } from "../api/client";
import { useFormat } from "../kit/settings";

export function HalfSheets({ kitchen }: { kitchen: Kitchen }) {
  const format = useFormat();
  if (!kitchen.half_sheet_mm) return null;
  return (
    <p className="text-fine text-soft">
      Half-sheets: {kitchen.half_sheet_mm.map((mm) => format.length(mm)).join(" × ")} outside.
    </p>
  );
}
