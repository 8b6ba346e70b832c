/**
 * Where a reading is going. After a probe has been pushed in, or water poured, its reading approaches an end value, at once or in a fast and a slow
 * part:
 *
 *     y(t) = c + a·e^(−t/τ₁) + b·e^(−t/τ₂)
 *
 * The time constants are not known, and from a short piece of curve they cannot be: a straight line fits as well as a slow approach. So no
 * single curve is chosen. Every time constant of a grid, and every pair of them, is fitted by weighted linear least squares with broad priors on
 * the amplitudes, and each fit counts by how probable it makes the readings (Bayesian model averaging; its penalty for needless freedom is what
 * keeps the simple curve). What is said of the end value is said over all of them: as long as a slow drift cannot be told from rest, the
 * interval stays wide.
 *
 * A grid is coarse where the noise is small, so each of its time constants may give way a little: beside e^(−t/τ) stands its derivative by ln τ,
 * (t/τ)·e^(−t/τ), with a narrow prior (Taylor's first term).
 *
 * Robust: noise is estimated apart, from differences; bins far from the first average are given less weight and the fit is done again (Huber).
 *
 * Source: Bishop 2006, Pattern Recognition and Machine Learning, ch. 3 (Bayesian linear regression, evidence); Hoeting et al. 1999, Bayesian Model
 * Averaging; Huber 1964 for the weights.
 */
import type { Bin } from './bins.ts';
import { normalCdf } from '../quantity/normal.ts';

/** Time constants looked at, s: from faster than any probe's first answer to longer than a person waits. */
const SHORTEST_S = 1.5;
const LONGEST_S = 3600;
const GRID_SIZE = 24;
export const TIME_CONSTANTS_S: readonly number[] = Array.from(
  { length: GRID_SIZE },
  (_, at) => SHORTEST_S * (LONGEST_S / SHORTEST_S) ** (at / (GRID_SIZE - 1)),
);
/** From here on there is no end in sight within a sitting: the curve is called a drift. */
export const DRIFT_FROM_S = 2400;

const RARE_FROM_S = 1500;
const RARE = 0.2;

/** Prior beliefs in the kinds of curve; the curves of each kind share its part. */
const PRIOR = { rest: 0.15, single: 0.52, double: 0.27, line: 0.03 } as const;
/**
 * Prior standard deviations as shares of the span: where the end lies, how far one part moves, how far the slow one of two. The slow one moves no more
 * than a part of the way that has been seen.
 */
const SCALE = { end: 1, single: 0.5, slow: 0.25, slowOfWay: 0.3, leastSlow: 0.04, line: 0.3 } as const;
/** A straight line's slope is counted per hour; what it moves within a quarter of one is the way it has still to go. */
const LINE_UNIT_S = 3600;
const HORIZON_S = 900;
/** How far a time constant of the grid may give way: standard deviation of its logarithm, a third of a step. */
const GIVE = 0.12;
/** No probe follows two exponentials to the last digit: this share of the span is believed of no bin, however many readings it averages. */
const MISFIT = 0.0012;
/** An exponential is over after so many time constants: e^−30 of any span is far below a converter step. */
const DIED_AWAY = 30;
/** Curves that count less than this beside the best are left out of everything said. */
const LEAST_SHARE = 1e-3;
/** A bin further off than this many of its own standard deviations counts less. */
const HUBER = 3.5;
/** Excess of the best curve's residuals over the noise (mean square) that is still chance. */
const CHANCE = 1.15;

/** Below so many bins nothing is said of what they carry over; and so many standard deviations of it are chance. */
const LEAST_FOR_CARRIED = 12;
const CHANCE_CARRIED = 1.6;

