/**
 * Against a reference meter over days: the probe's raw value and what a borrowed meter, or a dial from 1 to 10, says at the same time and place.
 * A meter is a witness, not the truth: what is judged first is whether the two are in step at all.
 */
import { sampleRankCorrelation } from 'simple-statistics';
import { Z_975 } from '../quantity/student.ts';

export type MeterScale = 'dial' | 'percent';

/** Percent that a meter's value stands for, and half a mark of its dial as a standard deviation. @param meterSigma of one that shows percent, % */
export function percentOfMeter(
  scale: MeterScale,
  value: number,
  meterSigma: number,
): { percent: number; sigmaPercent: number } {
  // A dial from 1 to 10 has nine steps; it is read to half a mark.
  if (scale === 'dial')
    return { percent: ((value - 1) / 9) * 100, sigmaPercent: ((0.5 / 9) * 100) / Math.sqrt(3) };
  return { percent: value, sigmaPercent: meterSigma };
}

export type InStep = {
  readonly pairs: number;
  /** Rank correlation (do both call the same days dry?), −1..1: below zero the numbers fall as the meter rises. */
  readonly rank: number;
  /** Between what its size lies, 95 times in 100 such weeks; 0..1. */
  readonly low: number;
  readonly high: number;
  /** `cannot-tell`: the pairs do not say yet whether the two go together, or how closely. */
  readonly verdict: 'too-few' | 'cannot-tell' | 'in-step' | 'loosely' | 'not-in-step';
};

const LEAST_PAIRS = 5;
const IN_STEP = 0.7;
const LOOSELY = 0.3;
/** An interval that reaches so high leaves open that the two go together closely. */
const CLOSELY = 0.95;

/**
 * Whether the probe and the meter go together, judged by what the pairs are sure of and not by the number they happen to give.
 * Source: Spearman 1904 (rank correlation); Fieller, Hartley & Pearson 1957 (its interval, 1.06 ÷ √(n − 3) on Fisher's scale).
 */
export function inStep(pairs: readonly { readonly counts: number; readonly percent: number }[]): InStep {
  const counts = pairs.map((pair) => pair.counts);
  const percents = pairs.map((pair) => pair.percent);
  const isFlat = (values: readonly number[]) => values.every((value) => value === values[0]);
  if (pairs.length < LEAST_PAIRS || isFlat(counts) || isFlat(percents))
    return { pairs: pairs.length, rank: 0, low: 0, high: 1, verdict: 'too-few' };
  const rank = sampleRankCorrelation(counts, percents);
  // Ranks that agree wholly are no proof of a correlation of one: as if one pair in n² stood wrong.
  const size = Math.min(Math.abs(rank), 1 - 1 / pairs.length ** 2);
  const wide = (Z_975 * 1.06) / Math.sqrt(pairs.length - 3);
  const low = Math.max(0, Math.tanh(Math.atanh(size) - wide));
  const high = Math.tanh(Math.atanh(size) + wide);
  const verdict =
    low >= IN_STEP
      ? 'in-step'
      : high < IN_STEP
        ? 'not-in-step'
        : low >= LOOSELY && high < CLOSELY
          ? 'loosely'
          : 'cannot-tell';
  return { pairs: pairs.length, rank, low, high, verdict };
}
