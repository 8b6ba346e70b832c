import { z } from '../../quantity/schema.ts';
import { doseS } from '../contract/dose.ts';
import { found } from './contradiction.ts';
import type { ProgramRecord } from './record.ts';
import { DAY_S, seconds, volumeMl, WEEK_S } from './settings.ts';

/** One dose below start, then nothing for a good while. */
export type SingleDose = {
  readonly kind: 'single-dose';
  readonly startTenths: number;
  readonly doseMl: number;
  readonly intervalS: number;
};

const settings = z.strictObject({
  kind: z.literal('single-dose'),
  doseMl: volumeMl,
  intervalS: seconds(WEEK_S),
});

export const singleDose = {
  settings,
  begin: ({ doseMl, minIntervalS }) => ({
    kind: 'single-dose',
    doseMl,
    intervalS: Math.max(DAY_S, minIntervalS),
  }),
  doseMl: ({ doseMl }) => doseMl,
  contradictions: ({ intervalS }, { minIntervalS }) =>
    found(
      intervalS < minIntervalS,
      'interval-under-interval',
      'interval',
      'minInterval',
      intervalS,
      minIntervalS,
    ),
  runsADay: ({ intervalS }, { minIntervalS }) => 1 + Math.floor(DAY_S / Math.max(intervalS, minIntervalS)),
  bind: (saved, { startTenths }) => ({ ...saved, startTenths }),
  usesProbe: true,
  wants: ({ startTenths, intervalS, doseMl }, line, flow, { sensor, input }) => {
    if ((sensor?.tenths ?? 0) >= startTenths) return 'not-below-start';
    return input.nowS - line.lastStartS < intervalS
      ? 'dose-interval'
      : { runS: doseS(flow, doseMl), reason: 'below-start', slot: null };
  },
  wake: ({ intervalS }, line) => [line.lastStartS + intervalS],
  restsUntilS: ({ intervalS }, line) =>
    line.reason === 'dose-interval' ? line.lastStartS + intervalS : null,
} as const satisfies ProgramRecord<z.infer<typeof settings>, SingleDose>;