/** One curve that may be true, seen from the time of the newest reading. */
export type Curve = {
  /** Share of belief, 0..1; all together 1. */
  readonly share: number;
  /** End value and its standard deviation, counts. */
  readonly end: number;
  readonly endSigma: number;
  /** What parts slower than everything seen may still add to the end: standard deviation, counts, with the sign of the way. */
  readonly unseen: number;
  /** True value less the end value at the newest reading, counts, and its standard deviation; of a straight line what it moves in a quarter of an hour. */
  readonly left: number;
  readonly leftSigma: number;
  /** True value at the newest reading, counts, and its standard deviation. */
  readonly now: number;
  readonly nowSigma: number;
  /** The parts of the way still to go, each with its own time constant. */
  readonly parts: readonly CurvePart[];
  /** Slope of a straight line beside them, counts per second; 0 without one. */
  readonly lineCountsPerS: number;
};

export type CurvePart = {
  /** Of the way still to go at the newest reading, counts. */
  readonly amplitude: number;
  /** How the amplitude gives way with time: `h` seconds on it is (amplitude + bend·h/τ)·e^(−h/τ). */
  readonly bend: number;
  readonly timeConstantS: number;
};

/** The way still to go `aheadS` after the newest reading, counts. */
export const leftAfter = (curve: Curve, aheadS: number): number =>
  curve.lineCountsPerS * aheadS +
  curve.parts.reduce((sum, { amplitude, bend, timeConstantS }) => {
    const turns = aheadS / timeConstantS;
    return sum + (amplitude + bend * turns) * Math.exp(-turns);
  }, 0);

/** Slope of the true value at the newest reading, counts per second. */
export const slopeNow = (curve: Curve): number =>
  curve.lineCountsPerS +
  curve.parts.reduce((sum, part) => sum + (part.bend - part.amplitude) / part.timeConstantS, 0);

export type Approach = {
  readonly atS: number;
  readonly curves: readonly Curve[];
  /** Noise that the fit took for a single reading, each as if it were independent: what was given, or more where the best curve leaves more or readings carry over what the one before had. */
  readonly sigma: number;
};

/** Mean of (t/τ)·e^(−t/τ) over a bin, t counted from `originS`: Simpson's rule, for bins are narrow beside τ where it matters. */
function giving(bin: Bin, originS: number, tauS: number): number {
  const at = (turns: number) => turns * Math.exp(-turns);
  const early = (bin.fromS - originS) / tauS;
  const late = (bin.toS - originS) / tauS;
  return early === late ? at(early) : (at(early) + 4 * at((early + late) / 2) + at(late)) / 6;
}

/** Mean of e^(−t/τ) over a bin, t counted from `originS`. */
function basis(bin: Bin, originS: number, tauS: number): number {
  const early = Math.exp(-(bin.fromS - originS) / tauS);
  const widthS = bin.toS - bin.fromS;
  if (widthS <= 0) return early;
  const turns = widthS / tauS;
  return turns < 1e-6 ? early : (early * -Math.expm1(-turns)) / turns;
}

/**
 * Fits every curve to the bins of one approach.
 * @param bins at least two, in order of time
 * @param spanCounts reading's way from dry to wet, counts, > 0: the scale of the priors
 * @param sigma noise of a single reading, counts, > 0
 * @param rounding what no averaging takes away, counts: readings in coarse steps
 */
export function fitApproach(bins: readonly Bin[], spanCounts: number, sigma: number, rounding = 0): Approach {
  const seen = look(bins);
  const misfit = Math.max(MISFIT * spanCounts, rounding);
  const first = fitOnce(seen, spanCounts, sigma, misfit, null);
  const residuals = bins.map(
    (bin, at) =>
      (bin.mean - valueAt(seen, first.top, at)) / Math.hypot(sigma / Math.sqrt(bin.readings), misfit),
  );
  const weights = residuals.map((z) => (Math.abs(z) > HUBER ? HUBER / Math.abs(z) : 1));
  // What the best curve leaves over beyond the noise is unknown trouble, and belongs into every interval.
  const kept = residuals.map((z, at) => z * Math.sqrt(weights[at] ?? 1));
  const over = meanSquare(kept);
  const carried = carriedOver(kept);
  const worth = Math.sqrt((1 + carried) / (1 - carried));
  const grown = over > CHANCE ? sigma * Math.sqrt(over) : sigma;
  // Noise that carries over shows itself twice, for its differences from one reading to the next are smaller than it is; a curve that misses the readings only in what it leaves.
  const isNoise = over > differenced(carried);
  const taken = isNoise ? grown * worth : grown;
  if (taken === sigma && carried === 0 && weights.every((weight) => weight === 1)) return first.approach;
  const { approach } = fitOnce(seen, spanCounts, taken, misfit, weights);
  return isNoise ? approach : { ...approach, curves: approach.curves.map((one) => lessSure(one, worth)) };
}

