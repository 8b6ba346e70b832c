import { describe, expect, test } from 'vitest';
import { readable } from '../quantity/workedForTests.ts';
import { student975 } from '../quantity/student.ts';
import {
  fitDose,
  isBeyondTrials,
  isFarBeyondTrials,
  runTimeFor,
  smallestDose,
  suspectTrial,
  unevenOf,
  volumeOf,
  type DoseFit,
  type Trial,
} from './doseFit.ts';
import { workRunTime, workVolume } from './workDose.ts';
import { evennessOf, rainOf } from './outlets.ts';
import { workDaysLeft, workEvenness, workRain, workVolumeIn } from './workWater.ts';
import { daysLeft, rawAtVolume, reservoirOf, volumeIn } from './reservoir.ts';

const fitted = (trials: readonly Trial[]): DoseFit => {
  const fit = fitDose(trials);
  if (!fit.ok) throw new Error(fit.issue.kind);
  return fit.value;
};
const trial = (runS: number, volumeMl: number): Trial => ({ runS, volumeMl });

describe('Student’s t', () => {
  test.each([
    [1, 12.706],
    [4, 2.776],
    [10, 2.228],
    [30, 2.042],
  ])('%d degrees of freedom: %d', (free, t) => expect(student975(free)).toBe(t));
  test('sixty degrees are 2.000 in the tables, very many 1.960, none none', () => {
    expect(student975(60)).toBeCloseTo(2.0, 2);
    expect(student975(1e6)).toBeCloseTo(1.96, 3);
    expect(student975(0)).toBe(Infinity);
  });
});

describe('what a pump gives', () => {
  // Ten ml a second after two seconds for the tube: 5 s give 30, 10 s 80, 20 s 180.
  const exact = [trial(5, 30), trial(10, 80), trial(20, 180)];
  test('factor and tube constant come out of trials on a line', () => {
    const fit = fitted(exact);
    expect(fit.secondsPerMl).toBeCloseTo(0.1, 9);
    expect(fit.tubeS).toBeCloseTo(2, 9);
    expect(runTimeFor(fit, 100)).toBeCloseTo(12, 9);
    expect(volumeOf(fit, 12).volumeMl).toBeCloseTo(100, 9);
    expect(volumeOf(fit, 1).volumeMl).toBe(0);
  });
  test('the line, worked by hand where the jug is all that rounds: a coarse one weighs all trials alike', () => {
    // Times 5, 10, 15, 20 give 28, 82, 128, 182: mean 12.5 and 105, Σtt = 125, Σtv = 1270, so 10.16 ml/s and −22 at zero.
    const fit = fitDose([trial(5, 28), trial(10, 82), trial(15, 128), trial(20, 182)], 1000);
    if (!fit.ok) throw new Error(fit.issue.kind);
    expect(1 / fit.value.secondsPerMl).toBeCloseTo(10.16, 2);
    expect(fit.value.tubeS).toBeCloseTo(22 / 10.16, 2);
  });
  test('with very many trials the interval is that of the pump’s own spread: twice 2 % of 200 ml', () => {
    // Forty runs each of 100, 200 and 300 ml, half of them 2 % above and half below, on a scale.
    const many = [100, 200, 300].flatMap((ml) =>
      Array.from({ length: 40 }, (_, at) => trial(2 + ml / 10, ml * (at % 2 === 0 ? 1.02 : 0.98))),
    );
    const fit = fitDose(many, 0);
    if (!fit.ok) throw new Error(fit.issue.kind);
    expect(unevenOf(fit.value)).toBeCloseTo(0.02, 2);
    // 1.96 · 4 = 7.8, and a little for the line.
    expect(volumeOf(fit.value, 22).plusMinusMl).toBeGreaterThan(7.4);
    expect(volumeOf(fit.value, 22).plusMinusMl).toBeLessThan(8.6);
    // It grows with the volume.
    expect(volumeOf(fit.value, 32).plusMinusMl).toBeGreaterThan(1.4 * volumeOf(fit.value, 22).plusMinusMl);
  });
  test('three trials that happen to lie on a line are not believed to be exact, and a coarser jug less so', () => {
    const widths = [1, 10, 50].map((step) => {
      const fit = fitDose(exact, step);
      return fit.ok ? volumeOf(fit.value, 12).plusMinusMl : 0;
    });
    expect(widths[0]).toBeGreaterThan(1);
    expect([...widths].sort((a, b) => a - b)).toEqual(widths);
  });
  test('too few, no flow and nonsense are told', () => {
    expect(fitDose([trial(5, 30), trial(10, 80)])).toMatchObject({ issue: { kind: 'too-few', runTimes: 2 } });
    expect(fitDose([trial(5, 30), trial(5, 31), trial(10, 80)])).toMatchObject({
      issue: { kind: 'too-few', trials: 3, runTimes: 2 },
    });
    expect(fitDose([trial(5, 30), trial(10, 30), trial(20, 30)])).toMatchObject({
      issue: { kind: 'no-flow' },
    });
    expect(fitDose([trial(5, 30), trial(10, 80), trial(0, 3)])).toMatchObject({
      issue: { kind: 'not-positive' },
    });
    for (const odd of [trial(20, Number.NaN), trial(20, Infinity), trial(Infinity, 90), trial(20, -1)])
      expect(fitDose([trial(5, 30), trial(10, 80), odd])).toMatchObject({ issue: { kind: 'not-positive' } });
    // A pump that gave nothing yet is a trial like any other.
    expect(fitDose([trial(1, 0), trial(10, 80), trial(20, 180)]).ok).toBe(true);
  });
  test('a pump too uneven for any dose has no smallest one', () => {
    const wild = fitted([trial(1, 0), trial(2, 9000), trial(3, 100), trial(4, 14_000)]);
    expect(smallestDose(wild)).toBeNull();
  });
  test('beyond what was tried the line is only hoped to go on', () => {
    const fit = fitted(exact);
    // Tried from 5 to 20 s: hoped for below 4 and above 25.
    const hoped = [3.9, 4, 5, 24, 25, 25.1].map((runS) => isBeyondTrials(fit, runS));
    expect(hoped).toEqual([true, false, false, false, false, true]);
    // Below half of the shortest and above twice the longest nothing is said.
    expect([2.4, 2.5, 40, 41].map((runS) => isFarBeyondTrials(fit, runS))).toEqual([
      true,
      false,
      false,
      true,
    ]);
  });
  test('the trial that does not go with the others is named, with how far it is off', () => {
    const trials = [trial(5, 31), trial(8, 59), trial(10, 81), trial(15, 129), trial(20, 181), trial(12, 60)];
    const suspect = suspectTrial(trials);
    expect(suspect?.at).toBe(5);
    // The others say about 100 ml for 12 s.
    expect(suspect?.offMl).toBeCloseTo(-40, 0);
    expect(suspectTrial(trials.slice(0, 5))).toBeNull();
    expect(suspectTrial(exact)).toBeNull();
    // Five ml at the long end are no more than such pumps do.
    const fair = [trial(5, 31), trial(10, 76), trial(20, 166), trial(5, 30), trial(10, 77), trial(20, 161)];
    expect(suspectTrial(fair)).toBeNull();
  });
});

