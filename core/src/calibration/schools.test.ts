/** Pot weighing, reference meter, bands by feel, factory curve, drain test, and turning one kind of percent into another. */
import { describe, expect, test } from 'vitest';
import type { BandName } from '../quantity/bands.ts';
import { assumedOf } from './assumptions.ts';
import { cutsByFeel, edgesByFeel } from './bandsByFeel.ts';
import { logUnder } from './compareVersions.ts';
import { convertPercent, wholeSigma, type SoilFacts } from './convertPercent.ts';
import { anotherTime, areClose } from './cutOffs.ts';
import { lineBetween } from './curveForTests.ts';
import { drainTest, type DrainPoint } from './drainTest.ts';
import { checkFactory } from './factoryCheck.ts';
import { inStep, percentOfMeter } from './meterPairs.ts';
import { percentOfPot, potKind, type PotInputs } from './potWeighing.ts';

describe('pot weighing', () => {
  const pot: PotInputs = {
    tareG: 400,
    plantG: 0,
    drySoilG: 3000,
    volumeMl: 3750,
    soakedG: null,
    driestG: null,
    scaleStepG: 5,
  };
  const percent = (inputs: PotInputs, weightG: number) => {
    const of = percentOfPot(inputs, weightG);
    if (!of.ok) throw new Error(of.issue.kind);
    return of.value;
  };
  test('4525 g are 1125 g of water: 30 % by volume of 3750 ml, 37.5 % by mass of 3 kg', () => {
    expect(potKind(pot)).toBe('volumetric');
    expect(percent(pot, 4525).percent).toBeCloseTo(30, 9);
    const byMass = { ...pot, volumeMl: null };
    expect(potKind(byMass)).toBe('gravimetric');
    expect(percent(byMass, 4525).percent).toBeCloseTo(37.5, 9);
  });
  test('without the dry soil, soaked and driest weight stand for 100 and 0 % available', () => {
    const available = { ...pot, drySoilG: null, soakedG: 4700, driestG: 3900 };
    expect(potKind(available)).toBe('available');
    expect(percent(available, 4100).percent).toBeCloseTo(25, 9);
  });
  test('a plant of 300 g is known to a fifth, and that is 1.6 % of the volume', () => {
    const known = percent({ ...pot, plantG: 300, scaleStepG: 0.01, volumeMl: 3750 }, 3700);
    expect(known.common[0]).toBeCloseTo(1.6, 2);
    // No water, so the volume does not matter.
    expect(known.common[1]).toBe(0);
  });
  test('a scale of 5 g rounds by 1.44 g: a pot lighter than dry by less than twice that is believed, by more it is told', () => {
    expect(percentOfPot(pot, 3400 - 2.8).ok).toBe(true);
    expect(percentOfPot(pot, 3400 - 3)).toMatchObject({ issue: { kind: 'lighter-than-dry' } });
  });
  test('soaked and driest weight must differ by more than four roundings; what they share runs from the one to the other', () => {
    const between = (soakedG: number) =>
      percentOfPot({ ...pot, drySoilG: null, soakedG, driestG: 3900 }, 3902);
    // 4 · 5 ÷ √12 = 5.77.
    expect(between(3905.7)).toMatchObject({ issue: { kind: 'no-water-between' } });
    expect(between(3905.9).ok).toBe(true);
    const quarter = percent({ ...pot, drySoilG: null, soakedG: 4700, driestG: 3900 }, 4100);
    const rounding = (100 * 5) / Math.sqrt(12) / 800;
    expect(quarter.common[0]).toBeCloseTo(0.25 * rounding, 9);
    expect(quarter.common[1]).toBeCloseTo(0.75 * rounding, 9);
  });
  test('weights that cannot be are told', () => {
    expect(percentOfPot(pot, 3200)).toMatchObject({ issue: { kind: 'lighter-than-dry', byG: 200 } });
    expect(percentOfPot({ ...pot, drySoilG: null }, 3200)).toMatchObject({
      issue: { kind: 'nothing-known' },
    });
    const flat = { ...pot, drySoilG: null, soakedG: 3900, driestG: 3900 };
    expect(percentOfPot(flat, 3900)).toMatchObject({ issue: { kind: 'no-water-between' } });
    expect(potKind({ ...pot, drySoilG: null })).toBeNull();
    // A volume of nothing is none.
    expect(potKind({ ...pot, volumeMl: 0 })).toBe('gravimetric');
    expect(potKind({ ...pot, volumeMl: null })).toBe('gravimetric');
  });
});

