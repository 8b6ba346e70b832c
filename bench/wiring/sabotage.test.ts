/** A slice of the sabotage that `npm run bench` prints: what is sound is never accused, what is spoilt is found. */
import { expect, test } from 'vitest';
import { sabotage } from './run.ts';

test('of ten sound wirings none is accused, and of what is spoilt in them all but a fiftieth is found, with the right part', () => {
  const { accused, scores } = sabotage(10);
  expect(accused).toEqual([]);
  const sum = (of: (score: { tried: number; found: number; named: number }) => number) =>
    [...scores.values()].reduce((all, one) => all + of(one), 0);
  const tried = sum((one) => one.tried);
  expect(tried).toBeGreaterThan(200);
  expect(sum((one) => one.found)).toBeGreaterThanOrEqual(0.98 * tried);
  expect(sum((one) => one.named)).toBeGreaterThanOrEqual(0.95 * tried);
});
