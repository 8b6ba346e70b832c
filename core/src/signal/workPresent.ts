/** Workings of what a stream says now. The sums run over a window of readings; the slip names the window and the rule. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { PresentValue } from './presentValue.ts';
import { MEDIAN_TO_MEAN, quantisationSigma } from './resolution.ts';

const window = (present: PresentValue) => ({
  readings: input('the readings', present.readings, ''),
  window: input('the window', present.windowS, 's', 1),
});

/** The middle of the window, raw counts. @param unit here and below, how the probe's numbers are called */
export function workPresent(present: PresentValue, unit = 'counts'): Worked {
  const decimals = Number.isInteger(present.rawCounts) ? 0 : 1;
  const median = step(
    {
      name: 'median',
      unit,
      decimals,
      formula: 'median of {readings} within {window}',
      inputs: window(present),
    },
    () => present.rawCounts,
  );
  return worked('Reading now', [median], {
    source: 'Median: one wild line does not move it, as it would move a mean.',
    note:
      unit === 'counts'
        ? 'Raw counts are what the board’s converter gives. They are stored as they are and never changed.'
        : 'The probe’s own number. It is stored as it comes and never changed.',
    wouldChange: 'A wetter or drier soil, another supply voltage, a touch of the hand.',
  });
}

/** A converter's own step, counts: believed while the readings have shown none. */
const WHOLE_COUNT = 1;

/** How far the middle of the window may be from the true value of the input, by noise and by rounding, 95 times in 100, raw counts. */
export function workPlusMinus(present: PresentValue, unit = 'counts'): Worked {
  const rounding = step(
    {
      name: 'rounding',
      unit,
      decimals: 2,
      formula: '{step} ÷ √12',
      inputs: { step: input('the step of the readings', present.stepCounts ?? WHOLE_COUNT, unit, 2) },
    },
    ({ step: size }) => quantisationSigma(size),
  );
  const middle = step(
    {
      name: 'noise of the middle',
      unit,
      decimals: 2,
      formula: '1.253 × {noise} ÷ √{readings}',
      inputs: {
        noise: input('noise of one reading', present.noiseCounts, unit, 1),
        readings: input('readings in the window', present.readings, ''),
      },
    },
    ({ noise, readings }) => (MEDIAN_TO_MEAN * noise) / Math.sqrt(readings),
  );
  const both = step(
    {
      name: '±',
      unit,
      decimals: 1,
      formula: '2 × √({middle}² + {rounding}²)',
      inputs: {
        middle: input('noise of the middle', middle.value, unit, 2),
        rounding: input('rounding', rounding.value, unit, 2),
      },
    },
    (values) => 2 * Math.hypot(values.middle, values.rounding),
  );
  return worked('± of the reading now', [rounding, middle, both], {
    source: 'Widrow & Kollár 2008 for rounding; √(π/2) is what a median has over a mean.',
    note: 'Two readings that differ by less cannot be told apart. Whether the value has settled is another question.',
    wouldChange: 'More readings in the window, less noise, a converter with more bits.',
  });
}

/** Noise of single readings, raw counts. */
export function workNoise(present: PresentValue, unit = 'counts'): Worked {
  const noise = step(
    {
      name: 'noise of one reading',
      unit,
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
export function workDrift(present: PresentValue, unit = 'counts'): Worked {
  const drift = step(
    {
      name: 'drift',
      unit: `${unit}/min`,
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
