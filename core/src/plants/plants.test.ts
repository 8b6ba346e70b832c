import { describe, expect, test } from 'vitest';
import { makeCurve } from '../calibration/curve.ts';
import { knownSoil, SOIL_KINDS, soilKind } from '../soils/soilKinds.ts';
import { PLANT_GROUPS, plantGroup } from './plantGroups.ts';
import { suggestLimits } from './suggestLimits.ts';
import { demandMm, readilyAvailable, waterNeed } from './waterNeed.ts';
import { WEATHER_IDS } from './weather.ts';

const nothing = { bulkDensity: null, capacityVwc: null, wiltingVwc: null };

describe('the tables', () => {
  test('two dozen groups of the ground and the pots, each with its basis', () => {
    expect(PLANT_GROUPS.filter((one) => one.where === 'ground').length).toBeGreaterThanOrEqual(24);
    expect(new Set(PLANT_GROUPS.map((one) => one.id)).size).toBe(PLANT_GROUPS.length);
    for (const one of PLANT_GROUPS) {
      expect(one.depletionFrac).toBeGreaterThanOrEqual(0.1);
      expect(one.depletionFrac).toBeLessThanOrEqual(0.8);
      expect(one.rootM[0]).toBeLessThan(one.rootM[1]);
      expect(one.basis).toMatch(one.where === 'ground' ? /FAO-56/ : /^Rule of thumb/);
    }
  });
  // FAO-56, table 22, read again line by line.
  test.each([
    ['lettuce', 0.3, 0.5],
    ['spinach', 0.2, 0.5],
    ['tomato', 0.4, 1.5],
    ['pepper', 0.3, 1],
    ['potato', 0.35, 0.6],
    ['strawberry', 0.2, 0.3],
    ['mint', 0.4, 0.8],
    ['olive', 0.65, 1.7],
    ['lawn-cool', 0.4, 1],
  ])('%s: p %d, roots to %d m', (id, p, deepest) => {
    expect(plantGroup(id)).toMatchObject({ depletionFrac: p, rootM: [expect.any(Number), deepest] });
  });
  test('twelve textures and six mixes; each wilts below its capacity and holds more when soaked', () => {
    expect(SOIL_KINDS.filter((one) => one.group === 'texture')).toHaveLength(12);
    expect(SOIL_KINDS.filter((one) => one.group === 'mix')).toHaveLength(6);
    for (const one of SOIL_KINDS) {
      expect(one.wiltingVwc).toBeLessThan(one.capacityVwc);
      expect(one.capacityVwc).toBeLessThan(one.saturationVwc);
      // Solids and water fill no more than the whole; organic matter weighs about 1.5 g/cm³, minerals 2.65.
      const solids = (100 * one.bulkDensity) / (one.group === 'mix' && one.bulkDensity < 0.5 ? 1.5 : 2.65);
      expect(one.saturationVwc + solids).toBeLessThanOrEqual(101);
    }
  });
  test('FAO-56, table 19 gives ranges for the same classes: the values lie in them, give or take three percent', () => {
    const ranges: Record<string, readonly [number, number, number, number]> = {
      sand: [7, 17, 2, 7],
      'loamy-sand': [11, 19, 3, 10],
      'sandy-loam': [18, 28, 6, 16],
      loam: [20, 30, 7, 17],
      'silt-loam': [22, 36, 9, 21],
      'silty-clay-loam': [30, 37, 17, 24],
      'silty-clay': [30, 42, 17, 29],
    };
    for (const [id, [fcLow, fcHigh, wpLow, wpHigh]] of Object.entries(ranges)) {
      const kind = soilKind(id);
      expect(kind?.capacityVwc).toBeGreaterThanOrEqual(fcLow - 3);
      expect(kind?.capacityVwc).toBeLessThanOrEqual(fcHigh + 3);
      expect(kind?.wiltingVwc).toBeGreaterThanOrEqual(wpLow - 3);
      expect(kind?.wiltingVwc).toBeLessThanOrEqual(wpHigh + 3);
    }
  });
  test('what lives on a windowsill: two dozen more, each with what it wants; bog plants want wet feet and rain water', () => {
    const pots = PLANT_GROUPS.filter((one) => one.where === 'pot');
    expect(pots.length).toBeGreaterThanOrEqual(10 + 24);
    expect(plantGroup('bog')).toMatchObject({ water: 'rain', wetFeet: true });
    expect(plantGroup('tomato')).toMatchObject({ water: 'any', wetFeet: false, note: '' });
  });
  test('own facts come before the table, and never half of each', () => {
    const own = { bulkDensity: 0.3, capacityVwc: 50, wiltingVwc: 20 };
    expect(knownSoil(own, 'loam')).toMatchObject({ ...own, from: 'own' });
    expect(knownSoil({ ...own, wiltingVwc: null }, 'loam')).toMatchObject({
      bulkDensity: 0.3,
      capacityVwc: 28,
      wiltingVwc: 14,
      from: 'table',
    });
    expect(knownSoil(nothing, '')).toMatchObject({ capacityVwc: null, from: 'none' });
  });
});

