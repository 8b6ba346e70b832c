/**
 * What is left in a reservoir, from a distance or from counts at known levels. A tub is wider at its rim, so between the levels it goes by a monotone
 * curve, not by a straight line.
 */
import { hermiteAt, hermiteSlopes, type Knot } from '../calibration/hermite.ts';
import { remembered } from '../quantity/remembered.ts';
import { fail, ok, type Result } from '../quantity/result.ts';

/** A raw value at a level whose volume is known, ml. */
export type Level = { readonly raw: number; readonly volumeMl: number };
export type ReservoirIssue =
  | { readonly kind: 'too-few' }
  | { readonly kind: 'same-raw'; readonly raw: number }
  /** More water, and the raw value turns back. */
  | { readonly kind: 'not-monotone' };

export type Reservoir = { readonly knots: readonly Knot[]; readonly fullMl: number };

/** @param levels at least two, such as empty and full; the half makes it better */
export const reservoirOf = remembered((levels: readonly Level[]): Result<Reservoir, ReservoirIssue> => {
  if (levels.length < 2) return fail({ kind: 'too-few' });
  const sorted = [...levels].sort((a, b) => a.raw - b.raw);
  const steps = sorted.slice(1).map((level, at) => ({
    raw: level.raw - (sorted[at]?.raw ?? 0),
    volume: level.volumeMl - (sorted[at]?.volumeMl ?? 0),
  }));
  const same = steps.findIndex((step) => step.raw === 0);
  if (same >= 0) return fail({ kind: 'same-raw', raw: sorted[same]?.raw ?? 0 });
  if (!(steps.every((step) => step.volume > 0) || steps.every((step) => step.volume < 0)))
    return fail({ kind: 'not-monotone' });
  return ok({
    knots: sorted.map((level) => ({ counts: level.raw, percent: level.volumeMl })),
    fullMl: Math.max(...levels.map((level) => level.volumeMl)),
  });
});

/** Water in it, ml, kept between empty and full. */
export function volumeIn(reservoir: Reservoir, raw: number): number {
  const { knots } = reservoir;
  const [first, last] = [knots[0], knots.at(-1)];
  if (!first || !last) return 0;
  const kept = Math.min(last.counts, Math.max(first.counts, raw));
  return hermiteAt(knots, hermiteSlopes(knots), kept);
}

/** The raw value at a volume, by halving between the ends; beyond them the nearer end. The inverse of `volumeIn`. */
export function rawAtVolume(reservoir: Reservoir, volumeMl: number): number {
  const [first, last] = [reservoir.knots[0], reservoir.knots.at(-1)];
  if (!first || !last) return 0;
  const rises = last.percent > first.percent;
  let [low, high] = [first.counts, last.counts];
  for (let turn = 0; turn < 50; turn += 1) {
    const middle = (low + high) / 2;
    if (volumeIn(reservoir, middle) < volumeMl === rises) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Days that the water above the minimum lasts at the present use; null while nothing is used. @param usedMlPerDay ≥ 0 */
export const daysLeft = (volumeMl: number, minimumMl: number, usedMlPerDay: number): number | null =>
  usedMlPerDay > 0 ? Math.max(0, volumeMl - minimumMl) / usedMlPerDay : null;
