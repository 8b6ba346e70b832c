/** A slice of what `npm run bench -- calibration` prints; the whole of it in `npm run test:long`. */
import { expect, test } from 'vitest';
import { calibrationRows, type CalibrationRow } from './run.ts';
import { SCHOOLS } from './schools.ts';

const IS_LONG = Boolean(process.env.TROWEL_LONG);
const mixOf = (rows: readonly CalibrationRow[]) =>
  rows.reduce((sum, row) => sum + row.within, 0) / rows.length;

test.each(['air and water', 'mixing series', 'drain test'])(
  'the truth lies within the ± of "%s" in worlds that keep none of its assumptions, and the ± is not merely wide',
  (school) => {
    const rows = calibrationRows(60, [school]);
    // 90 wanted of 100; of 60 drawn, 80 are not to be told from it.
    expect(rows.filter((row) => row.within < 0.8).map((row) => row.world)).toEqual([]);
    expect(mixOf(rows)).toBeGreaterThan(0.92);
    expect(Math.max(...rows.map((row) => row.medianStated / row.known))).toBeLessThan(2.5);
  },
);

test.runIf(IS_LONG).each(Object.keys(SCHOOLS))(
  'of a thousand probes by "%s" in each world the truth lies within the ± of 90 in 100, in the mix of 93 to 98.5; it is at most 1.5 times as wide as need be in the mix, 1.9 in the mildest world',
  (school) => {
    const rows = calibrationRows(1000, [school]);
    for (const row of rows) expect([row.world, row.within >= 0.9]).toEqual([row.world, true]);
    expect(mixOf(rows)).toBeGreaterThan(0.93);
    expect(mixOf(rows)).toBeLessThan(0.985);
    const ratios = rows.map((row) => row.medianStated / row.known);
    expect(ratios.reduce((sum, one) => sum + one, 0) / ratios.length).toBeLessThan(1.5);
    expect(Math.max(...ratios)).toBeLessThan(1.9);
  },
  600_000,
);