describe('a reference meter', () => {
  test('a dial from 1 to 10 has nine steps; five and a half is the middle', () => {
    expect(percentOfMeter('dial', 1, 2).percent).toBe(0);
    expect(percentOfMeter('dial', 5.5, 2).percent).toBeCloseTo(50, 9);
    expect(percentOfMeter('dial', 10, 2).percent).toBe(100);
    expect(percentOfMeter('percent', 42, 2).percent).toBe(42);
  });
  const days = (count: number, off: (at: number) => number = () => 0) =>
    Array.from({ length: count }, (_, at) => ({
      counts: 3000 - 100 * at + off(at),
      percent: 10 + at ** 1.5,
    }));
  test('five pairs in one order say little; a dozen say that the two are in step, with the sign', () => {
    expect(inStep(days(5))).toMatchObject({ verdict: 'cannot-tell', pairs: 5 });
    expect(inStep(days(12))).toMatchObject({ verdict: 'in-step', pairs: 12 });
    expect(inStep(days(12)).rank).toBeCloseTo(-1, 9);
    expect(inStep(days(12).map((pair) => ({ ...pair, counts: -pair.counts }))).rank).toBeCloseTo(1, 9);
  });
  test('the interval is Fisher’s with 1.06 ÷ √(n − 3), worked by hand', () => {
    // Ten ranks with the first two and the last two exchanged: Σd² = 4, ρ = 1 − 6 · 4 ÷ 990 = 0.97576 by size.
    const swapped = [1, 0, 2, 3, 4, 5, 6, 7, 9, 8].map((rank, at) => ({ counts: at, percent: rank }));
    const { rank, low, high } = inStep(swapped);
    expect(rank).toBeCloseTo(0.975_76, 4);
    // atanh 0.97576 = 2.2020; 1.96 · 1.06 ÷ √7 = 0.7853.
    expect(low).toBeCloseTo(Math.tanh(2.202 - 0.7853), 3);
    expect(high).toBeCloseTo(Math.tanh(2.202 + 0.7853), 3);
  });
  test('no order over many pairs is no calibration; over six it cannot be told; four say nothing', () => {
    const scattered = (count: number) =>
      Array.from({ length: count }, (_, at) => ({ counts: 3000 - 50 * at, percent: (at * 37) % 101 }));
    expect(inStep(scattered(40)).verdict).toBe('not-in-step');
    expect(inStep(scattered(6)).verdict).toBe('cannot-tell');
    expect(inStep(scattered(4)).verdict).toBe('too-few');
    expect(inStep(scattered(8).map((pair) => ({ ...pair, percent: 5 }))).verdict).toBe('too-few');
  });
  test('an order with much scatter over many pairs is loosely in step', () => {
    const loose = days(30, (at) => 900 * Math.sin(at * 7.3));
    expect(inStep(loose).verdict).toBe('loosely');
  });
});

describe('bands by feel', () => {
  const felt = (counts: number, as: BandName) => ({ counts, felt: as });
  test('a cut lies in the middle of the gap between two feelings', () => {
    const found = [felt(2800, 'dry'), felt(2600, 'dry'), felt(2200, 'right'), felt(1800, 'right')];
    expect(cutsByFeel(found, 'falling')).toEqual({ cuts: [null, 2400, null, null], astray: 0 });
  });
  test('where several cuts do equally well it is the middle of them', () => {
    // Any cut between 2800 and 2000 leaves one finding on the wrong side: 2650, 2350 and 2100 are tried.
    const found = [felt(2800, 'low'), felt(2500, 'right'), felt(2200, 'low'), felt(2000, 'right')];
    const { cuts, astray } = cutsByFeel(found, 'falling');
    expect([cuts[1], astray]).toEqual([(2650 + 2100) / 2, 1]);
  });
  test('one finding astray does not move the cut, and is counted', () => {
    const found = [
      felt(2800, 'low'),
      felt(2700, 'low'),
      felt(2100, 'low'),
      felt(2300, 'right'),
      felt(2200, 'right'),
      felt(1900, 'right'),
      felt(1800, 'right'),
    ];
    expect(cutsByFeel(found, 'falling')).toEqual({ cuts: [null, 2500, null, null], astray: 1 });
  });
  test('a rising probe is cut the same way', () => {
    expect(cutsByFeel([felt(200, 'dry'), felt(400, 'low')], 'rising').cuts[0]).toBe(300);
  });
  test('edges that were never felt stay, and all keep their distance', () => {
    const tenthsAt = (counts: number) => (3000 - counts) / 2;
    expect(edgesByFeel([null, 2400, null, null], tenthsAt, [200, 350, 700, 850])).toEqual([
      200, 300, 700, 850,
    ]);
    expect(edgesByFeel([2700, 2700, null, 0], tenthsAt, [200, 350, 700, 850])).toEqual([150, 160, 700, 990]);
  });
});

