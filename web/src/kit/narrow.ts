/** Whether the page is as narrow as a phone: pictures are then drawn narrower, so that their words stay readable. */
import { useSyncExternalStore } from "react";

const query = matchMedia("(max-width: 639px)");

function subscribe(changed: () => void): () => void {
  query.addEventListener("change", changed);
  return () => query.removeEventListener("change", changed);
}

export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => query.matches);

/** Page units across a picture. */
export const usePictureWidth = (): number => (useNarrow() ? 430 : 820);
