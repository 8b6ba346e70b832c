import { describe, expect, test } from 'vitest';
import { judgeDrill, weekBy } from './drill.ts';

const real = { dry: 2950, wet: 1180 };

describe('a week by a calibration', () => {
  test('by perfect references the pot gets what it loses, and is neither too dry nor too wet', () => {
    const week = weekBy(real, real);
    // Loses 12 % a day for 7 days, 84 %, of which the first 10 (45 to 35) are not made good: 74 % are 1480 ml, in doses of 120.
    expect(Math.abs(week.givenMl - 1480)).toBeLessThanOrEqual(120);
    expect(week).toMatchObject({ spiltMl: 0, dryHours: 0, wetHours: 0 });
  });
  test('a wet reference that was captured too dry makes it read wetter than it is, and the plant stands dry', () => {
    const week = weekBy({ ...real, wet: 2000 }, real);
    // It reads 35 % where the truth is 35 · 950 ÷ 1770 = 18.8 %.
    expect(week.dryHours).toBeGreaterThan(100);
    expect(week.givenMl).toBeLessThan(weekBy(real, real).givenMl);
  });
  test('a dry reference that was captured too wet makes it read drier, and it is watered too soon', () => {
    const week = weekBy({ ...real, dry: 2200 }, real);
    expect(week.givenMl).toBeGreaterThan(weekBy(real, real).givenMl);
  });
  test('with exchanged references dry reads wet: nothing is given, and the pot dries out', () => {
    const week = weekBy({ dry: real.wet, wet: real.dry }, real);
    // At 45 % it reads 55, and the drier it gets the wetter it reads.
    expect(week.dryHours).toBeGreaterThan(80);
    expect(week.givenMl).toBe(0);
  });
});

describe('judging', () => {
  const ok = { rawCounts: 2950, idealCounts: 2950, causes: {} };
  test('each mistake has the week that it alone would give', () => {
    const drill = judgeDrill({
      dry: ok,
      wet: {
        rawCounts: 1180 + 700 - 170,
        idealCounts: 1180,
        causes: { 'too-early': 700, 'wet-connector': -170 },
      },
    });
    expect(drill.mistakes.map((one) => one.mistake)).toEqual(['too-early', 'wet-connector']);
    expect(drill.mistakes[0]?.week).toEqual(weekBy({ dry: 2950, wet: 1880 }, real));
    expect(drill.yours).toEqual(weekBy({ dry: 2950, wet: 1710 }, real));
    // 530 of 1770 counts.
    expect(drill.offPercent.wet).toBeCloseTo(29.94, 2);
    expect(drill.offPercent.dry).toBeCloseTo(0, 9);
  });
  test('a dry reference of 2773 counts where 2950 were right is 10 % of the span off', () => {
    const drill = judgeDrill({
      dry: { ...ok, rawCounts: 2773 },
      wet: { ...ok, rawCounts: 1180, idealCounts: 1180 },
    });
    expect(drill.offPercent.dry).toBeCloseTo(-10, 9);
    expect(drill.offPercent.wet).toBeCloseTo(0, 9);
  });
  test('what moves the value by less than two percent of the span is no mistake', () => {
    const causes = { 'too-early': 35 };
    expect(judgeDrill({ dry: ok, wet: { rawCounts: 1215, idealCounts: 1180, causes } }).mistakes).toEqual([]);
  });
});
