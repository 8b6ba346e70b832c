/** A first estimate of what a plot drinks is good to within this factor, either way. */
const WITHIN = 2;

export type NeedBeside = {
  /** Where the need may lie, ml a day. */
  readonly leastMl: number;
  readonly mostMl: number;
  /** What of the line's day and of one dose reaches the plot, ml; null without a dose. */
  readonly allowedMl: number;
  readonly doseMl: number | null;
  /** Doses that the need comes to, and whole ones that the day allows; null without a dose. */
  readonly dosesNeeded: number | null;
  readonly dosesAllowed: number | null;
  readonly isShort: boolean;
};

/**
 * What a plot drinks in a day beside what its line may give it.
 * @param needMl ml a day, > 0
 * @param share of the line's water that reaches the plot, 0..1
 * @param doseMl of the line, > 0; null where its program has none
 */
export function needBeside(
  needMl: number,
  dailyMaxMl: number,
  share: number,
  doseMl: number | null,
): NeedBeside {
  const allowedMl = dailyMaxMl * share;
  const ownMl = doseMl === null || doseMl * share <= 0 ? null : doseMl * share;
  return {
    leastMl: needMl / WITHIN,
    mostMl: needMl * WITHIN,
    allowedMl,
    doseMl: ownMl,
    dosesNeeded: ownMl === null ? null : needMl / ownMl,
    // A hair's breadth of rounding takes no dose away.
    dosesAllowed: ownMl === null ? null : Math.floor(allowedMl / ownMl + 1e-9),
    isShort: needMl > allowedMl,
  };
}