const lessSure = (curve: Curve, factor: number): Curve => ({
  ...curve,
  endSigma: factor * curve.endSigma,
  leftSigma: factor * curve.leftSigma,
  nowSigma: factor * curve.nowSigma,
});

/** Variance of noise that carries over so much ÷ what its second differences make of it; most of it, for chance has its part. */
const differenced = (carried: number): number => (0.55 * 6) / (6 - 8 * carried + 2 * carried ** 2);

/** No more is believed of it: what is carried over further is no noise but a way. */
const MOST_CARRIED = 0.92;

/**
 * How much of its noise a bin takes over from the one before, 0..1, beyond what chance shows: then so many readings are worth only (1 − ρ)/(1 + ρ) of as many independent ones.
 * Source: lag-one autocorrelation with its bias (Kendall 1954); effective number of readings, Bayley & Hammersley 1946.
 */
function carriedOver(residuals: readonly number[]): number {
  const n = residuals.length;
  if (n < LEAST_FOR_CARRIED) return 0;
  const square = meanSquare(residuals) * n;
  const products = residuals.slice(1).reduce((sum, z, at) => sum + z * (residuals[at] ?? 0), 0);
  const seen = square > 0 ? products / square : 0;
  if (seen < CHANCE_CARRIED / Math.sqrt(n)) return 0;
  return Math.min(MOST_CARRIED, seen + (3 + 8 * seen) / n);
}

const meanSquare = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value * value, 0) / Math.max(1, values.length);

/** The bins with every column of every curve worked out, row by row. */
type Seen = {
  readonly bins: readonly Bin[];
  readonly rows: Float64Array;
  readonly originS: number;
  readonly atS: number;
  /** Values count from the last bin's, so that the prior on the end is about what is seen. */
  readonly zero: number;
};

function look(bins: readonly Bin[]): Seen {
  const originS = bins[0]?.fromS ?? 0;
  const last = bins.at(-1);
  const atS = last?.toS ?? 0;
  const rows = new Float64Array(bins.length * COLUMNS);
  for (const [at, bin] of bins.entries()) {
    const start = at * COLUMNS;
    rows[start] = 1;
    rows[start + LINE] = ((bin.fromS + bin.toS) / 2 - atS) / LINE_UNIT_S;
    for (let of = 0; of < GRID_SIZE; of += 1) {
      const tauS = TIME_CONSTANTS_S[of] ?? 1;
      // Died away: zero exactly, for numbers too small to be held in full are slow to reckon with.
      if ((bin.fromS - originS) / tauS > DIED_AWAY) continue;
      rows[start + 2 * of + 1] = basis(bin, originS, tauS);
      rows[start + 2 * of + 2] = giving(bin, originS, tauS);
    }
  }
  return { bins, rows, originS, atS, zero: last?.mean ?? 0 };
}

type Solved = {
  readonly logEvidence: number;
  readonly columns: readonly number[];
  readonly taus: readonly number[];
  readonly fit: Normal;
};

/** What a curve says of a bin. */
const valueAt = (seen: Seen, curve: Solved | undefined, at: number): number =>
  curve?.columns.reduce(
    (sum, column, of) => sum + (seen.rows[at * COLUMNS + column] ?? 0) * (curve.fit.mean[of] ?? 0),
    seen.zero,
  ) ?? seen.zero;

