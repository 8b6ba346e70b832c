/** Start and stop limits of a plot, tenths of a percent of the calibration's own kind. Water starts below one and stops above the other. */
export type Limits = { readonly startTenths: number; readonly stopTenths: number };

export type LimitName = 'start' | 'stop';

export type LimitIssue =
  | { readonly kind: 'not-a-number'; readonly at: LimitName }
  | { readonly kind: 'off-scale'; readonly at: LimitName }
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
export function checkLimits(limits: Limits, noiseTenths: number): LimitIssue | null {
  for (const [at, tenths] of [
    ['start', limits.startTenths],
    ['stop', limits.stopTenths],
  ] as const) {
    if (!Number.isFinite(tenths)) return { kind: 'not-a-number', at };
    if (tenths < 0 || tenths > 1000) return { kind: 'off-scale', at };
  }
  const gapTenths = limits.stopTenths - limits.startTenths;
  const neededTenths = leastGapTenths(noiseTenths);
  return gapTenths < neededTenths ? { kind: 'too-close', gapTenths, neededTenths } : null;
}

/** Moves one flag to a place, as far as the scale and the other flag let it: for dragging and keys, where nothing may be refused. */
export function moveLimit(limits: Limits, which: LimitName, toTenths: number, noiseTenths: number): Limits {
  const gap = leastGapTenths(noiseTenths);
  const to = Math.round(toTenths);
  return which === 'start'
    ? { ...limits, startTenths: Math.max(0, Math.min(to, limits.stopTenths - gap)) }
    : { ...limits, stopTenths: Math.min(1000, Math.max(to, limits.startTenths + gap)) };
}
