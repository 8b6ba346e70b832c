import { mean, median, medianAbsoluteDeviation } from 'simple-statistics';

/** Median absolute deviation to standard deviation, for normally distributed noise: 1 / Φ⁻¹(3/4). */
const MAD_TO_SIGMA = 1.4826;
/** Mean absolute deviation to standard deviation, for the same: √(π/2). */
const MEAN_DEVIATION_TO_SIGMA = Math.sqrt(Math.PI / 2);
/** Share of the furthest values left out where the mean has to stand in for the median. */
const LEFT_OUT = 0.1;

/**
 * Robust standard deviation about the median: 1.4826 · MAD. A converter's whole steps often make more than half of the readings equal, and the MAD
 * zero; then the mean absolute deviation stands in, the furthest tenth left out so that one wild line still counts for nothing.
 * Source: Rousseeuw & Croux 1993, Alternatives to the Median Absolute Deviation; Iglewicz & Hoaglin 1993 for the stand-in.
 */
function robustSigma(values: readonly number[]): number {
  const mad = medianAbsoluteDeviation([...values]);
  if (mad > 0) return MAD_TO_SIGMA * mad;
  const middle = median([...values]);
  const deviations = values.map((value) => Math.abs(value - middle)).sort((a, b) => a - b);
  const kept = deviations.slice(0, deviations.length - Math.ceil(deviations.length * LEFT_OUT));
  return kept.length === 0 ? 0 : MEAN_DEVIATION_TO_SIGMA * mean(kept);
}

/**
 * Noise of a stream as a robust standard deviation, from the differences of successive readings:
 *
 *     noise = σ(d) / √2,   dᵢ = xᵢ₊₁ − xᵢ
 *
 * Differences, so that a slow drift (soil drying, probe settling) does not count as noise; robust, so that one wild line does not either.
 * In the unit of the readings. Fewer than three readings have no noise to speak of: 0.
 * Source: difference estimator of von Neumann et al. 1941.
 */
export function noiseOf(values: readonly number[]): number {
  if (values.length < 3) return 0;
  const differences = values.slice(1).map((value, at) => value - (values[at] ?? value));
  return robustSigma(differences) / Math.SQRT2;
}

/**
 * Spread of readings about their median, as a robust standard deviation. Unlike `noiseOf` it includes drift inside the window,
 * which is what a capture must own up to. 0 for fewer than two readings.
 */
export const spreadOf = (values: readonly number[]): number => (values.length < 2 ? 0 : robustSigma(values));

/** Median of at least one reading. @throws Error on none: callers hold a window that is not empty. */
export const medianOf = (values: readonly number[]): number => median([...values]);
