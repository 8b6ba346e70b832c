import { input, step, worked, type Worked } from '../quantity/worked.ts';

/** How long the minimum interval still holds the pump, s. @param sinceS time since the last start, or since switching on, s */
export function workWait(minIntervalS: number, sinceS: number): Worked {
  const wait = step(
    {
      name: 'still to wait',
      unit: 's',
      formula: '{interval} − {since}',
      inputs: {
        interval: input('minimum interval', minIntervalS, 's'),
        since: input('since the last start or switching on', sinceS, 's'),
      },
    },
    ({ interval, since }) => Math.max(0, interval - since),
  );
  return worked('Still to wait', [wait], {
    source:
      'Guard of the engine: switching on counts as a start, or a board that reboots over and over would water each time.',
    wouldChange: 'A shorter minimum interval below; with a stand-in, a faster clock.',
  });
}
