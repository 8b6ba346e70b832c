/** What an order by hand will bring, before it is given: the guards hold it too. */
import { countedMl, doseS, givenMl, type Flow } from './contract/dose.ts';

export type OrderOutlook = {
  /** What will come out, ml. */
  readonly comesMl: number;
  readonly runS: number;
  /** The guard that ends it before its time; null where all of it comes. */
  readonly cut: 'max-run' | 'daily-max' | 'tank-low' | 'tank-unknown' | 'other-line-runs' | null;
};

/**
 * @param countedSoFarMl what the day has had, as the daily maximum counts it
 * @param forbidden why nothing may run at all: its reservoir, or another line of the board that runs; null when nothing forbids it
 */
export function orderOutlook(
  volumeMl: number,
  flow: Flow,
  guards: { readonly maxRunS: number; readonly dailyMaxMl: number },
  countedSoFarMl: number,
  forbidden: 'tank-low' | 'tank-unknown' | 'other-line-runs' | null = null,
): OrderOutlook {
  if (forbidden !== null) return { comesMl: 0, runS: 0, cut: forbidden };
  const wantedS = doseS(flow, volumeMl);
  const leftMl = guards.dailyMaxMl - countedSoFarMl;
  // Whole seconds for which the day has room: each counts as if the tube were full, rounded up.
  let dayS = Math.max(0, Math.trunc((60 * Math.max(0, leftMl)) / flow.flowMlPerMin));
  while (dayS > 0 && countedMl(flow, dayS) > leftMl) dayS -= 1;
  const runS = Math.min(wantedS, guards.maxRunS, dayS);
  const cut = runS === wantedS ? null : dayS < guards.maxRunS ? 'daily-max' : 'max-run';
  return { comesMl: givenMl(flow, runS), runS, cut };
}
