import { z } from '../../quantity/schema.ts';
import { doseS } from '../contract/dose.ts';
import type { Reason } from '../contract/reasons.ts';
import type { LineState } from '../contract/types.ts';
import { found } from './contradiction.ts';
import type { ProgramRecord, Sight } from './record.ts';
import { DAY_S, seconds, volumeMl, WEEK_S } from './settings.ts';

/** Below start a small dose, a wait, another look; until the stop limit or the most pulses; then a rest. */
export type PulseSoak = {
  readonly kind: 'pulse-soak';
  readonly startTenths: number;
  readonly stopTenths: number;
  readonly pulseMl: number;
  readonly soakS: number;
  readonly mostPulses: number;
  readonly restS: number;
};

const settings = z.strictObject({
  kind: z.literal('pulse-soak'),
  pulseMl: volumeMl,
  soakS: seconds(DAY_S),
  mostPulses: z.int().min(1).max(20),
  restS: seconds(WEEK_S),
});

/** Pulses of the episode that still goes on: it ends at the stop limit once the last pulse has soaked in, or after the rest. */
function pulsesNow({ restS, soakS, stopTenths }: PulseSoak, line: LineState, sight: Sight): number {
  if (line.pulses === 0 || line.run || line.lastStopS === null) return line.pulses;
  const sinceS = sight.input.nowS - line.lastStopS;
  if (sinceS >= restS) return 0;
  const isWet = sight.doubt === null && (sight.sensor?.tenths ?? 0) >= stopTenths;
  return isWet && sinceS >= soakS ? 0 : line.pulses;
}

export const pulseSoak = {
  settings,
  begin: ({ doseMl, dailyMaxMl, minIntervalS, responseS }) => {
    const soakS = Math.min(DAY_S, Math.max(900, minIntervalS, responseS));
    return {
      kind: 'pulse-soak',
      pulseMl: doseMl,
      soakS,
      mostPulses: Math.min(4, Math.max(1, Math.floor(dailyMaxMl / doseMl))),
      restS: Math.min(WEEK_S, Math.max(4 * 3600, soakS)),
    };
  },
  doseMl: ({ pulseMl }) => pulseMl,
  contradictions: ({ mostPulses, pulseMl, soakS, restS }, { dailyMaxMl, minIntervalS, responseS }) => {
    const allMl = mostPulses * pulseMl;
    return [
      ...found(allMl > dailyMaxMl, 'pulses-over-day', 'pulses', 'dailyMax', allMl, dailyMaxMl),
      ...found(soakS < minIntervalS, 'soak-under-interval', 'soak', 'minInterval', soakS, minIntervalS),
      ...found(soakS < responseS, 'soak-under-response', 'soak', 'response', soakS, responseS),
      ...found(restS < soakS, 'rest-under-soak', 'rest', 'soak', restS, soakS),
    ];
  },
  // Rounds of all their pulses, one after another.
  runsADay: ({ mostPulses, soakS, restS }, { minIntervalS }) => {
    const roundS = (mostPulses - 1) * Math.max(soakS, minIntervalS, 1) + Math.max(restS, minIntervalS, 1);
    const rounds = Math.floor(DAY_S / roundS);
    const restOfDayS = DAY_S - rounds * roundS;
    const more = Math.min(mostPulses, 1 + Math.floor(restOfDayS / Math.max(soakS, minIntervalS, 1)));
    return rounds * mostPulses + more;
  },
  bind: (saved, { startTenths, stopTenths }) => ({ ...saved, startTenths, stopTenths }),
  usesProbe: true,
  wants: ({ startTenths, stopTenths, pulseMl, soakS, mostPulses }, line, flow, { sensor, input }) => {
    const tenths = sensor?.tenths ?? 0;
    const pulse = (reason: Reason) => ({ runS: doseS(flow, pulseMl), reason, slot: null });
    if (line.pulses === 0 || line.lastStopS === null)
      return tenths < startTenths ? pulse('below-start') : 'not-below-start';
    if (input.nowS - line.lastStopS < soakS) return 'soaking';
    if (tenths >= stopTenths) return 'not-below-start';
    return line.pulses < mostPulses ? pulse('below-stop') : 'pulses-used';
  },
  wake: ({ soakS, restS }, { pulses, lastStopS }) =>
    pulses > 0 && lastStopS !== null ? [lastStopS + soakS, lastStopS + restS] : [],
  restsUntilS: ({ soakS, restS }, { reason, lastStopS }) => {
    if (lastStopS === null) return null;
    return reason === 'soaking' ? lastStopS + soakS : reason === 'pulses-used' ? lastStopS + restS : null;
  },
  notice: (program, line, sight) => ({ pulses: pulsesNow(program, line, sight) }),
  began: ({ pulses }) => ({ pulses: pulses + 1 }),
} as const satisfies ProgramRecord<z.infer<typeof settings>, PulseSoak>;
