/** Whether a moment of the day lies between two others, over midnight when the first is later; the end is outside. All in one unit, minutes or seconds. */
export const isBetween = (from: number, to: number, at: number): boolean =>
  from <= to ? at >= from && at < to : at >= from || at < to;
