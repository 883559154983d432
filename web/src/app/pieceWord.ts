import type { Plan } from "../api/client";
import type { Format } from "../drawing/units";

/** What lies in the cold, of `count` or of as many as the plan has. */
export function pieceWord(
  { cold, making }: Pick<Plan, "cold" | "making">,
  format: Format,
  count = cold.count,
): string {
  if (making.kind === "sliced") return count === 1 ? "log" : "logs";
  if (making.kind !== "cut" && cold.portions_first)
    return making.kind === "tray_bar" ? (count === 1 ? "pan" : "pans") : count === 1 ? "portion" : "portions";
  switch (cold.piece.kind) {
    case "disc":
      return `${count === 1 ? "disc" : "discs"}, ${format.length(cold.piece.thickness_mm)}`;
    case "sheet":
      return `${count === 1 ? "sheet" : "sheets"}, ${format.length(cold.piece.thickness_mm)}`;
    case "stack":
      return "stacked sheets";
    case "sphere":
      return count === 1 ? "portion" : "portions";
    case "ball":
      return count === 1 ? "lump" : "lumps";
    case "log":
    case "bar":
      return count === 1 ? "log" : "logs";
  }
}