describe('a factory curve', () => {
  const point = (says: number, known: number) => ({
    says: { percent: says, sigmaPercent: 1 },
    known: { percent: known, sigmaPercent: 1 },
  });
  test('within chance it is kept', () => {
    expect(checkFactory([point(22, 20), point(39, 40)])).toMatchObject({
      verdict: 'agrees',
      gain: 1,
      offset: 0,
    });
  });
  test('evenly off it is moved; a single point can only move it', () => {
    expect(checkFactory([point(27, 20), point(47, 40)])).toMatchObject({ verdict: 'offset', offset: -7 });
    expect(checkFactory([point(27, 20)])).toMatchObject({ verdict: 'offset', offset: -7 });
  });
  test('unevenly off it is turned: 10 to 10 and 50 to 40 is three quarters and 2.5', () => {
    const check = checkFactory([point(10, 10), point(50, 40)]);
    expect(check.verdict).toBe('gain');
    expect(check.gain).toBeCloseTo(0.75, 9);
    expect(check.offset).toBeCloseTo(2.5, 9);
  });
});

describe('a drain test', () => {
  const HOUR = 3_600_000;
  /** Dry at 2500, soaked to 1500 at hour 2, draining to 1700 with eight hours, then drying by 2 counts an hour. */
  const series = (hours: number): DrainPoint[] =>
    Array.from({ length: hours * 4 + 1 }, (_, at) => {
      const hour = at / 4;
      const since = hour - 2;
      const counts = since < 0 ? 2500 : 1700 - 200 * Math.exp(-since / 3) + 2 * since;
      return { timeMs: hour * HOUR, counts };
    });
  test('a day after soaking it reads the capacity', () => {
    const drain = drainTest(series(40), 'falling', 1800);
    if (drain.kind !== 'capacity') throw new Error(drain.kind);
    // Between 20 and 28 hours after: 1700 + 2 · 24, within ± 8.
    expect(Math.abs(drain.counts - 1748)).toBeLessThan(6);
    expect(drain.sigmaCounts).toBeCloseTo(8, 0);
    expect(drain.readings).toBe(33);
    expect(Math.abs(drain.soakedAtMs / HOUR - 2)).toBeLessThan(1.1);
  });
  test('before that it is still draining, and says for how long', () => {
    const drain = drainTest(series(8), 'falling', 1800);
    if (drain.kind !== 'draining') throw new Error(drain.kind);
    expect(drain.countsPerHour).toBeGreaterThan(5);
    expect(drain.leftS / 3600).toBeGreaterThan(14);
  });
  test('without a soaking there is nothing to test, and a rising probe is soaked upward', () => {
    const dry = series(40).map((point) => ({ ...point, counts: 2500 }));
    expect(drainTest(dry, 'falling', 1800)).toEqual({ kind: 'no-soak' });
    const rising = series(40).map((point) => ({ ...point, counts: 4000 - point.counts }));
    expect(drainTest(rising, 'rising', 1800).kind).toBe('capacity');
    expect(drainTest(series(40), 'rising', 1800).kind).not.toBe('capacity');
    expect(drainTest([], 'falling', 1800)).toEqual({ kind: 'no-soak' });
  });
});

