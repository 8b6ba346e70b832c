import { z } from '../../quantity/schema.ts';
import { doseS } from '../contract/dose.ts';
import type { ProgramRecord } from './record.ts';
import { DAY_S, volumeMl } from './settings.ts';

/** Below start it runs until the stop limit, or until the cap. */
export type UntilWet = {
  readonly kind: 'until-wet';
  readonly startTenths: number;
  readonly stopTenths: number;
  readonly capMl: number;
};

const settings = z.strictObject({ kind: z.literal('until-wet'), capMl: volumeMl });

export const untilWet = {
  settings,
  begin: ({ doseMl }) => ({ kind: 'until-wet', capMl: doseMl }),
  doseMl: ({ capMl }) => capMl,
  runsADay: (_, { minIntervalS }) => 1 + Math.floor(DAY_S / minIntervalS),
  bind: (saved, { startTenths, stopTenths }) => ({ ...saved, startTenths, stopTenths }),
  usesProbe: true,
  wants: ({ startTenths, capMl }, _, flow, { sensor }) =>
    (sensor?.tenths ?? 0) < startTenths
      ? { runS: doseS(flow, capMl), reason: 'below-start', slot: null }
      : 'not-below-start',
  whyStop: ({ stopTenths }, tenths) => (tenths >= stopTenths ? 'above-stop' : null),
} as const satisfies ProgramRecord<z.infer<typeof settings>, UntilWet>;
