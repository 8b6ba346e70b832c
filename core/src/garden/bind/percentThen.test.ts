/** A stick calibrated twice: dry 3000 and wet 1000 at first, 2800 and 1200 a month later. */
import { describe, expect, test } from 'vitest';
import { airAndWater, firstChannel, onePlot } from '../edits/gardenForTests.ts';
import { percentThen, versionsThen } from './percentThen.ts';

const MAY = Date.parse('2026-05-01T10:00:00Z');
const JUNE = Date.parse('2026-06-01T10:00:00Z');
const once = airAndWater(onePlot(), 3000, 1000).garden;
const [first] = once.calibrations;
if (!first) throw new Error('no calibration');
const again = airAndWater(once, 2800, 1200).garden;
const second = again.calibrations.find(({ id }) => id !== first.id);
if (!second) throw new Error('no second calibration');
const garden = {
  ...again,
  calibrations: [{ ...second, madeAt: new Date(JUNE).toISOString() }, first],
};
const versions = versionsThen(garden, firstChannel(garden), 'span');

describe('percent as it was then', () => {
  test('goes by each version from its making on, and knows nothing before the first', () => {
    const times = [MAY - 1, MAY, JUNE - 1, JUNE, JUNE + 1];
    const { values, isChange } = percentThen(versions, times, [2000, 2000, 2400, 2400, 2000]);
    // (3000 - 2400) / 2000 are 30 %, (2800 - 2400) / 1600 are 25 %.
    expect([...values]).toEqual([Number.NaN, 50, 30, 25, 50]);
    expect(times.map((_, at) => isChange(at))).toEqual([false, true, false, true, false]);
  });
  test('a reading that comes after two versions at once goes by the newer one', () => {
    const { values, isChange } = percentThen(versions, [MAY - 1, JUNE + 1], [2400, 2400]);
    expect([...values]).toEqual([Number.NaN, 25]);
    expect(isChange(1)).toBe(true);
  });
  test('a version of another kind of percent is left out', () =>
    expect(versionsThen(garden, firstChannel(garden), 'volumetric')).toEqual([]));
  test('without a version nothing is known, and nothing changes', () => {
    const { values, isChange } = percentThen([], [MAY, JUNE], [2000, 2000]);
    expect([...values]).toEqual([Number.NaN, Number.NaN]);
    expect(isChange(1)).toBe(false);
  });
});
