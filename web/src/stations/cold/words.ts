/** How a followed piece is told in words. All figures come from the server. */
import type { LivePiece, Piece, Plan, Schemas } from "../../api/client";
import { clock, duration, localTime } from "../../drawing/time";
import type { Format } from "../../drawing/units";

const READY: Record<LivePiece["purpose"], string> = {
  rolling: "Ready to roll",
  slicing: "Ready to slice",
  oven: "Ready for the oven",
};

export const readyTo = (purpose: LivePiece["purpose"]): string => READY[purpose];

/** Between which temperatures it is right for what it is for, in words that follow 'rolls clean'. */
export function worksBetween(
  cold: Pick<Plan["cold"], "works_from_c" | "works_to_c">,
  format: Format,
): string {
  const to = format.temperature(cold.works_to_c);
  return cold.works_from_c == null ? `${to} or colder` : `${format.temperature(cold.works_from_c)} to ${to}`;
}

export const PURPOSES: readonly { value: LivePiece["purpose"]; label: string }[] = [
  { value: "rolling", label: "Roll" },
  { value: "slicing", label: "Slice" },
  { value: "oven", label: "Bake" },
];

export const PLACES = [
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
  { value: "bench", label: "Bench" },
] as const;

export function stateWords(p: LivePiece): string {
  switch (p.now.side) {
    case "ready":
      return READY[p.purpose];
    case "too_warm":
      return p.never || (p.now.left_min ?? 0) < 0 ? "Too warm" : "Not ready yet";
    case "too_cold":
      return "Too cold";
    default:
      return "No forecast for this dough";
  }
}

/** Time left, or since when, by the piece's clock. */
export function leftWords(p: LivePiece): string {
  if (p.now.side === "ready") {
    const past = p.past_after_min;
    return past == null ? "stays ready" : `good for ${duration(Math.max(0, past - p.now.elapsed_min))} more`;
  }
  const left = p.now.left_min;
  if (left == null || left < 0)
    return p.never ? "won’t be ready here" : p.now.side === "too_cold" ? "too cold now" : "overdue";
  return left < 1 ? "under a minute" : `${duration(left)} left`;
}

/** A time of the piece's run as a clock shows it here, `14:05`. */
export function clockOf(p: LivePiece, after_min: number): string {
  return clock(localTime(p.put_in_at, after_min / p.clock_speed));
}

export function formWords(piece: Piece, format: Format): string {
  switch (piece.kind) {
    case "sheet":
      return `sheet, ${format.length(piece.thickness_mm)}`;
    case "stack":
      return `stack of ${piece.count}, ${format.length(piece.thickness_mm)} each`;
    case "disc":
      return `disc, ${format.length(piece.thickness_mm)}`;
    case "ball":
      return `lump, ${format.length(piece.diameter_mm)} across`;
    case "sphere":
      return `dough ball, ${format.length(piece.diameter_mm)} across`;
    case "log":
      return `log, ${format.length(piece.diameter_mm)} across`;
    case "bar":
      return `square log, ${format.length(piece.width_mm)} × ${format.length(piece.height_mm)}`;
  }
}

export const placeWords = (p: LivePiece): string => {
  const here = p.stays[p.stays.length - 1];
  if (!here) return "";
  return here.place === "bench" ? "on the bench" : `in the ${here.busy ? "busy " : ""}${here.place}`;
};

/** What a word of the state looks like; the word itself always stands beside it. */
export function stateLook(side: LivePiece["now"]["side"]): string {
  switch (side) {
    case "ready":
      return "bg-butter text-[#14302c]";
    case "too_cold":
      return "bg-cold-pale text-cold";
    default:
      return "bg-warm-pale text-warm";
  }
}

/** What of a piece counts as firm: a knife meets the middle of a log, hands work all else on the whole. */
export const firmness = (purpose: Schemas["PurposeWord"]): "softest_c" | "felt_c" =>
  purpose === "slicing" ? "softest_c" : "felt_c";
