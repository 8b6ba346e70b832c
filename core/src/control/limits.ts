/** Start and stop limits of a plot, tenths of a percent of the calibration's own kind. Water starts below one and stops above the other. */
export type Limits = { readonly startTenths: number; readonly stopTenths: number };

export type LimitName = 'start' | 'stop';

/** Between which numbers limits can lie, tenths, and what ends the wet side. */
export type LimitRange = {
  readonly leastTenths: number;
  readonly mostTenths: number;
  readonly mostBy: 'curve' | 'pores';
};
const WHOLE_SCALE: LimitRange = { leastTenths: 0, mostTenths: 1000, mostBy: 'curve' };

export type LimitIssue =
  | { readonly kind: 'not-a-number'; readonly at: LimitName }
  | { readonly kind: 'off-scale'; readonly at: LimitName }
  /** On the scale, but where the calibration does not read or the soil's pores cannot get. */
  | { readonly kind: 'beyond'; readonly at: LimitName; readonly range: LimitRange }
  | { readonly kind: 'too-close'; readonly gapTenths: number; readonly neededTenths: number };

/** Start and stop are never closer than this, tenths of a percent, however calm the probe. */
const LEAST_GAP_TENTHS = 10;

/**
 * Distance that start and stop must keep: twice the noise (a reading may stray by it on either side), at least one percent.
 * @param noiseTenths noise of single readings, tenths of a percent, ≥ 0
 */
export const leastGapTenths = (noiseTenths: number): number =>
  Math.max(LEAST_GAP_TENTHS, Math.ceil(2 * noiseTenths));

/** Null when the limits can be kept, else the first thing wrong with them. */
export function checkLimits(
  limits: Limits,
  noiseTenths: number,
  range: LimitRange = WHOLE_SCALE,
): LimitIssue | null {
  for (const [at, tenths] of [
    ['start', limits.startTenths],
    ['stop', limits.stopTenths],
  ] as const) {
    if (!Number.isFinite(tenths)) return { kind: 'not-a-number', at };
    if (tenths < 0 || tenths > 1000) return { kind: 'off-scale', at };
    if (tenths < range.leastTenths || tenths > range.mostTenths) return { kind: 'beyond', at, range };
  }
  const gapTenths = limits.stopTenths - limits.startTenths;
  const neededTenths = leastGapTenths(noiseTenths);
  return gapTenths < neededTenths ? { kind: 'too-close', gapTenths, neededTenths } : null;
}

/** Moves one flag to a place, as far as the range and the other flag let it: for dragging and keys, where nothing may be refused. */
export function moveLimit(
  limits: Limits,
  which: LimitName,
  toTenths: number,
  noiseTenths: number,
  { leastTenths, mostTenths }: LimitRange = WHOLE_SCALE,
): Limits {
  const gap = leastGapTenths(noiseTenths);
  const to = Math.min(mostTenths, Math.max(leastTenths, Math.round(toTenths)));
  return which === 'start'
    ? { ...limits, startTenths: Math.max(0, Math.min(to, limits.stopTenths - gap)) }
    : { ...limits, stopTenths: Math.min(1000, Math.max(to, limits.startTenths + gap)) };
}

/** Whether start and stop lie closer together than the number is known: by how much they should, tenths. @param plusMinusTenths at the limits, ≥ 0; null: not known */
export function gapUnderDoubt(limits: Limits, plusMinusTenths: number | null): number | null {
  const gap = limits.stopTenths - limits.startTenths;
  return plusMinusTenths !== null && gap < plusMinusTenths ? Math.ceil(plusMinusTenths) : null;
}
