/**
 * What a pump or valve really gives: run time = volume × factor + tube constant. The tube has to fill before the first drop, so half the time is not
 * half the water.
 *
 * The run time of a trial is exact and its volume is what was measured, so the volume is fitted on the time (least squares) and the line is turned
 * round. What a further run gives lies within the prediction interval 95 times in 100.
 * Source: Draper & Smith 1998, Applied Regression Analysis, ch. 1 and 3 (prediction interval), ch. 8 (deleted residuals).
 */
import { student975 } from '../quantity/student.ts';
import { fail, ok, type Result } from '../quantity/result.ts';

export type Trial = {
  /** Seconds that the pump ran, and ml that came out. */
  readonly runS: number;
  readonly volumeMl: number;
};

export type DoseFit = {
  /** Seconds for a ml, and seconds before the first drop. */
  readonly secondsPerMl: number;
  readonly tubeS: number;
  readonly trials: number;
  /** Standard deviation of a single volume about the line, ml. */
  readonly sigmaMl: number;
  /** Mean run time, and the sum of squares about it: how far the line is known. */
  readonly meanRunS: number;
  readonly sumSquares: number;
  readonly shortestS: number;
  readonly longestS: number;
};

export type DoseIssue =
  /** Three different run times at least, three trials at least. */
  | { readonly kind: 'too-few'; readonly trials: number; readonly runTimes: number }
  | { readonly kind: 'not-positive' }
  /** A longer run gave no more water. */
  | { readonly kind: 'no-flow' };

export const LEAST_RUN_TIMES = 3;

/** Fits the trials. @param trials with whole or broken seconds > 0 and ml ≥ 0 */
export function fitDose(trials: readonly Trial[]): Result<DoseFit, DoseIssue> {
  if (
    trials.some(({ runS, volumeMl }) => !(runS > 0) || !(volumeMl >= 0) || !Number.isFinite(runS + volumeMl))
  )
    return fail({ kind: 'not-positive' });
  const runTimes = new Set(trials.map((trial) => trial.runS)).size;
  if (runTimes < LEAST_RUN_TIMES) return fail({ kind: 'too-few', trials: trials.length, runTimes });
  const count = trials.length;
  const meanRunS = trials.reduce((sum, one) => sum + one.runS, 0) / count;
  const meanMl = trials.reduce((sum, one) => sum + one.volumeMl, 0) / count;
  const sumSquares = trials.reduce((sum, one) => sum + (one.runS - meanRunS) ** 2, 0);
  const together = trials.reduce((sum, one) => sum + (one.runS - meanRunS) * (one.volumeMl - meanMl), 0);
  const mlPerS = together / sumSquares;
  if (!(mlPerS > 0)) return fail({ kind: 'no-flow' });
  const atZero = meanMl - mlPerS * meanRunS;
  const squares = trials.reduce((sum, one) => sum + (one.volumeMl - atZero - mlPerS * one.runS) ** 2, 0);
  return ok({
    secondsPerMl: 1 / mlPerS,
    tubeS: -atZero / mlPerS,
    trials: count,
    sigmaMl: Math.sqrt(squares / (count - 2)),
    meanRunS,
    sumSquares,
    shortestS: Math.min(...trials.map((one) => one.runS)),
    longestS: Math.max(...trials.map((one) => one.runS)),
  });
}

/** Run time for a volume, s, not rounded. */
export const runTimeFor = (fit: DoseFit, volumeMl: number): number => volumeMl * fit.secondsPerMl + fit.tubeS;

/** What a run of so many seconds gives: ml, never below zero, and the half width of its prediction interval. */
export function volumeOf(
  fit: DoseFit,
  runS: number,
): { readonly volumeMl: number; readonly plusMinusMl: number } {
  const spread = Math.sqrt(1 + 1 / fit.trials + (runS - fit.meanRunS) ** 2 / fit.sumSquares);
  return {
    volumeMl: Math.max(0, (runS - fit.tubeS) / fit.secondsPerMl),
    plusMinusMl: student975(fit.trials - 2) * fit.sigmaMl * spread,
  };
}

/** A dose is sensible while what really comes lies within this share of it. */
const SENSIBLE_FRAC = 0.2;
const MOST_ML = 20_000;

/** Smallest dose that comes out within a fifth of what was asked for, ml, rounded up to five; null when none up to 20 litres does. */
export function smallestDose(fit: DoseFit): number | null {
  for (let volumeMl = 5; volumeMl <= MOST_ML; volumeMl += 5) {
    const runS = runTimeFor(fit, volumeMl);
    if (runS > 0 && volumeOf(fit, runS).plusMinusMl <= SENSIBLE_FRAC * volumeMl) return volumeMl;
  }
  return null;
}

/** Whether a dose lies beyond what was tried, so that the line is only hoped to go on. */
export const isBeyondTrials = (fit: DoseFit, runS: number): boolean =>
  runS < 0.8 * fit.shortestS || runS > 1.25 * fit.longestS;

/** Whether a run is so far beyond what was tried that nothing can be said of it: half of the shortest, twice the longest. */
export const isFarBeyondTrials = (fit: DoseFit, runS: number): boolean =>
  runS < fit.shortestS / 2 || runS > 2 * fit.longestS;

/** A trial so many times as far off as a further run may fall is worth a second look; every trial is looked at, so chance has many tries. */
const SUSPECT = 2;

/**
 * The trial that fits least to the others, when it is off by more than chance: its place, and by how many ml. Null when all go together, or when there
 * are too few to say.
 */
export function suspectTrial(
  trials: readonly Trial[],
): { readonly at: number; readonly offMl: number } | null {
  let worst: { at: number; offMl: number; times: number } | null = null;
  for (const [at, trial] of trials.entries()) {
    const rest = fitDose(trials.filter((_, other) => other !== at));
    if (!rest.ok || rest.value.trials < 4) continue;
    const { volumeMl, plusMinusMl } = volumeOf(rest.value, trial.runS);
    const offMl = trial.volumeMl - volumeMl;
    const times = Math.abs(offMl) / Math.max(plusMinusMl, 1e-9);
    if (times > SUSPECT && times > (worst?.times ?? 0)) worst = { at, offMl, times };
  }
  return worst && { at: worst.at, offMl: worst.offMl };
}
