/**
 * What a pump or valve really gives: run time = volume × factor + tube constant. The tube has to fill before the first drop, so half the time is not
 * half the water.
 *
 * The run time of a trial is exact. Its volume was read on a jug, which rounds to its marks (standard deviation a step ÷ √12), and no pump gives the same twice: the
 * spread of a run grows with its volume. How much is not known from three trials, and so it is not taken from them alone: every share from a thousandth to a fifth
 * is weighed by how well the trials go with it (restricted likelihood) and by what is usual of small pumps, and the line is fitted under each (weighted least
 * squares). What a further run gives lies within the interval of that mixture 95 times in 100; `pumps.test.ts` draws pumps that the code does not know.
 * Source: Draper & Smith 1998, Applied Regression Analysis, ch. 9 (weighted least squares); Patterson & Thompson 1971 (restricted likelihood); Sheppard 1898 (rounding).
 */
import { mixtureQuantile } from '../quantity/normal.ts';
import { fail, ok, type Result } from '../quantity/result.ts';

export type Trial = {
  /** Seconds that the pump ran, and ml that came out. */
  readonly runS: number;
  readonly volumeMl: number;
};

/** One way in which the trials may have come about: how uneven the pump is, the line under that, and how well the line is known. */
type Guess = {
  readonly share: number;
  /** Spread of a run, as a share of its volume. */
  readonly unevenFrac: number;
  readonly atZero: number;
  readonly mlPerS: number;
  /** Variances of both and their covariance. */
  readonly varZero: number;
  readonly varSlope: number;
  readonly cov: number;
};

