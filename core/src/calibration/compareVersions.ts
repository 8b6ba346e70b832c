/** What a past log would have read under another version of the calibration. */
import { readCurve, type Curve } from './curve.ts';

export type LogUnder = {
  readonly lowest: number;
  readonly mean: number;
  readonly highest: number;
  readonly last: number;
  /** Time with a reading below the start limit, s. Gaps longer than `LONGEST_GAP_S` count as no reading. */
  readonly belowS: number;
};

/** A silence longer than this says nothing of what happened in it, s. */
export const LONGEST_GAP_S = 3600;

/**
 * The log under a curve.
 * @param timesMs rising, ms; @param raw as many raw values; null comes back for none
 * @param startPercent start limit in the percent of this curve; null without one
 */
export function logUnder(
  timesMs: ArrayLike<number>,
  raw: ArrayLike<number>,
  curve: Curve,
  startPercent: number | null,
): LogUnder | null {
  if (raw.length === 0) return null;
  const percents = Array.from(raw, (counts) => readCurve(curve, counts).percent);
  let belowS = 0;
  for (let at = 1; at < percents.length; at += 1) {
    const gapS = ((timesMs[at] ?? 0) - (timesMs[at - 1] ?? 0)) / 1000;
    if (startPercent !== null && (percents[at - 1] ?? 0) < startPercent && gapS <= LONGEST_GAP_S)
      belowS += gapS;
  }
  return {
    lowest: percents.reduce((least, one) => Math.min(least, one), Infinity),
    mean: percents.reduce((sum, one) => sum + one, 0) / percents.length,
    highest: percents.reduce((most, one) => Math.max(most, one), -Infinity),
    last: percents.at(-1) ?? Number.NaN,
    belowS,
  };
}
