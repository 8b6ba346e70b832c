/** What comes in of a probe, made up for tests. */
import type { PresentValue } from '../signal/presentValue.ts';
import type { Settling, SettlingVerdict } from '../settling/settlingWatch.ts';

export const valueOf = (rawCounts: number, noiseCounts = 4): PresentValue => ({
  rawCounts,
  noiseCounts,
  spreadCounts: noiseCounts,
  stepCounts: 1,
  driftCountsPerMin: 0,
  readings: 20,
  windowS: 10,
  atMs: 0,
});
export const settlingOf = (verdict: SettlingVerdict, end = 0, likelyS = 0): Settling => ({
  verdict,
  end: { counts: end, low: end - 10, high: end + 10 },
  left: { likelyS, atMostS: likelyS },
  now: { counts: end, sigma: 1 },
  driftCountsPerMin: 0,
  noiseCounts: 4,
  toleranceCounts: 27,
  beliefFurther: 0,
  watchedS: 20,
  readings: 40,
  spikes: 0,
});