describe('suggested limits', () => {
  const suggest = (change: Partial<Parameters<typeof suggestLimits>[0]>) =>
    suggestLimits({
      plant: plantGroup('pepper'),
      soil: knownSoil(nothing, 'loam'),
      kind: 'available',
      span: { kind: 'nothing' },
      etMmPerDay: 5,
      curve: null,
      ...change,
    });
  const of = (change: Partial<Parameters<typeof suggestLimits>[0]>) => {
    const given = suggest(change);
    if (given.kind === 'none') throw new Error(given.why);
    return given;
  };
  test('chillies at 5 mm a day may use 0.30: start at 70 % of the available water', () => {
    expect(of({})).toMatchObject({ startTenths: 700, stopTenths: 900, unknown: [], rough: null });
  });
  test('a smaller demand lets more go: at 3 mm a day 0.38; and it stays within 0.1 and 0.8', () => {
    expect(of({ etMmPerDay: 3 }).startTenths).toBe(620);
    expect(of({ plant: plantGroup('pot-succulent'), etMmPerDay: 1 }).startTenths).toBe(200);
    // A tenth may go: start at 90; a third of that tenth is left, stop at 96.7.
    expect(of({ etMmPerDay: 12 })).toMatchObject({ startTenths: 900, stopTenths: 967 });
  });
  test('in loam, by volume: 14 + 0.7 · 14 = 23.8 % VWC to start, 26.6 to stop; by mass over 1.43', () => {
    expect(of({ kind: 'volumetric' })).toMatchObject({ startTenths: 238, stopTenths: 266 });
    // 23.8 ÷ 1.43 = 16.6; 26.6 ÷ 1.43 = 18.6.
    expect(of({ kind: 'gravimetric' })).toMatchObject({ startTenths: 166, stopTenths: 186 });
  });
  test('span between the own dry and soaked soil: of 28 % drained loam wilts at half, which the most bent probe reads as 63.9', () => {
    // (7 · ½ − 2.5 · ¼) ÷ 4.5 = 0.6389; + 0.7 and 0.9 · 36.1.
    const given = of({ kind: 'span', span: { kind: 'dry-drained' } });
    expect(given).toMatchObject({ startTenths: 892, stopTenths: 964, unknown: [] });
    // Straight: (0.8917 − ½) ÷ ½ = 78 %. Bent: 2.5x² − 7x + 4.0125 = 0, x = 0.804, 61 %. For the stop 93 and 85.
    expect(given.rough).toEqual({ start: [61, 78], stop: [85, 93] });
  });
  test('whatever the bend, such a start lies above wilting, and such a stop below the soaked end', () => {
    for (const soil of SOIL_KINDS)
      for (const plant of PLANT_GROUPS) {
        const given = suggest({
          kind: 'span',
          span: { kind: 'dry-drained' },
          soil: knownSoil(nothing, soil.id),
          plant,
        });
        if (given.kind === 'none') continue;
        expect(given.rough?.start[0]).toBeGreaterThanOrEqual(0);
        expect(given.rough?.stop[1]).toBeLessThanOrEqual(100);
      }
  });
  test('“just right” lies between the limits: start a fifth below it, stop a fifth of the rest above', () => {
    const span = { kind: 'felt', rightPercent: 50 } as const;
    expect(of({ kind: 'span', span })).toMatchObject({ startTenths: 400, stopTenths: 600, unknown: [] });
    expect(of({ kind: 'span', span: { ...span, rightPercent: 70 } })).toMatchObject({
      startTenths: 560,
      stopTenths: 760,
    });
  });
  test('span between air and water says nothing about soil: a cautious default that says so', () => {
    const given = of({ kind: 'span' });
    expect(given).toMatchObject({ startTenths: 400, stopTenths: 600, unknown: ['percent'] });
    expect(given.start.source).toMatch(/cautious default/);
    expect(of({ kind: 'factory' }).unknown).toEqual(['percent']);
    expect(of({ kind: 'span', span: { kind: 'dry-drained' }, soil: knownSoil(nothing, '') }).unknown).toEqual(
      ['percent'],
    );
  });
  test('by volume or mass an unknown soil has no default: what is wet in sand is dry in peat', () => {
    const bare = knownSoil(nothing, '');
    expect(suggest({ kind: 'volumetric', soil: bare })).toEqual({
      kind: 'none',
      why: 'soil',
      lacks: 'holds',
    });
    const noDensity = { ...knownSoil(nothing, 'loam'), bulkDensity: null };
    expect(suggest({ kind: 'gravimetric', soil: noDensity })).toEqual({
      kind: 'none',
      why: 'soil',
      lacks: 'density',
    });
    expect(of({ plant: null })).toMatchObject({ startTenths: 700, unknown: ['plant'] });
  });
  test('what lies beyond the calibration is not suggested', () => {
    // 2000 counts at 5 %, 1000 at 24.5 %: 26.6 cannot be read.
    const line = {
      kind: 'line',
      origin: 1000,
      unit: 1000,
      weights: [24.5, -19.5],
      temperature: null,
    } as const;
    const curve = makeCurve(line, 'volumetric', [1000, 2000], 4);
    if (!curve.ok) throw new Error('no curve');
    expect(suggest({ kind: 'volumetric', curve: curve.value })).toEqual({
      kind: 'none',
      why: 'curve',
      percent: 26.6,
      curveEnds: [5, 24.5],
    });
  });
  test('every plant in every soil, kind and weather: start below stop and within what the soil gives, or the true reason why not', () => {
    const kinds = ['available', 'volumetric', 'gravimetric', 'span', 'factory'] as const;
    const told = { limits: 0, narrow: 0, other: 0 };
    for (const plant of [null, ...PLANT_GROUPS])
      for (const soil of SOIL_KINDS)
        for (const kind of kinds)
          for (const etMmPerDay of [1, 3.5, 8])
            for (const span of [{ kind: 'nothing' }, { kind: 'dry-drained' }] as const) {
              const known = knownSoil(nothing, soil.id);
              const given = suggest({ plant, soil: known, kind, span, etMmPerDay });
              const per = kind === 'gravimetric' ? soil.bulkDensity : 1;
              if (given.kind === 'none') {
                told[given.why === 'narrow' ? 'narrow' : 'other'] += 1;
                // True: a third to nine tenths of what may go, of the little that such a soil holds, is under one percent.
                if (given.why === 'narrow') expect(given.stopPercent - given.startPercent).toBeLessThan(1);
                continue;
              }
              told.limits += 1;
              expect(given.stopTenths - given.startTenths).toBeGreaterThanOrEqual(10);
              if (kind !== 'volumetric' && kind !== 'gravimetric') continue;
              expect(given.startTenths / 10).toBeGreaterThanOrEqual(soil.wiltingVwc / per - 0.05);
              expect(given.stopTenths / 10).toBeLessThanOrEqual(soil.capacityVwc / per + 0.05);
            }
    expect(told.other).toBe(0);
    expect(told.limits).toBeGreaterThan(10 * told.narrow);
  });
  test('the last step is what the board compares, the answer stays in percent', () => {
    // 3000 counts at 0 %, 1000 at 100 %: 23.8 % are 2524 counts.
    const line = { kind: 'line', origin: 1000, unit: 2000, weights: [100, -100], temperature: null } as const;
    const curve = makeCurve(line, 'volumetric', [1000, 3000], 4);
    if (!curve.ok) throw new Error('no curve');
    const given = of({ kind: 'volumetric', curve: curve.value });
    expect(given.start.steps.at(-1)).toMatchObject({ unit: 'counts', value: 2524 });
    expect(given.startTenths).toBe(238);
    expect(given.start.unit).toBe('% VWC');
  });
});

