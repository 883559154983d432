/** A form that was kept is emptied of what was sent, not of what was typed meanwhile. */
export const unlessChanged =
  <T>(sent: T, empty: T) =>
  (now: T): T =>
    now === sent ? empty : now;
