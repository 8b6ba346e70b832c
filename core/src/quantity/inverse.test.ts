import { expect, test } from 'vitest';
import { inverseOf } from './inverse.ts';

test('the inverse of a matrix worked by hand', () => {
  // Determinant 4 · 3 − 2 · 2 = 8.
  const inverse = inverseOf([
    [4, 2],
    [2, 3],
  ]);
  expect(inverse?.flat().map((one) => Math.round(8e9 * one) / 1e9)).toEqual([3, -2, -2, 4]);
});

test('times the matrix it is one on the diagonal and nothing beside it', () => {
  const matrix = [
    [5, 1, 0.5],
    [1, 4, -1],
    [0.5, -1, 3],
  ];
  const inverse = inverseOf(matrix) ?? [];
  const product = matrix.map((row) =>
    row.map((_, column) => row.reduce((sum, one, k) => sum + one * (inverse[k]?.[column] ?? 0), 0)),
  );
  for (const [at, row] of product.entries())
    for (const [column, one] of row.entries()) expect(one).toBeCloseTo(Number(at === column), 12);
});

test('columns that depend on each other, or no numbers, have none', () => {
  expect(
    inverseOf([
      [1, 1],
      [1, 1],
    ]),
  ).toBeNull();
  expect(inverseOf([[Number.NaN]])).toBeNull();
});
