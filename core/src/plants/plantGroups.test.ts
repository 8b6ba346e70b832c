import { expect, test } from 'vitest';
import { PLANT_GROUPS } from './plantGroups.ts';

/**
 * Depletion fraction p, least and largest root depth in m (FAO-56, table 22) and crop factor of the middle of the season (table 12), held a second time: a digit
 * that slips in one of the two lists is found here.
 */
const HELD: Readonly<Record<string, readonly [number, number, number, number]>> = {
  lettuce: [0.3, 0.3, 0.5, 1],
  spinach: [0.2, 0.3, 0.5, 1],
  cabbage: [0.45, 0.5, 0.8, 1.05],
  broccoli: [0.45, 0.4, 0.7, 1.05],
  carrot: [0.35, 0.5, 1, 1.05],
  celery: [0.2, 0.3, 0.5, 1.05],
  onion: [0.3, 0.3, 0.6, 1.05],
  radish: [0.3, 0.3, 0.5, 0.9],
  beetroot: [0.5, 0.6, 1, 1.05],
  parsnip: [0.4, 0.5, 1, 1.05],
  potato: [0.35, 0.4, 0.6, 1.15],
  tomato: [0.4, 0.7, 1.5, 1.15],
  pepper: [0.3, 0.5, 1, 1.05],
  aubergine: [0.45, 0.7, 1.2, 1.05],
  cucumber: [0.5, 0.7, 1.2, 1],
  courgette: [0.5, 0.6, 1, 0.95],
  squash: [0.35, 1, 1.5, 1],
  melon: [0.4, 0.8, 1.5, 1.05],
  bean: [0.45, 0.5, 0.7, 1.05],
  pea: [0.35, 0.6, 1, 1.15],
  maize: [0.5, 0.8, 1.2, 1.15],
  strawberry: [0.2, 0.2, 0.3, 0.85],
  mint: [0.4, 0.4, 0.8, 1.15],
  asparagus: [0.45, 1.2, 1.8, 0.95],
  berry: [0.5, 0.6, 1.2, 1.05],
  vine: [0.35, 1, 2, 0.85],
  apple: [0.5, 1, 2, 0.95],
  'stone-fruit': [0.5, 1, 2, 0.9],
  citrus: [0.5, 1.2, 1.5, 0.65],
  olive: [0.65, 1.2, 1.7, 0.7],
  'lawn-cool': [0.4, 0.5, 1, 0.95],
  'lawn-warm': [0.5, 0.5, 1, 0.85],
};

const ground = PLANT_GROUPS.filter((one) => one.where === 'ground');

test.each(ground)('$id stands as in the tables', ({ id, depletionFrac, rootM, cropFactor }) => {
  expect([depletionFrac, ...rootM, cropFactor]).toEqual(HELD[id]);
});

test.each(ground)('$id lies within what the tables span', ({ depletionFrac, rootM, cropFactor }) => {
  expect(depletionFrac).toBeGreaterThanOrEqual(0.15);
  expect(depletionFrac).toBeLessThanOrEqual(0.7);
  expect(rootM[0]).toBeLessThan(rootM[1]);
  expect(cropFactor).toBeGreaterThan(0.3);
  expect(cropFactor).toBeLessThanOrEqual(1.25);
});
