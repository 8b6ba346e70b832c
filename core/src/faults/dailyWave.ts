/** A wave of 24 hours in a record of moisture: temperature that the probe takes for water. */
import { residualsOf } from './hum.ts';

const DAY_MS = 86_400_000;
const LEAST_DAYS = 1.5;
const MOST_READINGS = 600;
/** Share of what a straight line leaves that the daily wave must carry. */
const LEAST_SHARE = 0.6;

/**
 * Fits drift plus a sine and cosine of one day; null when the record is shorter than a day and a half or the wave does not stand out.
 * @returns half the height of the wave, counts, and the length of the record, days
 */
export function dailyWave(
  timesMs: Float64Array,
  values: Float64Array,
): { readonly amplitudeCounts: number; readonly days: number } | null {
  const startMs = timesMs[0] ?? 0;
  const days = ((timesMs[timesMs.length - 1] ?? 0) - startMs) / DAY_MS;
  if (days < LEAST_DAYS) return null;
  const stride = Math.max(1, Math.floor(values.length / MOST_READINGS));
  const times: number[] = [];
  const kept: number[] = [];
  for (let at = 0; at < values.length; at += stride) {
    times.push(((timesMs[at] ?? 0) - startMs) / DAY_MS);
    kept.push(values[at] ?? 0);
  }
  if (kept.length < 24) return null;
  const drift = residualsOf(
    times.map((day) => [1, day]),
    kept,
  );
  const left = residualsOf(
    times.map((day) => [1, day, Math.sin(2 * Math.PI * day), Math.cos(2 * Math.PI * day)]),
    kept,
  );
  const square = (list: readonly number[]) => list.reduce((sum, value) => sum + value * value, 0);
  const before = square(drift);
  const carried = before - square(left);
  if (before === 0 || carried / before < LEAST_SHARE) return null;
  // A full wave of height A has a mean square of A²/2.
  return { amplitudeCounts: Math.sqrt((2 * carried) / kept.length), days };
}
