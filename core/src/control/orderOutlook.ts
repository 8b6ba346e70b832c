/** What an order by hand will bring, before it is given: the guards hold it too. */
import { countedMl, doseS, givenMl, type Flow } from './contract/dose.ts';

export type OrderOutlook = {
  /** What will come out, ml. */
  readonly comesMl: number;
  readonly runS: number;
  /** The guard that ends it before its time; null where all of it comes. */
  readonly cut: 'max-run' | 'daily-max' | 'tank-low' | 'tank-unknown' | null;
};

/**
 * @param countedSoFarMl what the day has had, as the daily maximum counts it
 * @param tank why the line's reservoir forbids running; null when it does not, or when there is none
 */
export function orderOutlook(
  volumeMl: number,
  flow: Flow,
  guards: { readonly maxRunS: number; readonly dailyMaxMl: number },
  countedSoFarMl: number,
  tank: 'tank-low' | 'tank-unknown' | null = null,
): OrderOutlook {
  if (tank !== null) return { comesMl: 0, runS: 0, cut: tank };
  const wantedS = doseS(flow, volumeMl);
  const leftMl = guards.dailyMaxMl - countedSoFarMl;
  // Whole seconds for which the day has room: each counts as if the tube were full, rounded up.
  let dayS = Math.max(0, Math.trunc((60 * Math.max(0, leftMl)) / flow.flowMlPerMin));
  while (dayS > 0 && countedMl(flow, dayS) > leftMl) dayS -= 1;
  const runS = Math.min(wantedS, guards.maxRunS, dayS);
  const cut = runS === wantedS ? null : dayS < guards.maxRunS ? 'daily-max' : 'max-run';
  return { comesMl: givenMl(flow, runS), runS, cut };
}
