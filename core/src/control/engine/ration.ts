/** The volume of a rolling day, kept by clock hours: 25 of them, so that a volume counts for 24 to 25 hours and never less. */
import type { Ration } from '../contract/types.ts';

const HOURS = 25;
const HOUR_S = 3600;

/** @param hoursMl what was given before a reboot, by its age in whole hours, newest first: none of it counts for less long than it would have */
export function newRation(nowS: number, hoursMl: readonly number[]): Ration {
  const ml = Array.from({ length: HOURS }, (_, at) => hoursMl[at] ?? 0);
  return { hour: Math.trunc(nowS / HOUR_S), ml, sumMl: ml.reduce((sum, one) => sum + one, 0) };
}

/** When so much of the day will be forgotten that no more than a volume is left, s since boot; null: it is so now. */
export function freeAtS({ hour, ml, sumMl }: Ration, mostMl: number): number | null {
  let left = sumMl;
  if (left <= mostMl) return null;
  for (let hours = 1; hours <= HOURS; hours += 1) {
    left -= ml[HOURS - hours] ?? 0;
    if (left <= mostMl) return (hour + hours) * HOUR_S;
  }
  return (hour + HOURS) * HOUR_S;
}

/** The ration as it stands at a time, with so many ml more. The newest hour stands first. */
export function rationAt(ration: Ration, nowS: number, moreMl: number): Ration {
  const hour = Math.trunc(nowS / HOUR_S);
  const passed = hour - ration.hour;
  if (passed <= 0 && moreMl === 0) return ration;
  const fresh = Math.min(HOURS, Math.max(0, passed));
  const ml: number[] = [];
  let sumMl = 0;
  for (let at = 0; at < HOURS; at += 1) {
    const one = (at < fresh ? 0 : (ration.ml[at - fresh] ?? 0)) + (at === 0 ? moreMl : 0);
    ml.push(one);
    sumMl += one;
  }
  return { hour, ml, sumMl };
}
