/** A zone's clocks for many moments, the slow question asked once a day. */
import { DAY_MS } from './series.ts';
import { zoneOffsetMs } from './timeTicks.ts';

export type ZoneClock = {
  /** How far the zone's clocks are ahead of UTC at a moment, ms. */
  readonly offsetAt: (ms: number) => number;
  /** At the beginning of a UTC day, by its number. */
  readonly offsetOn: (day: number) => number;
  /** The local day of a moment: its midnight as if its clocks were those of UTC, ms. */
  readonly dayAt: (ms: number) => number;
};

/** @param timeZone IANA name, or an offset such as "+02:00" */
export function zoneClock(timeZone: string): ZoneClock {
  const offsets = new Map<number, number>();
  const offsetOn = (day: number): number => {
    const known = offsets.get(day);
    if (known !== undefined) return known;
    const offset = zoneOffsetMs(day * DAY_MS, timeZone);
    offsets.set(day, offset);
    return offset;
  };
  const changes = new Map<number, number>();
  /** When within a UTC day the clocks are changed. */
  const changeOn = (day: number): number => {
    const known = changes.get(day);
    if (known !== undefined) return known;
    let [low, high] = [day * DAY_MS, (day + 1) * DAY_MS];
    while (high - low > 1000) {
      const middle = Math.floor((low + high) / 2000) * 1000;
      if (zoneOffsetMs(middle, timeZone) === offsetOn(day)) low = middle;
      else high = middle;
    }
    changes.set(day, high);
    return high;
  };
  const offsetAt = (ms: number): number => {
    const day = Math.floor(ms / DAY_MS);
    const [start, end] = [offsetOn(day), offsetOn(day + 1)];
    return start === end || ms < changeOn(day) ? start : end;
  };
  return { offsetAt, offsetOn, dayAt: (ms) => Math.floor((ms + offsetAt(ms)) / DAY_MS) * DAY_MS };
}