function fitOnce(
  seen: Seen,
  spanCounts: number,
  sigma: number,
  misfit: number,
  robust: readonly number[] | null,
): { readonly approach: Approach; readonly top: Solved | undefined } {
  const means = seen.bins.map((bin) => bin.mean);
  const wayCounts = Math.abs((means[0] ?? 0) - (means.at(-1) ?? 0));
  const kept = solveAll(momentsOf(seen, sigma, misfit, robust), spanCounts, wayCounts);
  const best = Math.max(...kept.map((one) => one.logEvidence));
  const total = kept.reduce((sum, one) => sum + Math.exp(one.logEvidence - best), 0);
  const curves = kept.map((one) =>
    curveOf(one, Math.exp(one.logEvidence - best) / total, seen.atS - seen.originS, seen.zero),
  );
  return {
    approach: { atS: seen.atS, curves, sigma },
    top: kept.find((one) => one.logEvidence === best),
  };
}

/** Sums over the bins that every fit is made of: of the basis columns with each other and with the readings. Column 0 is the constant. */
type Moments = { readonly gram: Float64Array; readonly withValue: Float64Array };

/** The constant, two columns for each time constant (the exponential and its derivative), and a straight line. */
const LINE = 2 * GRID_SIZE + 1;
const COLUMNS = LINE + 1;

function momentsOf(seen: Seen, sigma: number, misfit: number, robust: readonly number[] | null): Moments {
  const { bins, rows, zero } = seen;
  const gram = new Float64Array(COLUMNS * COLUMNS);
  const withValue = new Float64Array(COLUMNS);
  for (const [at, bin] of bins.entries()) {
    const row = rows.subarray(at * COLUMNS, (at + 1) * COLUMNS);
    const weight = (robust?.[at] ?? 1) / (sigma ** 2 / bin.readings + misfit ** 2);
    const value = bin.mean - zero;
    for (let i = 0; i < COLUMNS; i += 1) {
      const weighted = weight * (row[i] ?? 0);
      if (weighted === 0) continue; // long after a fast part its columns have died away
      withValue[i] = (withValue[i] ?? 0) + weighted * value;
      const start = i * COLUMNS;
      for (let j = i; j < COLUMNS; j += 1)
        gram[start + j] = (gram[start + j] ?? 0) + weighted * (row[j] ?? 0);
    }
  }
  return { gram, withValue };
}

/** The columns of every curve: the constant alone, with one time constant, with two; and a straight line beside none or one. */
const CURVE_COLUMNS: readonly (readonly number[])[] = (() => {
  const columnsOf = (of: number) => [2 * of + 1, 2 * of + 2];
  const curves = [[0], [0, LINE]];
  for (let i = 0; i < GRID_SIZE; i += 1) curves.push([0, ...columnsOf(i)], [0, ...columnsOf(i), LINE]);
  for (let i = 0; i < GRID_SIZE; i += 1)
    for (let j = i + 1; j < GRID_SIZE; j += 1) curves.push([0, ...columnsOf(i), ...columnsOf(j)]);
  return curves;
})();

/** Prior belief in a slowest time constant: those beyond any probe's own settling are drifts, and rarer. */
const rarity = (tauS: number) => (tauS > RARE_FROM_S ? RARE : 1);
const SINGLES = TIME_CONSTANTS_S.reduce((sum, tauS) => sum + rarity(tauS), 0);
const PAIRS = TIME_CONSTANTS_S.reduce((sum, tauS, at) => sum + at * rarity(tauS), 0);
/** Logarithm of each curve's prior belief. */
const LOG_PRIOR: readonly number[] = CURVE_COLUMNS.map((columns) => {
  if (columns.length === 1) return Math.log(PRIOR.rest);
  if (columns.at(-1) === LINE) return Math.log(columns.length === 2 ? PRIOR.line : PRIOR.line / GRID_SIZE);
  const slowest = TIME_CONSTANTS_S[((columns.at(-2) ?? 1) - 1) / 2] ?? 1;
  const share = columns.length === 3 ? PRIOR.single / SINGLES : PRIOR.double / PAIRS;
  return Math.log(share * rarity(slowest));
});

