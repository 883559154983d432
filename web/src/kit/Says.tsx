/** A sentence of the server, in the units shown. */
import { say, type Said } from "../drawing/sentence";
import { useFormat } from "./settings";

export function Says({ of }: { of: Said }) {
  return say(of, useFormat());
}
