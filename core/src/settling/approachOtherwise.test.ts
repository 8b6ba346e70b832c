/**
 * The fit by another way: each curve's readings as one draw from a normal distribution with the covariance that noise and priors give (n × n), instead of the
 * ridge of its columns. Evidence, posterior means and covariances must be the same. Source: Rasmussen & Williams 2006, Gaussian Processes, eq. 2.11 and 2.30.
 */
import { describe, expect, test } from 'vitest';
import { beliefFurther, endOf, fitApproach, TIME_CONSTANTS_S } from './approach.ts';
import { normalCdf } from '../quantity/normal.ts';

const SPAN = 1000;
const SIGMA = 4;
const MISFIT = 0.0012 * SPAN;
const GRID = TIME_CONSTANTS_S.length;

type Matrix = readonly (readonly number[])[];

/** Lower triangle L with L·Lᵀ = matrix. */
function triangleOf(matrix: Matrix): number[][] {
  const lower = matrix.map((row) => row.map(() => 0));
  for (const [i, row] of matrix.entries())
    for (let j = 0; j <= i; j += 1) {
      let sum = row[j] ?? 0;
      for (let k = 0; k < j; k += 1) sum -= (lower[i]?.[k] ?? 0) * (lower[j]?.[k] ?? 0);
      const line = lower[i];
      if (line) line[j] = i === j ? Math.sqrt(sum) : sum / (lower[j]?.[j] ?? 1);
    }
  return lower;
}

function solve(lower: Matrix, y: readonly number[]): number[] {
  const n = y.length;
  const forth: number[] = [];
  for (let i = 0; i < n; i += 1) {
    let sum = y[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= (lower[i]?.[k] ?? 0) * (forth[k] ?? 0);
    forth.push(sum / (lower[i]?.[i] ?? 1));
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = forth[i] ?? 0;
    for (let k = i + 1; k < n; k += 1) sum -= (lower[k]?.[i] ?? 0) * (x[k] ?? 0);
    x[i] = sum / (lower[i]?.[i] ?? 1);
  }
  return x;
}

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, one, at) => sum + one * (b[at] ?? 0), 0);

/** A curve of the family: its time constants, with or without a line, and what is believed of it before. */
type Kind = { readonly taus: readonly number[]; readonly hasLine: boolean; readonly prior: number };

const rarity = (tauS: number): number => (tauS > 1500 ? 0.2 : 1);
const sumOf = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0);

function kinds(): Kind[] {
  const pairs = TIME_CONSTANTS_S.flatMap((fast, at) =>
    TIME_CONSTANTS_S.slice(at + 1).map((slow) => [fast, slow] as const),
  );
  const singles = sumOf(TIME_CONSTANTS_S.map(rarity));
  const doubles = sumOf(pairs.map(([, slow]) => rarity(slow)));
  return [
    { taus: [], hasLine: false, prior: 0.15 },
    { taus: [], hasLine: true, prior: 0.03 },
    ...TIME_CONSTANTS_S.flatMap((tau) => [
      { taus: [tau], hasLine: false, prior: (0.52 * rarity(tau)) / singles },
      { taus: [tau], hasLine: true, prior: 0.03 / GRID },
    ]),
    ...pairs.map(([fast, slow]) => ({
      taus: [fast, slow],
      hasLine: false,
      prior: (0.27 * rarity(slow)) / doubles,
    })),
  ];
}

