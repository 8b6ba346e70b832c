import { makeCurve } from '@plain-trowel/core/calibration/curve';
import { describe, expect, test } from 'vitest';
import { rulerScale } from './rulerScale.ts';

const lineFrom = (dry: number, wet: number) => {
  const low = Math.min(dry, wet);
  const atLow = dry < wet ? 0 : 100;
  const weights = [atLow, 100 - 2 * atLow];
  const made = makeCurve(
    { kind: 'line', origin: low, unit: Math.abs(wet - dry), weights, temperature: null },
    'span',
    [dry, wet],
    1,
  );
  if (!made.ok) throw new Error(made.issue.kind);
  return made.value;
};
const falling = lineFrom(3000, 1000);
const rising = lineFrom(200, 700);

describe('rulerScale', () => {
  test('dry lies left and wet right, whichever way the numbers run', () => {
    for (const fit of [falling, rising]) {
      const scale = rulerScale(fit, 4095, 10, 600);
      expect(scale.x(fit.dryCounts)).toBeLessThan(scale.x(fit.wetCounts));
    }
  });

  test('there is seven percent of room beyond either reference', () => {
    const scale = rulerScale(falling, 4095, 0, 1140);
    expect(scale.leftCounts).toBe(3140);
    expect(scale.rightCounts).toBe(860);
    expect(scale.x(3000)).toBeCloseTo(70, 9);
    expect(scale.countsAt(1070)).toBeCloseTo(1000, 9);
  });

  test('without a calibration it runs from zero to full scale', () => {
    const scale = rulerScale(null, 1023, 0, 700);
    expect([scale.leftCounts, scale.rightCounts]).toEqual([0, 1023]);
  });

  test('numbers are round, with a middle mark between two of them', () => {
    const { ticks } = rulerScale(falling, 4095, 0, 680);
    const majors = ticks.filter((tick) => tick.level === 'major').map((tick) => tick.counts);
    expect(majors).toEqual([1000, 1500, 2000, 2500, 3000]);
    expect(ticks.find((tick) => tick.counts === 1250)?.level).toBe('middle');
    expect(ticks.every((tick) => tick.counts >= 860 && tick.counts <= 3140)).toBe(true);
  });
});
