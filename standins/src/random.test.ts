import { expect, test } from 'vitest';
import { normal, seedOf, uniform } from './random.ts';

const many = (draw: (seed: number) => { value: number; seed: number }, count: number) => {
  let seed = 7;
  return Array.from({ length: count }, () => {
    const drawn = draw(seed);
    seed = drawn.seed;
    return drawn.value;
  });
};
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

test('the same seed gives the same numbers', () => {
  expect(many(uniform, 5)).toEqual(many(uniform, 5));
});

test('uniform numbers fill [0, 1) evenly', () => {
  const values = many(uniform, 20_000);
  expect(values.every((value) => value >= 0 && value < 1)).toBe(true);
  // standard error of the mean is 0.289 / √20000 = 0.002; five of them
  expect(Math.abs(mean(values) - 0.5)).toBeLessThan(0.01);
});

test('normal numbers have mean 0 and variance 1', () => {
  const values = many(normal, 20_000);
  expect(Math.abs(mean(values))).toBeLessThan(0.035);
  expect(Math.abs(mean(values.map((value) => value * value)) - 1)).toBeLessThan(0.05);
});

test('different texts give different seeds', () => {
  expect(seedOf('probe-a')).not.toBe(seedOf('probe-b'));
  expect(seedOf('probe-a')).toBe(seedOf('probe-a'));
});
