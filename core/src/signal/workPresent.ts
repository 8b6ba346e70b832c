/** Workings of what a stream says now. The sums run over a window of readings; the slip names the window and the rule. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { PresentValue } from './presentValue.ts';

const window = (present: PresentValue) => ({
  readings: input('the readings', present.readings, ''),
  window: input('the window', present.windowS, 's', 1),
});

/** The middle of the window, raw counts. */
export function workPresent(present: PresentValue): Worked {
  const decimals = Number.isInteger(present.rawCounts) ? 0 : 1;
  const median = step(
    {
      name: 'median',
      unit: 'counts',
      decimals,
      formula: 'median of {readings} within {window}',
      inputs: window(present),
    },
    () => present.rawCounts,
  );
  return worked('Reading now', [median], {
    source: 'Median: one wild line does not move it, as it would move a mean.',
    note: 'Raw counts are what the board’s converter gives. They are stored as they are and never changed.',
    wouldChange: 'A wetter or drier soil, another supply voltage, a touch of the hand.',
  });
}

/** Noise of single readings, raw counts. */
export function workNoise(present: PresentValue): Worked {
  const noise = step(
    {
      name: 'noise of one reading',
      unit: 'counts',
      decimals: 1,
      formula: '1.4826 × median deviation of the steps between {readings} ÷ √2',
      inputs: window(present),
    },
    () => present.noiseCounts,
  );
  return worked('Noise', [noise], {
    source: 'Robust standard deviation of successive differences (Rousseeuw & Croux 1993 for the factor).',
    note: 'Taken from the steps between readings, so that a slow drift does not count as noise.',
    wouldChange: 'A shorter cable, a steadier supply, a capacitor near the probe.',
  });
}

/** Drift over the window, raw counts per minute. */
export function workDrift(present: PresentValue): Worked {
  const drift = step(
    {
      name: 'drift',
      unit: 'counts/min',
      decimals: 1,
      formula: 'slope of a straight line through {readings}',
      inputs: window(present),
    },
    () => present.driftCountsPerMin,
  );
  return worked('Drift', [drift], {
    source: 'Least squares.',
    note: 'After a pour or after pushing the probe in the value leaps at once and then creeps; a reference taken while it creeps is wrong.',
    wouldChange: 'Waiting.',
  });
}
