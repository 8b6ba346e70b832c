/**
 * Against a reference meter over days: the probe's raw value and what a borrowed meter, or a dial from 1 to 10, says at the same time and place.
 * A meter is a witness, not the truth: what is judged first is whether the two are in step at all.
 */
import { sampleCorrelation, sampleRankCorrelation } from 'simple-statistics';

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
  /** Rank correlation (do both call the same days dry?) and linear correlation, −1..1; the sign of a falling probe is turned. */
  readonly rank: number;
  readonly linear: number;
  readonly verdict: 'too-few' | 'in-step' | 'loosely' | 'not-in-step';
};

const LEAST_PAIRS = 5;
const IN_STEP = 0.9;
const LOOSELY = 0.7;

/** Whether the probe and the meter go together. Source: Spearman 1904 (rank correlation). */
export function inStep(pairs: readonly { readonly counts: number; readonly percent: number }[]): InStep {
  const counts = pairs.map((pair) => pair.counts);
  const percents = pairs.map((pair) => pair.percent);
  const isFlat = (values: readonly number[]) => values.every((value) => value === values[0]);
  if (pairs.length < LEAST_PAIRS || isFlat(counts) || isFlat(percents))
    return { pairs: pairs.length, rank: 0, linear: 0, verdict: 'too-few' };
  const rank = Math.abs(sampleRankCorrelation(counts, percents));
  const linear = Math.abs(sampleCorrelation(counts, percents));
  const verdict = rank >= IN_STEP ? 'in-step' : rank >= LOOSELY ? 'loosely' : 'not-in-step';
  return { pairs: pairs.length, rank, linear, verdict };
}
