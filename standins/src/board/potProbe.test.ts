import { expect, test } from 'vitest';
import { moveProbe, readProbe, settledProbe, stepProbe, withFault, type ProbeState } from './potProbe.ts';

const traits = { airCounts: 3000, waterCounts: 1200, noiseCounts: 0, slowS: 60, fullScaleCounts: 4095 };
/** 9 o'clock, where the daily wave crosses zero. */
const NINE = 9 * 3_600_000;
const read = (probe: ProbeState) => readProbe(probe, traits, NINE, 1).counts;
const wait = (probe: ProbeState, wetness: number, seconds: number) =>
  stepProbe(probe, traits, wetness, seconds);

test('long in air it reads its air value, long in the jar its water value', () => {
  expect(read(wait(moveProbe(settledProbe(0.5), 'air'), 0.5, 600))).toBe(3000);
  expect(read(wait(moveProbe(settledProbe(0.5), 'jar'), 0.5, 600))).toBe(1200);
});

test('soil reads between the two, and wetter soil reads lower on this probe', () => {
  const dry = read(settledProbe(0.1));
  const wet = read(settledProbe(0.9));
  expect(3000).toBeGreaterThan(dry);
  expect(dry).toBeGreaterThan(wet);
  expect(wet).toBeGreaterThan(1200);
});

test('pushed into wet soil it leaps most of the way in seconds and creeps the rest', () => {
  const dry = moveProbe(wait(moveProbe(settledProbe(0), 'air'), 0, 600), 'soil');
  const end = read(settledProbe(0.8));
  const start = read(settledProbe(0));
  const soon = read(wait(dry, 0.8, 5));
  expect((start - soon) / (start - end)).toBeGreaterThan(0.7);
  expect(Math.abs(soon - end)).toBeGreaterThan(50);
  expect(Math.abs(read(wait(dry, 0.8, 600)) - end)).toBeLessThanOrEqual(1);
});

test('unplugged it floats to full scale, and pushing it in again seats the plug', () => {
  const loose = withFault(settledProbe(0.5), 'open');
  expect(read(loose)).toBe(4095);
  expect(read(moveProbe(loose, 'soil'))).toBe(read(settledProbe(0.5)));
});

test('steps of any length add up to the same', () => {
  const start = moveProbe(settledProbe(0.2), 'soil');
  const once = wait(start, 0.7, 30);
  const twice = wait(wait(start, 0.7, 12), 0.7, 18);
  expect(twice.fast).toBeCloseTo(once.fast, 12);
  expect(twice.slow).toBeCloseTo(once.slow, 12);
});

test('noise has the size it is said to have', () => {
  let seed = 5;
  const readings = Array.from({ length: 4000 }, () => {
    const one = readProbe(settledProbe(0.5), { ...traits, noiseCounts: 6 }, NINE, seed);
    seed = one.seed;
    return one.counts;
  });
  const mean = readings.reduce((sum, value) => sum + value, 0) / readings.length;
  const sigma = Math.sqrt(readings.reduce((sum, value) => sum + (value - mean) ** 2, 0) / readings.length);
  // standard error of sigma: 6 / √8000 = 0.07
  expect(Math.abs(sigma - 6)).toBeLessThan(0.4);
});

test('fingers move it a good part of the way, and not to water', () => {
  const held = read(wait(moveProbe(settledProbe(0), 'hand'), 0, 60));
  expect(held).toBeLessThan(2600);
  expect(held).toBeGreaterThan(1800);
});

test.each([
  ['short', 0],
  ['open', 4095],
] as const)('%s reads %d wherever it is', (fault, counts) => {
  expect(read(withFault(moveProbe(settledProbe(0.5), 'soil'), fault === 'open' ? 'none' : fault)) === 0).toBe(
    fault === 'short',
  );
  expect(read(withFault(settledProbe(0.5), fault))).toBe(counts);
});

test('a wet plug reads wetter by nearly a third of the span; a stuck one does not follow; a ripple comes and goes', () => {
  const sound = read(settledProbe(0.5));
  // Span −1800, a leak of 0.3 of it.
  expect(read(withFault(settledProbe(0.5), 'wet connector')) - sound).toBe(-540);
  const stuck = withFault(settledProbe(0.5), 'stuck');
  expect(wait(stuck, 1, 600)).toEqual(stuck);
  const ripple = [0, 925, 1850, 2775].map(
    (ms) => readProbe(withFault(settledProbe(0.5), 'interference'), traits, NINE + ms, 1).counts,
  );
  // A quarter of 3.7 s apart: zero, up, zero, down by 63 counts.
  expect(Math.max(...ripple) - Math.min(...ripple)).toBeGreaterThan(100);
});
