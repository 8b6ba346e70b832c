import { expect, test } from 'vitest';
import { needBeside } from './needBeside.ts';

test('a plot that gets three quarters of the water gets three quarters of the day and of each dose', () => {
  // 1 200 ml a day; 600 ml a day in doses of 120, of which 450 and 90 reach it: 13.3 doses wanted, 5 allowed.
  expect(needBeside(1200, 600, 0.75, 120)).toEqual({
    leastMl: 600,
    mostMl: 2400,
    allowedMl: 450,
    doseMl: 90,
    dosesNeeded: 1200 / 90,
    dosesAllowed: 5,
    isShort: true,
  });
});

test('what is just allowed is enough, and rounding takes no dose away', () => {
  expect(needBeside(600, 600, 1, 200)).toMatchObject({ isShort: false, dosesAllowed: 3 });
  expect(needBeside(10, 600, 89 / 117, 120)).toMatchObject({ dosesAllowed: 5 });
});

test('without a dose, or where nothing reaches the plot, no doses are told', () => {
  expect(needBeside(600, 600, 1, null)).toMatchObject({
    doseMl: null,
    dosesNeeded: null,
    dosesAllowed: null,
  });
  expect(needBeside(600, 600, 0, 120)).toMatchObject({ allowedMl: 0, doseMl: null, isShort: true });
});