function solveAll(moments: Moments, spanCounts: number, wayCounts: number): Solved[] {
  const slow = Math.min(
    SCALE.slow * spanCounts,
    Math.max(SCALE.slowOfWay * wayCounts, SCALE.leastSlow * spanCounts),
  );
  const single = SCALE.single * spanCounts;
  const settling = [SCALE.end * spanCounts, single, GIVE * single, slow, GIVE * slow];
  const line = SCALE.line * spanCounts;
  const scalesOf = (columns: readonly number[]) =>
    columns.at(-1) === LINE ? [...settling.slice(0, columns.length - 1), line] : settling;
  const evidence = CURVE_COLUMNS.map(
    (columns, at) => factorise(moments, columns, scalesOf(columns)) + (LOG_PRIOR[at] ?? -Infinity),
  );
  const best = Math.max(...evidence);
  return CURVE_COLUMNS.flatMap((columns, at) => {
    const logEvidence = evidence[at] ?? -Infinity;
    if (!(logEvidence > best + Math.log(LEAST_SHARE))) return [];
    factorise(moments, columns, scalesOf(columns));
    const taus = columns
      .filter((column) => column % 2 === 1 && column !== LINE)
      .map((column) => TIME_CONSTANTS_S[(column - 1) / 2] ?? 1);
    return [{ logEvidence, columns, taus, fit: posterior(columns.length) }];
  });
}

/** Posterior of one curve's weights: mean and covariance. */
type Normal = { readonly mean: readonly number[]; readonly covariance: readonly (readonly number[])[] };

/** Room for one factorisation; hundreds are made for every fit. */
const MOST = 5;
const factor = new Float64Array(MOST * MOST);
const halfway = new Float64Array(MOST);

/**
 * Weighted ridge of up to five columns, by Cholesky, left in `factor` and `halfway`. Returns the logarithm of the evidence but for what all curves
 * share; −∞ when rounding has made the columns alike.
 */
function factorise(moments: Moments, columns: readonly number[], scales: readonly number[]): number {
  let logEvidence = 0;
  for (let i = 0; i < columns.length; i += 1) {
    const high = columns[i] ?? 0;
    const scale = scales[i] ?? 1;
    for (let j = 0; j <= i; j += 1) {
      let sum = moments.gram[(columns[j] ?? 0) * COLUMNS + high] ?? 0;
      if (i === j) sum += 1 / (scale * scale);
      for (let k = 0; k < j; k += 1) sum -= (factor[i * MOST + k] ?? 0) * (factor[j * MOST + k] ?? 0);
      if (i !== j) factor[i * MOST + j] = sum / (factor[j * MOST + j] ?? 1);
      else {
        if (!(sum > 0)) return -Infinity;
        factor[i * MOST + i] = Math.sqrt(sum);
        logEvidence -= 0.5 * Math.log(sum) + Math.log(scale);
      }
    }
    let right = moments.withValue[high] ?? 0;
    for (let k = 0; k < i; k += 1) right -= (factor[i * MOST + k] ?? 0) * (halfway[k] ?? 0);
    const solved = right / (factor[i * MOST + i] ?? 1);
    halfway[i] = solved;
    logEvidence += 0.5 * solved * solved;
  }
  return logEvidence;
}

/** Mean and covariance from the factorisation that was made last. */
function posterior(n: number): Normal {
  const back = (y: readonly number[]) => {
    const x = new Array<number>(n).fill(0);
    for (let i = n - 1; i >= 0; i -= 1) {
      let sum = y[i] ?? 0;
      for (let k = i + 1; k < n; k += 1) sum -= (factor[k * MOST + i] ?? 0) * (x[k] ?? 0);
      x[i] = sum / (factor[i * MOST + i] ?? 1);
    }
    return x;
  };
  const unit = (at: number) => {
    const y = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i += 1) {
      let sum = i === at ? 1 : 0;
      for (let k = 0; k < i; k += 1) sum -= (factor[i * MOST + k] ?? 0) * (y[k] ?? 0);
      y[i] = sum / (factor[i * MOST + i] ?? 1);
    }
    return y;
  };
  return { mean: back([...halfway]), covariance: Array.from({ length: n }, (_, at) => back(unit(at))) };
}

