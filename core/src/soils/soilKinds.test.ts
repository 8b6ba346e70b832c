import { describe, expect, test } from 'vitest';
import { SOIL_KINDS } from './soilKinds.ts';

/** Wilting point, field capacity, saturation (% by volume) and bulk density, as printed: Saxton & Rawls 2006, table 3. Typed in a second time. */
const PRINTED: Readonly<Record<string, readonly [number, number, number, number]>> = {
  sand: [5, 10, 46, 1.43],
  'loamy-sand': [5, 12, 46, 1.43],
  'sandy-loam': [8, 18, 45, 1.46],
  loam: [14, 28, 46, 1.43],
  'silt-loam': [11, 31, 48, 1.38],
  silt: [6, 30, 48, 1.38],
  'sandy-clay-loam': [17, 27, 43, 1.5],
  'clay-loam': [22, 36, 48, 1.39],
  'silty-clay-loam': [22, 38, 51, 1.3],
  'sandy-clay': [25, 36, 44, 1.47],
  'silty-clay': [27, 41, 52, 1.26],
  clay: [30, 42, 50, 1.33],
};

describe('texture classes', () => {
  const textures = SOIL_KINDS.filter((one) => one.group === 'texture');
  test('are the twelve of the table', () => {
    expect(textures.map((one) => one.id).sort()).toEqual(Object.keys(PRINTED).sort());
  });
  test.each(textures)('$id holds what is printed, and its pores are what its density leaves', (one) => {
    const { wiltingVwc, capacityVwc, saturationVwc, bulkDensity } = one;
    expect([wiltingVwc, capacityVwc, saturationVwc, bulkDensity]).toEqual(PRINTED[one.id]);
    // Grains weigh 2.65 g/cm³.
    expect(Math.abs(100 * (1 - bulkDensity / 2.65) - saturationVwc)).toBeLessThan(1);
  });
});

test.each(SOIL_KINDS)('$id: wilting point below capacity below saturation', (one) => {
  expect(one.wiltingVwc).toBeLessThan(one.capacityVwc);
  expect(one.capacityVwc).toBeLessThan(one.saturationVwc);
});
