import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { leastSquares } from './leastSquares.ts';

describe('least squares', () => {
  test('a line through four points, worked by hand', () => {
    // Mean 1.5 and 2.25; Σ(x−x̄)(y−ȳ) = 2.5, Σ(x−x̄)² = 5: slope 0.5, at zero 1.5.
    const weights = leastSquares(
      [0, 1, 2, 3].map((x) => [1, x]),
      [1, 3, 2, 3],
    );
    expect(weights?.[0]).toBeCloseTo(1.5, 12);
    expect(weights?.[1]).toBeCloseTo(0.5, 12);
  });

  test('as many points as columns are met exactly', () => {
    const parabola = leastSquares(
      [-1, 0, 2].map((x) => [1, x, x * x]),
      [6, 1, 9],
    );
    // 1 − 2x + 3x².
    for (const [at, weight] of [1, -2, 3].entries()) expect(parabola?.[at]).toBeCloseTo(weight, 12);
  });

  test('what is left stands at right angles to every column: the law that defines it', () => {
    const finite = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(finite, finite, finite), { minLength: 4, maxLength: 12 }), (points) => {
        const rows = points.map(([a, b]) => [1, a, b]);
        const weights = leastSquares(
          rows,
          points.map(([, , value]) => value),
        );
        if (!weights) return;
        const left = rows.map(
          (row, at) => (points[at]?.[2] ?? 0) - row.reduce((sum, one, j) => sum + one * (weights[j] ?? 0), 0),
        );
        const size = Math.max(...weights.map(Math.abs), 1);
        for (const column of [0, 1, 2])
          expect(
            Math.abs(left.reduce((sum, one, at) => sum + one * (rows[at]?.[column] ?? 0), 0)),
          ).toBeLessThan(1e-7 * size * 1e4);
      }),
      { seed: 20_261_127, numRuns: 1000 },
    );
  });

  test('weights by size do not matter: a column in other units has its weight in them', () => {
    const rows = [0, 1, 2, 3].map((x) => [1, x * 1e6]);
    expect(leastSquares(rows, [1, 3, 2, 3])?.[1]).toBeCloseTo(0.5e-6, 15);
  });

  test.each([
    [
      'columns that are one',
      [
        [1, 2],
        [2, 4],
        [3, 6],
      ],
      [1, 2, 3],
    ],
    [
      'a column of zeros',
      [
        [1, 0],
        [2, 0],
        [3, 0],
      ],
      [1, 2, 3],
    ],
    ['fewer points than columns', [[1, 2]], [1]],
    [
      'something that is no number',
      [
        [1, Number.NaN],
        [1, 2],
        [1, 3],
      ],
      [1, 2, 3],
    ],
    [
      'a value that is no number',
      [
        [1, 1],
        [1, 2],
        [1, 3],
      ],
      [1, Infinity, 3],
    ],
    ['nothing', [], []],
  ])('%s have no answer', (_, rows, values) => {
    expect(leastSquares(rows, values)).toBeNull();
  });
});
