/** Counts of what only a search can find: they end somewhere. */
export const COUNTED_UP_TO = 500;

/** A count in figures, or that there are more. @param isKept it is known however high it is */
export const countText = (count: number, isKept = false): string =>
  !isKept && count > COUNTED_UP_TO ? `over ${COUNTED_UP_TO}` : String(count);
