import { input, step, worked, type Worked } from '../quantity/worked.ts';

/** Lines per second over the last moments. @param durationS time they took to arrive, s, > 0 */
export function workRate(lines: number, durationS: number): Worked {
  const rate = step(
    {
      name: 'rate',
      unit: 'lines/s',
      decimals: 1,
      formula: '{lines} ÷ {duration}',
      inputs: {
        lines: input('lines that arrived', lines, ''),
        duration: input('time they took', durationS, 's', 1),
      },
    },
    ({ lines: count, duration }) => count / duration,
  );
  return worked('Rate of lines', [rate], {
    source: 'Counted over the last five seconds as they arrived, understood or not.',
    wouldChange: 'Another interval in the board’s program; with a stand-in, its clock.',
  });
}
