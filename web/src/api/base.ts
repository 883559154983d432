/** The demo's pages are those of the bakery, below `/demo`: what they ask for, and what they keep in the browser, is the demo's. */
export const DEMO = "/demo";

/** The prefix of an address inside the program. */
export const baseOf = (path: string): "" | typeof DEMO =>
  path === DEMO || path.startsWith(`${DEMO}/`) ? DEMO : "";

export const BASE = typeof location === "undefined" ? "" : baseOf(location.pathname);

/** An address of the server that is not asked for through the client: a download, a stream. */
export const at = (path: string): string => BASE + path;
