import { median, medianAbsoluteDeviation } from 'simple-statistics';

/** Median absolute deviation to standard deviation, for normally distributed noise: 1 / Φ⁻¹(3/4). */
const MAD_TO_SIGMA = 1.4826;

/**
 * Noise of a stream as a robust standard deviation, from the differences of successive readings:
 *
 *     noise = 1.4826 · median|dᵢ − median(d)| / √2,   dᵢ = xᵢ₊₁ − xᵢ
 *
 * Differences, so that a slow drift (soil drying, probe settling) does not count as noise; medians, so that one wild line does not either.
 * In the unit of the readings. Fewer than three readings have no noise to speak of: 0.
 * Source: Rousseeuw & Croux 1993, Alternatives to the Median Absolute Deviation (the factor); difference estimator of von Neumann et al. 1941.
 */
export function noiseOf(values: readonly number[]): number {
  if (values.length < 3) return 0;
  const differences = values.slice(1).map((value, at) => value - (values[at] ?? value));
  return (MAD_TO_SIGMA * medianAbsoluteDeviation(differences)) / Math.SQRT2;
}

/**
 * Spread of readings about their median, as a robust standard deviation: 1.4826 · MAD. Unlike `noiseOf` it includes drift inside the window,
 * which is what a capture must own up to. 0 for fewer than two readings.
 */
export function spreadOf(values: readonly number[]): number {
  return values.length < 2 ? 0 : MAD_TO_SIGMA * medianAbsoluteDeviation([...values]);
}

/** Median of at least one reading. @throws Error on none: callers hold a window that is not empty. */
export const medianOf = (values: readonly number[]): number => median([...values]);
