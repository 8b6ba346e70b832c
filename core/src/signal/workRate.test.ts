import { expect, test } from 'vitest';
import { workRate } from './workRate.ts';

test('ten lines in four seconds are 2.5 a second', () => {
  expect(workRate(10, 4)).toMatchObject({ value: 2.5, unit: 'lines/s', decimals: 1 });
});