export type DoseFit = {
  /** Seconds for a ml, and seconds before the first drop. */
  readonly secondsPerMl: number;
  readonly tubeS: number;
  readonly trials: number;
  readonly guesses: readonly Guess[];
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
/** Distance between the marks of a kitchen jug, until somebody has said which jug it was, ml. */
export const USUAL_JUG_STEP_ML = 10;

/** How uneven small pumps are, as a share of a dose: half of them below the middle one, and most within a factor of two and a half of it. */
const USUAL_UNEVEN = { middle: 0.015, logSigma: 0.75 } as const;
const SHARES = 25;
const [LEAST_SHARE, MOST_SHARE] = [0.001, 0.2];
const GRID = Array.from(
  { length: SHARES },
  (_, at) => LEAST_SHARE * (MOST_SHARE / LEAST_SHARE) ** (at / (SHARES - 1)),
);

const jugSigma = (stepMl: number): number => stepMl / Math.sqrt(12);

/**
 * Fits the trials.
 * @param trials with whole or broken seconds > 0 and ml ≥ 0
 * @param jugStepMl distance between the marks of the jug, or the step of the scale, ml ≥ 0
 */
export function fitDose(
  trials: readonly Trial[],
  jugStepMl: number = USUAL_JUG_STEP_ML,
): Result<DoseFit, DoseIssue> {
  if (
    trials.some(({ runS, volumeMl }) => !(runS > 0) || !(volumeMl >= 0) || !Number.isFinite(runS + volumeMl))
  )
    return fail({ kind: 'not-positive' });
  const runTimes = new Set(trials.map((trial) => trial.runS)).size;
  if (runTimes < LEAST_RUN_TIMES) return fail({ kind: 'too-few', trials: trials.length, runTimes });
  // A jug without a step would make whole numbers exact; nobody reads better than half a ml.
  const jug = Math.max(jugSigma(jugStepMl), MIN_JUG_SIGMA);
  const plain = lineUnder(
    trials,
    trials.map(() => 1),
  );
  if (!(plain.mlPerS > 0)) return fail({ kind: 'no-flow' });
  const about = trials.map(({ runS }) => Math.max(0, plain.atZero + plain.mlPerS * runS));
  const raw = GRID.map((unevenFrac) => {
    const variances = about.map((ml) => jug ** 2 + (unevenFrac * ml) ** 2);
    const line = lineUnder(
      trials,
      variances.map((one) => 1 / one),
    );
    const squares = trials.reduce((sum, { runS, volumeMl }, at) => {
      const off = volumeMl - line.atZero - line.mlPerS * runS;
      return sum + off ** 2 / (variances[at] ?? 1);
    }, 0);
    const prior = (Math.log(unevenFrac / USUAL_UNEVEN.middle) / USUAL_UNEVEN.logSigma) ** 2;
    const logs = variances.reduce((sum, one) => sum + Math.log(one), 0) + Math.log(line.determinant);
    return { unevenFrac, line, weight: -0.5 * (logs + squares + prior) };
  });
  const best = Math.max(...raw.map((one) => one.weight));
  const total = raw.reduce((sum, one) => sum + Math.exp(one.weight - best), 0);
  const guesses = raw.map(({ unevenFrac, weight, line: { determinant: _, ...line } }): Guess => ({
    share: Math.exp(weight - best) / total,
    unevenFrac,
    ...line,
  }));
  const mean = (of: (guess: Guess) => number) => guesses.reduce((sum, one) => sum + one.share * of(one), 0);
  const mlPerS = mean((one) => one.mlPerS);
  if (!(mlPerS > 0)) return fail({ kind: 'no-flow' });
  return ok({
    secondsPerMl: 1 / mlPerS,
    tubeS: -mean((one) => one.atZero) / mlPerS,
    trials: trials.length,
    guesses,
    shortestS: Math.min(...trials.map((one) => one.runS)),
    longestS: Math.max(...trials.map((one) => one.runS)),
  });
}
const MIN_JUG_SIGMA = 0.15;

/** The weighted line through the trials. */
function lineUnder(trials: readonly Trial[], weights: readonly number[]) {
  let [w, wt, wtt, wv, wtv] = [0, 0, 0, 0, 0];
  for (const [at, { runS, volumeMl }] of trials.entries()) {
    const weight = weights[at] ?? 0;
    w += weight;
    wt += weight * runS;
    wtt += weight * runS * runS;
    wv += weight * volumeMl;
    wtv += weight * runS * volumeMl;
  }
  const determinant = w * wtt - wt * wt;
  return {
    atZero: (wtt * wv - wt * wtv) / determinant,
    mlPerS: (w * wtv - wt * wv) / determinant,
    varZero: wtt / determinant,
    varSlope: w / determinant,
    cov: -wt / determinant,
    determinant,
  };
}

/** Run time for a volume, s, not rounded. */
export const runTimeFor = (fit: DoseFit, volumeMl: number): number => volumeMl * fit.secondsPerMl + fit.tubeS;

const meanAt = (fit: DoseFit, runS: number): number => (runS - fit.tubeS) / fit.secondsPerMl;

/** What runs of so many seconds give, as a mixture over how uneven the pump may be. @param readSigmaMl of a jug they are read on; 0: what really comes */
const mixtureAt = (fit: DoseFit, runS: number, readSigmaMl: number) =>
  fit.guesses.map(({ share, unevenFrac, atZero, mlPerS, varZero, varSlope, cov }) => {
    const mean = atZero + mlPerS * runS;
    const line = varZero + 2 * runS * cov + runS * runS * varSlope;
    return {
      share,
      mean,
      sigma: Math.sqrt(Math.max(0, line) + (unevenFrac * Math.max(0, mean)) ** 2 + readSigmaMl ** 2),
    };
  });

/** What a run of so many seconds gives: ml, never below zero, and the half width of the interval that holds it 95 times in 100. */
export function volumeOf(
  fit: DoseFit,
  runS: number,
): { readonly volumeMl: number; readonly plusMinusMl: number } {
  const mean = meanAt(fit, runS);
  const members = mixtureAt(fit, runS, 0);
  const [low, high] = [mixtureQuantile(members, 0.025), mixtureQuantile(members, 0.975)];
  return { volumeMl: Math.max(0, mean), plusMinusMl: Math.max(high - mean, mean - low) };
}

/** How uneven the pump is, as a share of a dose, as far as the trials and what is usual tell. */
export const unevenOf = ({ guesses }: DoseFit): number =>
  guesses.reduce((sum, one) => sum + one.share * one.unevenFrac, 0);

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

/** Of all good series, about so many may have a trial pointed at, share: every trial is looked at, so chance has many tries. */
const BLAMED_FRAC = 0.03;

/**
 * The trial that fits least to the others, when it is off by more than chance: its place, and by how many ml. Null when all go together, or when there
 * are too few to say.
 */
export function suspectTrial(
  trials: readonly Trial[],
  jugStepMl: number = USUAL_JUG_STEP_ML,
): { readonly at: number; readonly offMl: number } | null {
  let worst: { at: number; offMl: number; times: number } | null = null;
  const tail = BLAMED_FRAC / Math.max(1, trials.length) / 2;
  for (const [at, trial] of trials.entries()) {
    const rest = fitDose(
      trials.filter((_, other) => other !== at),
      jugStepMl,
    );
    if (!rest.ok || rest.value.trials < 4) continue;
    const offMl = trial.volumeMl - meanAt(rest.value, trial.runS);
    const members = mixtureAt(rest.value, trial.runS, jugSigma(jugStepMl));
    const edge = mixtureQuantile(members, offMl < 0 ? tail : 1 - tail);
    const room = Math.abs(edge - meanAt(rest.value, trial.runS));
    const times = Math.abs(offMl) / Math.max(room, 1e-9);
    if (times > 1 && times > (worst?.times ?? 0)) worst = { at, offMl, times };
  }
  return worst && { at: worst.at, offMl: worst.offMl };
}