describe('evenness', () => {
  test('four outlets: the driest gives 60 where the mean is 100', () => {
    const even = evennessOf([60, 100, 110, 130]);
    expect(even).toMatchObject({ meanMl: 100, lowQuarterPercent: 60, sharesPercent: [15, 25, 27.5, 32.5] });
    // 1 − (40 + 0 + 10 + 30) ÷ 400.
    expect(even?.coefficientPercent).toBeCloseTo(80, 9);
  });
  test('of eight cups the driest two count; nothing caught has no evenness', () => {
    expect(evennessOf([10, 20, 30, 30, 30, 30, 40, 50])?.lowQuarterPercent).toBeCloseTo(50, 9);
    // In whatever order they stand.
    expect(evennessOf([40, 30, 10, 30, 50, 20, 30, 30])?.lowQuarterPercent).toBeCloseTo(50, 9);
    expect(evennessOf([110, 60, 130, 100])?.lowQuarterPercent).toBe(60);
    // A cup that stayed dry counts; one below nothing is no cup.
    expect(evennessOf([0, 50, 50, 100])?.lowQuarterPercent).toBe(0);
    expect(evennessOf([-5, 50, 60])).toBeNull();
    expect(evennessOf([])).toBeNull();
    expect(evennessOf([0, 0])).toBeNull();
    expect(evennessOf([5, Number.NaN])).toBeNull();
  });
  test('40 ml in a cup of 80 cm² within ten minutes is half a millimetre a minute', () => {
    expect(rainOf(40, 80, 10)).toBeCloseTo(0.5, 9);
  });
});

