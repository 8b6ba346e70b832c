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

/** Up to so many steps of the converter the median hangs on which whole number the true value is near to; there the squares speak. */
const FEW_STEPS = 1.2;
/** One wild line counts for no more than this many steps. */
const MOST_STEPS = 2.5;

/**
 * Standard deviation of readings that come in steps not much smaller than their noise: the mean square, one wild value held down, less what the rounding itself adds to it.
 * Null where the readings are finer than that.
 * Source: Sheppard 1898 (the twelfth of a squared step).
 * @param differences of successive readings; @param robust noise as the median has it
 */
function steppedNoise(
  values: readonly number[],
  differences: readonly number[],
  robust: number,
): number | null {
  const sorted = [...values].sort((a, b) => a - b);
  const gaps = sorted
    .slice(1)
    .flatMap((value, at) => (value > (sorted[at] ?? value) ? [value - (sorted[at] ?? 0)] : []));
  const step = gaps.length > 0 ? Math.min(...gaps) : 0;
  if (step === 0 || robust > FEW_STEPS * step) return null;
  // From the middle of them, so that a steady drift is none.
  const middle = median([...differences]);
  const square = mean(differences.map((one) => Math.min(Math.abs(one - middle), MOST_STEPS * step) ** 2));
  return Math.sqrt(Math.max(0, square / 2 - step ** 2 / 12));
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
  const robust = robustSigma(differences) / Math.SQRT2;
  return steppedNoise(values, differences, robust) ?? robust;
}

/**
 * Spread of readings about their median, as a robust standard deviation. Unlike `noiseOf` it includes drift inside the window,
 * which is what a capture must own up to. 0 for fewer than two readings.
 */
export const spreadOf = (values: readonly number[]): number => (values.length < 2 ? 0 : robustSigma(values));

/** Median of at least one reading. @throws Error on none: callers hold a window that is not empty. */
export const medianOf = (values: readonly number[]): number => median([...values]);
