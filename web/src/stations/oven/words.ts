/** What to look for at the end of a bake, in words. */
import type { Job } from "../../api/client";

type End = NonNullable<Job["bake_end"]>;

export function doneWords(end: End): string {
  switch (end) {
    case "pale":
      return "Done when the middle no longer shines and the rim is still pale, the underside just off white.";
    case "just_golden":
      return "Done when the middle no longer shines, the rim just turns golden and the underside is light brown.";
    case "golden":
      return "Done when the rim is golden a finger’s breadth in and the underside is golden brown.";
    case "brown":
      return "Done when the rim is brown; the middle follows within a minute or two, so stand by it.";
    case "dull":
      return "Done when the middle no longer shines and holds a light touch: go by time and touch, not by colour.";
    case "soft_pale":
    case "soft_just_golden":
    case "soft_golden":
    case "soft_brown":
      return "Done when the middle no longer shines; it may still give under a finger.";
  }
}