describe('a reservoir', () => {
  const levels = [
    { raw: 400, volumeMl: 0 },
    { raw: 200, volumeMl: 9000 },
    { raw: 50, volumeMl: 20_000 },
  ];
  test('reads its levels, and between them never turns back', () => {
    const tank = reservoirOf(levels);
    if (!tank.ok) throw new Error(tank.issue.kind);
    expect(tank.value.fullMl).toBe(20_000);
    for (const level of levels) expect(volumeIn(tank.value, level.raw)).toBeCloseTo(level.volumeMl, 6);
    let before = Infinity;
    for (let raw = 50; raw <= 400; raw += 5) {
      const now = volumeIn(tank.value, raw);
      expect(now).toBeLessThan(before);
      before = now;
    }
    // Beyond full and empty it stays there.
    expect(volumeIn(tank.value, 20)).toBeCloseTo(20_000, 6);
    expect(volumeIn(tank.value, 500)).toBeCloseTo(0, 6);
  });
  test.each([
    ['a distance from the lid', levels],
    ['counts that rise with the water', levels.map(({ raw, volumeMl }) => ({ raw: 500 - raw, volumeMl }))],
  ])('%s: the raw value at a volume is the way back', (_, of) => {
    const tank = reservoirOf(of);
    if (!tank.ok) throw new Error(tank.issue.kind);
    for (const volumeMl of [500, 4000, 9000, 15_000, 19_500])
      expect(volumeIn(tank.value, rawAtVolume(tank.value, volumeMl))).toBeCloseTo(volumeMl, 3);
    for (const level of of) expect(rawAtVolume(tank.value, level.volumeMl)).toBeCloseTo(level.raw, 3);
  });
  test('levels that contradict each other are told', () => {
    expect(reservoirOf([{ raw: 1, volumeMl: 1 }])).toMatchObject({ issue: { kind: 'too-few' } });
    expect(reservoirOf([...levels, { raw: 200, volumeMl: 1 }])).toMatchObject({
      issue: { kind: 'same-raw', raw: 200 },
    });
    // Turning back, and standing still while the raw value goes on, either way round.
    for (const volumeMl of [8000, 20_000])
      for (const flip of [1, -1])
        expect(
          reservoirOf([...levels, { raw: 20, volumeMl }].map((one) => ({ ...one, raw: flip * one.raw }))),
        ).toMatchObject({ issue: { kind: 'not-monotone' } });
  });
  test('days left count what lies above the minimum', () => {
    expect(daysLeft(12_000, 2000, 500)).toBe(20);
    expect(daysLeft(1000, 2000, 500)).toBe(0);
    expect(daysLeft(12_000, 2000, 0)).toBeNull();
  });
});

describe('workings', () => {
  const fit = fitted([trial(5, 30), trial(10, 80), trial(20, 180)]);
  test('100 ml take 100 · 0.1 + 2 = 12 s, and 12 s give 100 ml', () => {
    expect(workRunTime(fit, 100)).toMatchObject({ unit: 's', title: 'Run time for 100 ml' });
    expect(workRunTime(fit, 100).value).toBeCloseTo(12, 9);
    expect(workVolume(fit, 12).value).toBeCloseTo(100, 9);
    expect(workVolume(fit, 1).value).toBe(0);
  });
  test('say what they reckon with', () => {
    expect(readable(workRunTime(fit, 100))).toEqual([
      'run time, s: 100 × 0.1000 + 2.00; volume, ml; factor, s/ml; tube constant, s',
    ]);
    expect(readable(workVolume(fit, 12))).toEqual([
      'volume, ml: (12.0 − 2.00) ÷ 0.1000, not below 0; run time, s; factor, s/ml; tube constant, s',
    ]);
  });
});

describe('workings of water', () => {
  test('evenness of 60, 100, 110 and 130 ml is 60 % of the mean', () => {
    const even = evennessOf([60, 100, 110, 130]);
    if (!even) throw new Error('no evenness');
    expect(workEvenness(even).value).toBeCloseTo(60, 9);
    expect(readable(workEvenness(even))).toEqual([
      'evenness of the low quarter, % of the mean: 100 × 60.0 ÷ 100.0; mean of the driest quarter, ml; mean of all, ml',
    ]);
  });
  test('the rain of the cups above is half a millimetre a minute', () => {
    expect(workRain(40, 80, 10)).toMatchObject({ value: 0.5, unit: 'mm/min' });
    expect(readable(workRain(40, 80, 10))).toEqual([
      'rain, mm/min: 10 × 40.0 ÷ 80.0 ÷ 10.0; mean of the cups, ml; mouth of a cup, cm²; it ran for, min',
    ]);
  });
  test('half way between two levels a straight tub is half full; what is above the minimum lasts twelve days', () => {
    const tank = reservoirOf([
      { raw: 400, volumeMl: 0 },
      { raw: 100, volumeMl: 30_000 },
    ]);
    if (!tank.ok) throw new Error(tank.issue.kind);
    expect(workVolumeIn(tank.value, 250).value).toBeCloseTo(15_000, 6);
    expect(workDaysLeft(15_000, 3000, 1000)).toMatchObject({ value: 12, unit: 'days' });
    expect(workDaysLeft(15_000, 3000, 0)).toBeNull();
    expect(readable(workVolumeIn(tank.value, 250))).toEqual([
      'water in it, ml: 2, joined by a monotone curve, at 250; known levels, ; what the sensor reads, raw',
    ]);
    expect(readable(workDaysLeft(15_000, 3000, 1000))).toEqual([
      'days left, days: (15 000 − 3 000) ÷ 1 000, not below 0; water in it, ml; minimum, ml; used a day, mean of the last week, ml/day',
    ]);
  });
});
