/** Workings of what the settling watch says. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { Settling } from './settlingWatch.ts';

const SOURCE =
  'Every exponential approach, single and fast-plus-slow, fitted by weighted least squares and weighed by how well it explains the readings (Bayesian model averaging, Hoeting et al. 1999).';

const seen = (of: Settling) => ({
  readings: input('readings', of.readings, ''),
  watched: input('time watched', of.watchedS, 's', of.watchedS < 20 ? 1 : 0),
  noise: input('noise of one reading', of.noiseCounts, 'counts', 1),
});

/** The end value that is foreseen, counts; null while none can be named. */
export function workEnd(of: Settling): Worked | null {
  const { end } = of;
  if (!end) return null;
  const value = step(
    {
      name: 'end value',
      unit: 'counts',
      formula: 'median of the ends of all curves through {readings} in {watched}, noise {noise}',
      inputs: seen(of),
    },
    () => end.counts,
  );
  return worked('End value', [value], {
    source: SOURCE,
    note: `Nine times in ten the end lies between ${Math.round(end.low)} and ${Math.round(end.high)} counts.`,
    wouldChange: 'Another pour, a touch, a probe that is pushed deeper: then a new approach begins.',
  });
}

/** The wait until the true value is within the tolerance of its end, s. @param toleranceCounts > 0 */
export function workWait(of: Settling, left: NonNullable<Settling['left']>, toleranceCounts: number): Worked {
  const wait = step(
    {
      name: 'wait',
      unit: 's',
      formula:
        'median time until within {tolerance} of the end, over all curves through {readings} in {watched}',
      inputs: { ...seen(of), tolerance: input('tolerance', toleranceCounts, 'counts') },
    },
    () => left.likelyS,
  );
  return worked('Time left', [wait], {
    source: SOURCE,
    ...(Number.isFinite(left.atMostS)
      ? { note: `Nine times in ten it takes no longer than ${Math.round(left.atMostS)} s.` }
      : { note: 'In one case in ten or more no end is in sight.' }),
    wouldChange: 'More readings a minute, less noise, a coarser tolerance.',
  });
}
