/** Workings of what a stretch of a log says: where it stands, how far it moved, between what. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { Summary } from './summary.ts';

type Scale = { readonly unit: string; readonly decimals: number };

const SOURCE =
  'The readings of the stretch of time that is shown; percent is made from the raw record with the calibration in use.';

/** One more than the result has: its own rounding would not add up. Counts are whole. */
const finer = (decimals: number): number => (decimals === 0 ? 0 : decimals + 1);

/** Last minus first. */
export function workChange(summary: Summary, { unit, decimals }: Scale): Worked {
  const change = step(
    {
      name: 'change',
      unit,
      decimals,
      formula: '{last} − {first}',
      inputs: {
        last: input('last reading', summary.last, unit, finer(decimals)),
        first: input('first reading', summary.last - summary.change, unit, finer(decimals)),
      },
    },
    ({ last, first }) => last - first,
  );
  return worked('Change', [change], { source: SOURCE, wouldChange: 'Another stretch of time.' });
}

/** Highest minus lowest. */
export function workSwing(summary: Summary, { unit, decimals }: Scale): Worked {
  const swing = step(
    {
      name: 'swing',
      unit,
      decimals,
      formula: '{highest} − {lowest}',
      inputs: {
        highest: input('highest reading', summary.highest, unit, finer(decimals)),
        lowest: input('lowest reading', summary.lowest, unit, finer(decimals)),
        readings: input('readings', summary.readings, ''),
      },
    },
    ({ highest, lowest }) => highest - lowest,
  );
  return worked('Swing', [swing], {
    source: SOURCE,
    note: 'Single readings count here, so noise and a probe pulled out widen it.',
    wouldChange: 'Another stretch of time.',
  });
}
