import { expect, test } from 'vitest';
import { hermiteAt, hermiteSlopes, type Knot } from './hermite.ts';

const knots = (...values: readonly (readonly [counts: number, percent: number])[]): Knot[] =>
  values.map(([counts, percent]) => ({ counts, percent }));

// Three-point slope at an end: ((2·h1 + h2)·s1 − h1·s2) ÷ (h1 + h2), with widths h and secants s.
test.each([
  ['two secants alike', knots([0, 0], [1, 1], [2, 2]), 1],
  ['flatter further in', knots([0, 0], [1, 1], [2, 1.1]), 1.45],
  ['wider further in', knots([0, 0], [1, 1], [4, 1]), 1.25],
  // (2·2 + 1)·3 − 2·1 = 13, over 3.
  ['narrower further in', knots([0, 0], [2, 6], [3, 7]), 13 / 3],
  ['level at first', knots([0, 0], [1, 0], [2, 3]), 0],
  ['turning back a little', knots([0, 0], [1, 1], [2, 0]), 2],
  ['turning back so far that the end would overshoot', knots([0, 0], [1, 1], [2, -4]), 3],
  ['much steeper further in, so that it would fall first', knots([0, 0], [1, 1], [2, 6]), 0],
])('slope at the first knot: %s', (_, of, slope) => {
  expect(hermiteSlopes(of)[0]).toBeCloseTo(slope, 9);
  // The same seen from the other end.
  const turned = of.map(({ counts, percent }) => ({ counts: -counts, percent: -percent })).reverse();
  expect(hermiteSlopes(turned).at(-1)).toBeCloseTo(slope, 9);
});

test('a slope between is the harmonic mean of its secants, weighted by the widths; at a turn it is level', () => {
  // Secants 1 and 4, both one wide: weights 3 and 3, so 6 ÷ (3 ÷ 1 + 3 ÷ 4).
  expect(hermiteSlopes(knots([0, 0], [1, 1], [2, 5]))[1]).toBeCloseTo(1.6, 9);
  expect(hermiteSlopes(knots([0, 0], [1, 1], [2, 0]))[1]).toBe(0);
});

test('two knots are a straight line, which goes on beyond them', () => {
  const line = knots([10, 0], [20, 50]);
  const slopes = hermiteSlopes(line);
  for (const [counts, percent] of [
    [5, -25],
    [10, 0],
    [14, 20],
    [20, 50],
    [22, 60],
  ] as const)
    expect(hermiteAt(line, slopes, counts)).toBeCloseTo(percent, 9);
  expect(hermiteAt([], [], 3)).toBeNaN();
});

test('asked again, the same knots give the same slopes, and others their own', () => {
  const first = knots([0, 0], [1, 1], [2, 3]);
  expect(hermiteSlopes(first)).toBe(hermiteSlopes(first));
  expect(hermiteSlopes(knots([0, 0], [1, 2], [2, 6]))[0]).not.toBe(hermiteSlopes(first)[0]);
});
