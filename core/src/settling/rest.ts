/**
 * Proof of rest. An approach that is over and the top of a slow wave look alike for minutes, and a creep without an end looks like both; what tells them apart is
 * time. So rest is proved by having watched it: over the later half of the approach, and over twenty minutes at least, four quarters of the time have one
 * mean, to a quarter of a percent of the span.
 */
import type { Bin } from './bins.ts';

/** Shortest rest that proves anything, s. */
export const PROOF_S = 1200;
/** Share of the approach that must have been rest. */
const OF_APPROACH = 0.5;
/** The means of the quarters lie within this share of the span. */
const MOST_RANGE = 0.0025;
const QUARTERS = 4;

/** How long must have been watched at rest, s. @param sinceS length of the approach so far, s */
export const neededRestS = (sinceS: number): number => Math.max(PROOF_S, OF_APPROACH * sinceS);

/**
 * Whether the newest part of an approach is proved rest.
 * @param bins of the approach, in order of time
 * @param noise of a single reading, counts
 */
export function isAtRest(bins: readonly Bin[], spanCounts: number, noise: number): boolean {
  const [first, last] = [bins[0], bins.at(-1)];
  if (!first || !last) return false;
  const sinceS = last.toS - first.fromS;
  const restS = neededRestS(sinceS);
  if (sinceS < restS) return false;
  const sums = Array.from({ length: QUARTERS }, () => ({ sum: 0, readings: 0 }));
  for (const { fromS, toS, mean, readings } of bins) {
    const beforeS = last.toS - (fromS + toS) / 2;
    if (beforeS >= restS) continue;
    const quarter = sums[Math.floor((beforeS / restS) * QUARTERS)];
    if (!quarter) continue;
    quarter.sum += mean * readings;
    quarter.readings += readings;
  }
  const fewest = Math.min(...sums.map((one) => one.readings));
  // Quarters of which the noise leaves less than that sure prove nothing.
  if (fewest === 0 || (2 * noise) / Math.sqrt(fewest) > MOST_RANGE * spanCounts) return false;
  const means = sums.map(({ sum, readings }) => sum / readings);
  return Math.max(...means) - Math.min(...means) <= MOST_RANGE * spanCounts;
}