/** Every curve that counts, by the other way. */
function curvesOtherwise(times: readonly number[], values: readonly number[]) {
  const zero = values.at(-1) ?? 0;
  const y = values.map((value) => value - zero);
  const last = times.at(-1) ?? 0;
  const since = last - (times[0] ?? 0);
  const way = Math.abs((values[0] ?? 0) - zero);
  const slow = Math.min(0.25 * SPAN, Math.max(0.3 * way, 0.04 * SPAN));
  const all = kinds().map((kind) => {
    const scales = [SPAN];
    const columns = [times.map(() => 1)];
    for (const [at, tau] of kind.taus.entries()) {
      const scale = at === 0 ? 0.5 * SPAN : slow;
      const turns = times.map((one) => (one - (times[0] ?? 0)) / tau);
      // An exponential of thirty turns is over.
      columns.push(turns.map((one) => (one > 30 ? 0 : Math.exp(-one))));
      columns.push(turns.map((one) => (one > 30 ? 0 : one * Math.exp(-one))));
      scales.push(scale, 0.12 * scale);
    }
    if (kind.hasLine) {
      columns.push(times.map((one) => (one - last) / 3600));
      scales.push(0.3 * SPAN);
    }
    const covariance = times.map((_, i) =>
      times.map(
        (__, j) =>
          (i === j ? SIGMA ** 2 + MISFIT ** 2 : 0) +
          sumOf(columns.map((column, k) => (scales[k] ?? 0) ** 2 * (column[i] ?? 0) * (column[j] ?? 0))),
      ),
    );
    const lower = triangleOf(covariance);
    const inverse = solve(lower, y);
    const logDet = 2 * sumOf(lower.map((row, at) => Math.log(row[at] ?? 1)));
    const mean = columns.map((column, k) => (scales[k] ?? 0) ** 2 * dot(column, inverse));
    const after = columns.map((one, i) => {
      const solved = solve(lower, one);
      return columns.map((other, j) => {
        const [si, sj] = [(scales[i] ?? 0) ** 2, (scales[j] ?? 0) ** 2];
        return (i === j ? si : 0) - si * sj * dot(other, solved);
      });
    });
    const log = -0.5 * dot(y, inverse) - 0.5 * logDet + Math.log(kind.prior);
    return { kind, log, mean, after };
  });
  const best = Math.max(...all.map((one) => one.log));
  const kept = all.filter((one) => one.log > best + Math.log(1e-3));
  const total = sumOf(kept.map((one) => Math.exp(one.log - best)));
  return kept.map(({ kind: { taus, hasLine }, log, mean, after }) => {
    const worth = taus.flatMap((tau) => {
      const turns = since / tau;
      return [Math.exp(-turns), turns * Math.exp(-turns)];
    });
    const sigmaOf = (weights: readonly number[]) =>
      Math.sqrt(sumOf(weights.map((wi, i) => sumOf(weights.map((wj, j) => wi * wj * (after[i]?.[j] ?? 0))))));
    const slope = hasLine ? (mean.at(-1) ?? 0) / 3600 : 0;
    const settling = dot(worth, mean.slice(1));
    // What the slower part moved in the later half of the time, and its share that nobody has seen.
    const partAt = (turns: number) => {
      const [a = 0, b = 0] = mean.slice(2 * taus.length - 1);
      return (a + b * turns) * Math.exp(-turns);
    };
    const slowest = taus.at(-1);
    const unseen =
      slowest === undefined
        ? 0
        : (taus.length === 1 ? 0.1 : 0.62) * (partAt(since / slowest) - partAt(since / 2 / slowest));
    const line = (weight: number) => (hasLine ? [weight] : []);
    return {
      share: Math.exp(log - best) / total,
      end: zero + (mean[0] ?? 0),
      endSigma: Math.sqrt(after[0]?.[0] ?? 0),
      unseen,
      left: settling - slope * 900,
      leftSigma: sigmaOf([0, ...worth, ...line(-900 / 3600)]),
      now: zero + (mean[0] ?? 0) + settling,
      nowSigma: sigmaOf([1, ...worth, ...line(0)]),
      lineCountsPerS: slope,
    };
  });
}

/** Eleven readings: too few for anything to be said of what they carry over, and near enough to the curve for no further noise. */
const wobble = [1.5, -2, 0.5, 2, -1.5, 1, -1, 2, -0.5, -1.5, 0.5];
const timesOf = (forS: number) => wobble.map((_, at) => 50 + (at * forS) / (wobble.length - 1));
const readingsOf = (times: readonly number[], value: (sinceS: number) => number) =>
  times.map((atS, at) => value(atS - 50) + (wobble[at] ?? 0));

const STREAMS: readonly (readonly [name: string, forS: number, value: (sinceS: number) => number])[] = [
  ['rest', 300, () => 400],
  ['an approach that is over', 120, (s) => 600 - 200 * Math.exp(-s / 11)],
  ['one half way', 60, (s) => 300 + 350 * Math.exp(-s / 45)],
  ['a fast part before a slow one', 900, (s) => 500 + 200 * Math.exp(-s / 8) + 60 * Math.exp(-s / 400)],
  ['a drift', 1800, (s) => 500 + 0.05 * s],
];

describe.each(STREAMS)('of %s', (_, forS, value) => {
  const times = timesOf(forS);
  const values = readingsOf(times, value);
  const bins = times.map((atS, at) => ({ fromS: atS, toS: atS, readings: 1, mean: values[at] ?? 0 }));
  const found = fitApproach(bins, SPAN, SIGMA);
  const asked = curvesOtherwise(times, values);

  test('nothing but the noise that was given is left over', () => expect(found.sigma).toBe(SIGMA));

  test('the same curves count, each as much as by the other way', () => {
    expect(found.curves).toHaveLength(asked.length);
    const keys = Object.keys(asked[0] ?? {}) as (keyof (typeof asked)[number])[];
    for (const [at, curve] of found.curves.entries())
      for (const key of keys) {
        const wanted = asked[at]?.[key] ?? NaN;
        expect(Math.abs(curve[key] - wanted), `${key} of curve ${at}`).toBeLessThan(
          1e-6 + 1e-5 * Math.abs(wanted),
        );
      }
  });

  test('what was not seen lies ahead of the end, and in the belief that it is further', () => {
    const far = (curve: (typeof asked)[number], tolerance: number) => {
      const left = curve.left - 0.5 * curve.unseen;
      const sigma = Math.hypot(curve.leftSigma, curve.unseen);
      return 1 - normalCdf((tolerance - left) / sigma) + normalCdf((-tolerance - left) / sigma);
    };
    const wanted = sumOf(asked.map((one) => one.share * (one.leftSigma > 0 ? far(one, 10) : 0)));
    expect(beliefFurther(found, 10)).toBeCloseTo(wanted, 4);
    for (const [at, curve] of found.curves.entries()) {
      const { end, endSigma, unseen } = asked[at] ?? curve;
      expect(endOf(curve).mean).toBeCloseTo(end + unseen / 2, 3);
      expect(endOf(curve).sigma).toBeCloseTo(Math.hypot(endSigma, unseen), 3);
    }
  });
});