function curveOf(solved: Solved, share: number, sinceS: number, zero: number): Curve {
  const { mean, covariance } = solved.fit;
  // What each column is worth at the newest reading.
  const worth = solved.taus.flatMap((tauS) => {
    const turns = sinceS / tauS;
    return [Math.exp(-turns), turns * Math.exp(-turns)];
  });
  const sigmaOf = (weights: readonly number[]) => {
    let variance = 0;
    for (const [i, wi] of weights.entries())
      for (const [j, wj] of weights.entries()) variance += wi * wj * (covariance[i]?.[j] ?? 0);
    return Math.sqrt(Math.max(0, variance));
  };
  const parts = solved.taus.map((timeConstantS, at) => ({
    amplitude:
      (worth[2 * at] ?? 0) * (mean[2 * at + 1] ?? 0) + (worth[2 * at + 1] ?? 0) * (mean[2 * at + 2] ?? 0),
    bend: (worth[2 * at] ?? 0) * (mean[2 * at + 2] ?? 0),
    timeConstantS,
  }));
  const hasLine = solved.columns.at(-1) === LINE;
  const lineCountsPerS = hasLine ? (mean.at(-1) ?? 0) / LINE_UNIT_S : 0;
  const line = (weight: number) => (hasLine ? [weight] : []);
  const settling = parts.reduce((sum, part) => sum + part.amplitude, 0);
  const end = zero + (mean[0] ?? 0);
  return {
    share,
    end,
    endSigma: sigmaOf([1, ...worth.map(() => 0), ...line(0)]),
    unseen: unseenOf(solved, sinceS),
    left: settling - lineCountsPerS * HORIZON_S,
    leftSigma: sigmaOf([0, ...worth, ...line(-HORIZON_S / LINE_UNIT_S)]),
    now: end + settling,
    nowSigma: sigmaOf([1, ...worth, ...line(0)]),
    parts,
    lineCountsPerS,
  };
}

/** Where a slow part has shown beside a fast one, slower ones are likely: this much of what the slower of the two moved in the later half of the time. Of a single one little. */
const UNSEEN = { single: 0.1, double: 0.62 } as const;
/** It lies rather in the direction of the way than behind it: so much of its standard deviation. */
const LEAN = 0.5;
/** Where a curve may end, with what was not seen of it: mean and standard deviation, counts. */
export const endOf = (curve: Curve): { readonly mean: number; readonly sigma: number } => ({
  mean: curve.end + LEAN * curve.unseen,
  sigma: Math.hypot(curve.endSigma, curve.unseen),
});

function unseenOf({ taus, fit: { mean } }: Solved, sinceS: number): number {
  const of = taus.length - 1;
  const tauS = taus[of];
  if (tauS === undefined) return 0;
  const partAt = (turns: number) =>
    ((mean[2 * of + 1] ?? 0) + (mean[2 * of + 2] ?? 0) * turns) * Math.exp(-turns);
  const moved = partAt(sinceS / tauS) - partAt(sinceS / 2 / tauS);
  return UNSEEN[of === 0 ? 'single' : 'double'] * moved;
}

/** Belief that the true value is still further from its end than `toleranceCounts`, 0..1. */
export function beliefFurther(approach: Approach, toleranceCounts: number): number {
  return approach.curves.reduce((sum, curve) => {
    const left = curve.left - LEAN * curve.unseen;
    const sigma = Math.hypot(curve.leftSigma, curve.unseen);
    if (sigma === 0) return sum + (Math.abs(left) > toleranceCounts ? curve.share : 0);
    const inside = normalCdf((toleranceCounts - left) / sigma) - normalCdf((-toleranceCounts - left) / sigma);
    return sum + curve.share * (1 - inside);
  }, 0);
}

/** What the reading should be `aheadS` after the newest one: mean and standard deviation over all curves, noise of a reading not included. */
export function foreseen(approach: Approach, aheadS: number): { mean: number; sigma: number } {
  let mean = 0;
  let square = 0;
  for (const curve of approach.curves) {
    const value = curve.end + leftAfter(curve, aheadS);
    mean += curve.share * value;
    square += curve.share * (value * value + curve.nowSigma ** 2);
  }
  return { mean, sigma: Math.sqrt(Math.max(0, square - mean * mean)) };
}