describe('kinds of percent', () => {
  const soil: SoilFacts = { bulkDensity: 1.25, capacityVwc: 32, wiltingVwc: 12 };
  const turn = (
    percent: number,
    from: Parameters<typeof convertPercent>[1],
    to: Parameters<typeof convertPercent>[2],
    of: SoilFacts = soil,
  ) => {
    const value = convertPercent({ percent, sigmaPercent: 1, common: [] }, from, to, of);
    if (!value.ok) throw new Error(value.issue.kind);
    return value.value;
  };
  test('20 % by mass at 1.25 g/cm³ are 25 % by volume, and that is 65 % available between 12 and 32', () => {
    expect(turn(20, 'gravimetric', 'volumetric').percent).toBeCloseTo(25, 9);
    expect(turn(25, 'volumetric', 'gravimetric').percent).toBeCloseTo(20, 9);
    expect(turn(20, 'gravimetric', 'available').percent).toBeCloseTo(65, 9);
    expect(turn(65, 'available', 'volumetric').percent).toBeCloseTo(25, 9);
  });
  test('what the soil may be off by is carried: √(1.25² + 1.25²) by mass to volume', () => {
    expect(wholeSigma(turn(20, 'gravimetric', 'volumetric'))).toBeCloseTo(Math.hypot(1.25, 1.25), 9);
    // 5 % per % VWC: the value 1, capacity 0.65 · 1, wilting 0.35 · 1.
    expect(wholeSigma(turn(25, 'volumetric', 'available'))).toBeCloseTo(5 * Math.hypot(1, 0.65, 0.35), 9);
  });
  test('available to volumetric: a quarter of the way from 12 to 32 is off by a quarter of what capacity may be off by, and by the rest of wilting', () => {
    const volumetric = turn(25, 'available', 'volumetric');
    expect(volumetric.percent).toBeCloseTo(17, 9);
    expect(volumetric.sigmaPercent).toBeCloseTo(0.2, 9);
    expect(volumetric.common).toEqual([0.25, 0.75]);
  });
  test('the same kind stays untouched', () => {
    expect(turn(31, 'span', 'span')).toEqual({ percent: 31, sigmaPercent: 1, common: [] });
  });
  test('span and factory percent cannot be turned, nor anything without what it takes', () => {
    const of = (
      from: Parameters<typeof convertPercent>[1],
      to: Parameters<typeof convertPercent>[2],
      facts: SoilFacts,
    ) => convertPercent({ percent: 20, sigmaPercent: 1, common: [] }, from, to, facts);
    expect(of('span', 'volumetric', soil)).toMatchObject({ issue: { kind: 'relative-only' } });
    expect(of('volumetric', 'factory', soil)).toMatchObject({ issue: { kind: 'relative-only' } });
    expect(of('gravimetric', 'available', { ...soil, bulkDensity: null })).toMatchObject({
      issue: { kind: 'unknown', needs: ['bulkDensity'] },
    });
    expect(of('volumetric', 'available', { ...soil, wiltingVwc: null })).toMatchObject({
      issue: { kind: 'unknown', needs: ['wiltingVwc'] },
    });
    expect(of('volumetric', 'available', { ...soil, wiltingVwc: 32 })).toMatchObject({
      issue: { kind: 'no-range' },
    });
  });
});

describe('a past log under another version', () => {
  const hours = [0, 1, 2, 10].map((hour) => hour * 3_600_000);
  test('lowest, mean, highest, last, and the time below the start limit; a long silence counts for nothing', () => {
    const under = logUnder(hours, [2600, 2200, 2000, 2400], lineBetween(3000, 1000), 40.1);
    // 20, 40, 50 and 30 %: below 40.1 for the first two hours; the eight hours of silence say nothing.
    expect(under).toEqual({ lowest: 20, mean: 35, highest: 50, last: 30, belowS: 7200 });
  });
  test('without a limit nothing is below it, and no reading says nothing', () => {
    expect(logUnder(hours, [2600, 2200], lineBetween(3000, 1000), null)?.belowS).toBe(0);
    expect(logUnder([], [], lineBetween(3000, 1000), 40)).toBeNull();
  });
});

test('raw cut-offs: what the same soil may read another time, by hand', () => {
  // Twice √(0.5² + (0.17 × 5)²) = 0.986 % of 1 802 counts.
  expect(anotherTime(assumedOf({}), 1802)).toBeCloseTo(35.5, 1);
  // Each of two readings may be off by that: 71 counts.
  expect([areClose(2470, 2400, 35.5), areClose(2472, 2400, 35.5)]).toEqual([true, false]);
});
