import { expect, test } from 'vitest';
import { pour, stepPot, sunAt, wetnessAtProbe, type PotState } from './pot.ts';

const traits = { saturationMl: 1000, capacityMl: 600, driestMl: 100, dryingMlPerDay: 120 };
const pot: PotState = { surfaceMl: 0, rootMl: 500, drainedMl: 0 };
const NIGHT = 0;

const run = (from: PotState, seconds: number, startMs = NIGHT) => {
  let now = from;
  for (let at = 0; at < seconds; at += 10) now = stepPot(now, traits, startMs + at * 1000, 10);
  return now;
};

test('the sun is down at night, up at noon, and shines once a day on average', () => {
  expect(sunAt(0)).toBe(0);
  expect(sunAt(12 * 3_600_000)).toBeCloseTo(Math.PI, 9);
  const minutes = Array.from({ length: 1440 }, (_, at) => sunAt(at * 60_000));
  expect(minutes.reduce((sum, value) => sum + value, 0) / 1440).toBeCloseTo(1, 3);
});

test('at night nothing dries and nothing is lost', () => {
  const after = run(pour(pot, 50), 3600);
  expect(after.surfaceMl + after.rootMl + after.drainedMl).toBeCloseTo(550, 9);
  expect(after.surfaceMl).toBeLessThan(0.01);
});

test('a bright day takes what the drying says, as long as there is plenty', () => {
  const after = run({ ...pot, rootMl: 600 }, 86_400);
  // supply falls from 1 as the pot dries: at most 120 ml, and more than the 96 ml that the supply at the day's end would give
  expect(600 - after.rootMl).toBeLessThan(120);
  expect(600 - after.rootMl).toBeGreaterThan(96);
});

test('water above capacity drains slowly, above saturation at once', () => {
  const drowned = stepPot({ ...pot, rootMl: 1300 }, traits, NIGHT, 1);
  expect(drowned.rootMl).toBe(1000);
  const hour = run({ ...pot, rootMl: 800 }, 3600);
  // 200 ml × e^(−3600/1500) = 18 ml still above capacity
  expect(hour.rootMl).toBeCloseTo(600 + 200 * Math.exp(-3600 / 1500), 6);
});

test('a pot at its driest gives no more', () => {
  expect(run({ ...pot, rootMl: 100 }, 3600, 12 * 3_600_000).rootMl).toBe(100);
});

test('the probe leaps at once after a pour and creeps up to the rest', () => {
  const wet = pour(pot, 100);
  expect(wetnessAtProbe(wet, traits)).toBeCloseTo(0.555, 9);
  expect(wetnessAtProbe(run(wet, 600), traits)).toBeCloseTo(0.6, 3);
});
