/** Nights of a garden, from sunset to sunrise, for shading a chart of its days. */
import type { Garden } from '../document/schema.ts';
import type { Stretch } from '../../records/stretch.ts';
import { sunTimes } from '../../sky/sunTimes.ts';
import { placeOf } from './sun.ts';

const DAY_MS = 86_400_000;
const MS_A_DEGREE = DAY_MS / 360;

/** Nights that touch a stretch of time, cut off at its ends. None where nobody has said where the garden lies; days without a sunset or a sunrise have none. */
export function nightsIn(garden: Garden, { fromMs, toMs }: Stretch): readonly Stretch[] {
  const place = placeOf(garden);
  if (!place) return [];
  const nights: Stretch[] = [];
  // By the garden's own noon, about.
  const firstNoon =
    Math.floor(fromMs / DAY_MS) * DAY_MS + DAY_MS / 2 - place.longitudeDeg * MS_A_DEGREE - 2 * DAY_MS;
  let evening: number | null = null;
  for (let noonMs = firstNoon; noonMs < toMs + 2 * DAY_MS; noonMs += DAY_MS) {
    const day = sunTimes(place, noonMs);
    if (evening !== null && day && day.riseMs > fromMs && evening < toMs)
      nights.push({ fromMs: Math.max(fromMs, evening), toMs: Math.min(toMs, day.riseMs) });
    evening = day ? day.setMs : null;
  }
  return nights;
}
