/** The volume of a rolling day, kept by clock hours: 25 of them, so that a volume counts for 24 to 25 hours and never less. */
import type { Ration } from '../contract/types.ts';

const HOURS = 25;
const HOUR_S = 3600;

/** @param rememberedMl what was given before a reboot; it counts as if it had all come just now */
export const newRation = (nowS: number, rememberedMl: number): Ration => ({
  hour: Math.trunc(nowS / HOUR_S),
  ml: Array.from({ length: HOURS }, (_, at) => (at === 0 ? rememberedMl : 0)),
  sumMl: rememberedMl,
});

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
