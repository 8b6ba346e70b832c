import { input, step, worked, type Worked } from '../quantity/worked.ts';
import type { GardenEvent } from './event.ts';

/** Water that reached a plot by these events, ml: what the pump gave and what was poured. Null when there was none. */
export function waterGiven(events: readonly GardenEvent[]): Worked | null {
  const runs = events.filter((event) => event.kind === 'pump-stopped');
  const pours = events.filter((event) => event.kind === 'poured');
  if (runs.length + pours.length === 0) return null;
  const sum = (volumes: readonly { volumeMl: number }[]) =>
    volumes.reduce((total, one) => total + one.volumeMl, 0);
  const total = step(
    {
      name: 'water given',
      unit: 'ml',
      formula: '{pumped} + {poured}',
      inputs: {
        pumped: input('pumped', sum(runs), 'ml'),
        runs: input('runs of the pump', runs.length, ''),
        poured: input('poured by hand', sum(pours), 'ml'),
        pours: input('pours', pours.length, ''),
      },
    },
    ({ pumped, poured }) => pumped + poured,
  );
  return worked('Water given', [total], {
    source: 'Sum over the events shown below; a run’s volume is its time × the pump’s flow.',
    wouldChange: 'Another stretch of time, or a corrected flow of the pump for later runs.',
  });
}
