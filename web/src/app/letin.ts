/** What happens on a device that is not let in, or no more: it is taken to where it can give a code. */
import { api, Refusal, settled } from "../api/client";

const PAIR = "/pair";

export function notLetIn(error: unknown): void {
  if (!(error instanceof Refusal) || error.problem.status !== 401 || location.pathname === PAIR) return;
  location.assign(`${PAIR}?to=${encodeURIComponent(location.pathname)}`);
}

/** A stream does not tell why it is refused: it is asked whether this device is still let in. */
export const stillLetIn = (): void => {
  settled(api.GET("/api/access")).catch(notLetIn);
};