describe('water need', () => {
  test('a crate of half a square metre of chillies in mild weather: 3.5 · 1.05 · 0.5 = 1.84 litres', () => {
    const need = waterNeed({ kind: 'bed', areaM2: 0.5 }, plantGroup('pepper'), 'mild');
    expect(need.value).toBeCloseTo(1837.5, 6);
    expect(need.unit).toBe('ml/day');
  });
  test('a pot counts with the wider of mouth and leaves', () => {
    const across = (mouthCm: number, spreadCm: number) =>
      waterNeed({ kind: 'pot', mouthCm, spreadCm }, null, 'warm').value;
    // π ÷ 4 · 0.2² · 5 mm = 157 ml.
    expect(across(20, 10)).toBeCloseTo(157.08, 1);
    expect(across(10, 20)).toBeCloseTo(157.08, 1);
  });
  test('every weather has a demand, the hotter the greater', () => {
    const demands = WEATHER_IDS.slice(2).map((id) => demandMm(null, id));
    expect([...demands].sort((a, b) => a - b)).toEqual(demands);
    expect(demandMm(plantGroup('tomato'), 'warm')).toBeCloseTo(5.75, 9);
  });
});

describe('from the start limit to full', () => {
  const bed = { kind: 'bed', areaM2: 2 } as const;
  test('potatoes in loam: 0.35 · 14 % of 0.4 m are 19.6 mm, 39.2 litres on two square metres', () => {
    const given = readilyAvailable(bed, plantGroup('potato'), knownSoil(nothing, 'loam'));
    expect(given?.steps[0]?.value).toBeCloseTo(19.6, 9);
    expect(given).toMatchObject({ unit: 'ml' });
    expect(given?.value).toBeCloseTo(39_200, 6);
  });
  test('a plant that nobody named: 0.3 of 14 % over 0.3 m are 12.6 mm', () => {
    expect(readilyAvailable(bed, null, knownSoil(nothing, 'loam'))?.steps[0]?.value).toBeCloseTo(12.6, 9);
  });
  test('not in a pot, and not in a soil that nobody knows', () => {
    expect(
      readilyAvailable({ kind: 'pot', mouthCm: 20, spreadCm: 20 }, null, knownSoil(nothing, 'loam')),
    ).toBeNull();
    expect(readilyAvailable(bed, null, knownSoil(nothing, ''))).toBeNull();
  });
});
