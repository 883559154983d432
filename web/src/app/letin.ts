/** What happens on a device that is not let in, or no more: it is taken to where it can give a code. */
import { api, Refusal, settled } from "../api/client";

const PAIR = "/pair";

/** Where it gives a code, and comes back from. */
export const pairHere = (): string => `${PAIR}?to=${encodeURIComponent(location.pathname)}`;

/** Who has something here that is not at the server yet. */
const holders = new Set<() => boolean>();

/** While something here waits to be sent the page stays where it is: it says itself that the device must be let in anew. */
export function holdHere(waits: () => boolean): () => void {
  holders.add(waits);
  return () => void holders.delete(waits);
}

export function notLetIn(error: unknown): void {
  if (!(error instanceof Refusal) || error.problem.status !== 401 || location.pathname === PAIR) return;
  if ([...holders].some((waits) => waits())) return;
  location.assign(pairHere());
}

/** A stream does not tell why it is refused: it is asked whether this device is still let in. */
export const stillLetIn = (): void => {
  settled(api.GET("/api/access")).catch(notLetIn);
};
