/** Sunrise and sunset of a garden, in seconds of its local day. */
import type { ContactsInput } from '../../control/contacts/contract.ts';
import { localTimeIn, type LocalTime } from '../../quantity/localTime.ts';
import { sunTimes, type Place } from '../../sky/sunTimes.ts';
import type { Garden } from '../document/schema.ts';

const HOUR_MS = 3_600_000;
const HALF_DAY_S = 43_200;

/**
 * Where a garden lies, as far as it is known: without a longitude that of the middle of its time zone, which may be off by an hour and a half of sun time.
 * Null without a latitude.
 */
export function placeOf(garden: Garden): (Place & { readonly isRough: boolean }) | null {
  const { latitudeDeg, longitudeDeg } = garden.plan.supply;
  if (latitudeDeg === null) return null;
  return longitudeDeg === null
    ? { latitudeDeg, longitudeDeg: meridianDeg(garden.timeZone), isRough: true }
    : { latitudeDeg, longitudeDeg, isRough: false };
}

/** Fifteen degrees for each hour of a zone's winter time. */
function meridianDeg(timeZone: string): number {
  const localTime = localTimeIn(timeZone);
  const offsetH = (timeMs: number) => {
    const aheadS = localTime(timeMs).daySecond - HALF_DAY_S;
    const { weekday } = localTime(timeMs);
    const days = (weekday - ((new Date(timeMs).getUTCDay() + 6) % 7) + 7) % 7;
    return aheadS / 3600 + (days === 1 ? 24 : days === 6 ? -24 : 0);
  };
  const hours = Math.min(offsetH(Date.UTC(2026, 0, 15, 12)), offsetH(Date.UTC(2026, 6, 15, 12)));
  return Math.max(-180, Math.min(180, hours * 15));
}

/** By moment, the sun of the local day that it lies in; null where the place is unknown, or the sun does not rise and set. */
export function sunOf(
  garden: Garden,
  localTime: (timeMs: number) => LocalTime,
): (timeMs: number) => ContactsInput['sun'] {
  const place = placeOf(garden);
  if (!place) return () => null;
  let known: { readonly noon: number; readonly sun: ContactsInput['sun'] } | null = null;
  return (timeMs) => {
    const noonMs = timeMs - (localTime(timeMs).daySecond - HALF_DAY_S) * 1000;
    const noon = Math.round(noonMs / HOUR_MS);
    if (known?.noon !== noon) {
      const times = sunTimes(place, noonMs);
      const second = (atMs: number) => localTime(atMs).daySecond;
      known = { noon, sun: times && { riseS: second(times.riseMs), setS: second(times.setMs) } };
    }
    return known.sun;
  };
}
