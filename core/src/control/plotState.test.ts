import { expect, test } from 'vitest';
import { plotState, type PlotKnowledge } from './plotState.ts';

const rules = { staleAfterS: 900, lowCounts: 20, highCounts: 4075, edges: [200, 350, 700, 850] as const };
const read = (
  rawCounts: number,
  ageS: number,
  tenths: number | null,
  isVoid = false,
  isInAir = false,
): PlotKnowledge => ({
  kind: 'reading',
  rawCounts,
  ageS,
  tenths,
  isVoid,
  isInAir,
});

test.each([
  ['no probe', { kind: 'no-probe' } as const, 'no-probe'],
  ['nothing read yet', { kind: 'no-reading' } as const, 'no-reading'],
  ['a fresh reading', read(2000, 5, 500), 'right'],
  ['a reading just young enough', read(2000, 900, 500), 'right'],
  ['an old reading', read(2000, 901, 500), 'stale'],
  ['the upper rail, although it converts', read(4095, 5, 0), 'implausible'],
  ['the lower rail', read(0, 5, 1000), 'implausible'],
  ['no calibration', read(2000, 5, null), 'not-calibrated'],
  ['a calibration of elsewhere, although it converts', read(2000, 5, 500, true), 'void'],
  ['what it reads in air', read(2900, 5, 30, false, true), 'out-of-soil'],
  ['an age that is no number', read(2000, Number.NaN, 500), 'stale'],
  ['a reading that is no number', read(Number.NaN, 5, 500), 'implausible'],
])('%s', (_, known, state) => {
  expect(plotState(known, rules)).toBe(state);
});
