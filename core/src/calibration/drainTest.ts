/**
 * Drain test: after a soaking the water that the pores cannot hold runs out, and a day later what is left is the field capacity (of a pot: container
 * capacity). It is the 100 of available percent.
 * Source: Cassel & Nielsen 1986, Field Capacity and Available Water Capacity (drained for one to three days without drying).
 */
import { extentOf } from '../quantity/extent.ts';
import { median } from 'simple-statistics';

export type DrainPoint = { readonly timeMs: number; readonly counts: number };
export type Drain =
  | { readonly kind: 'no-soak' }
  | {
      readonly kind: 'draining';
      readonly sinceS: number;
      readonly countsPerHour: number;
      readonly leftS: number;
    }
  | {
      readonly kind: 'capacity';
      readonly counts: number;
      readonly sigmaCounts: number;
      readonly soakedAtMs: number;
      readonly fromMs: number;
      readonly takenAtMs: number;
      readonly readings: number;
    };

const HOUR_MS = 3_600_000;
/** The day after: capacity is the middle of these hours since the soaking. */
const FROM_H = 20;
const TO_H = 28;
/** A soaking moves the reading by at least this share of the span within the hour. */
const SOAK_FRAC = 0.08;

/**
 * @param series in order of time, raw counts; @param wetSide whether wetter is lower or higher
 * @param spanCounts the reading's way from dry to wet, > 0
 */
export function drainTest(
  series: readonly DrainPoint[],
  wetSide: 'falling' | 'rising',
  spanCounts: number,
): Drain {
  const sign = wetSide === 'falling' ? -1 : 1;
  const soak = lastSoak(series, sign, spanCounts);
  const last = series.at(-1);
  if (!soak || !last) return { kind: 'no-soak' };
  const hours = (point: DrainPoint) => (point.timeMs - soak.timeMs) / HOUR_MS;
  const sinceS = (last.timeMs - soak.timeMs) / 1000;
  const plateau = series.filter((point) => hours(point) >= FROM_H && hours(point) <= TO_H);
  if (plateau.length < 3 || hours(last) < FROM_H + 2) {
    const recent = series.filter((point) => point.timeMs >= last.timeMs - 2 * HOUR_MS);
    const first = recent[0] ?? last;
    const forHours = (last.timeMs - first.timeMs) / HOUR_MS;
    return {
      kind: 'draining',
      sinceS,
      countsPerHour: forHours > 0 ? Math.abs(last.counts - first.counts) / forHours : 0,
      leftS: Math.max(0, (FROM_H + 2) * 3600 - sinceS),
    };
  }
  const counts = plateau.map((point) => point.counts);
  const middle = median(counts);
  const { low, high } = extentOf(counts) ?? { low: middle, high: middle };
  return {
    kind: 'capacity',
    counts: middle,
    // The plateau still falls: half of what it moved over these hours is what the capacity may be off by.
    sigmaCounts: (high - low) / 2,
    soakedAtMs: soak.timeMs,
    fromMs: plateau[0]?.timeMs ?? last.timeMs,
    readings: plateau.length,
    takenAtMs: plateau.at(-1)?.timeMs ?? last.timeMs,
  };
}

/** The wettest moment after the last steep rise of wetness. */
function lastSoak(series: readonly DrainPoint[], sign: number, spanCounts: number): DrainPoint | null {
  for (let at = series.length - 1; at > 0; at -= 1) {
    const point = series[at];
    if (!point) continue;
    let from = at;
    while (from > 0 && (series[from - 1]?.timeMs ?? 0) >= point.timeMs - HOUR_MS) from -= 1;
    const before = series[from];
    if (before && sign * (point.counts - before.counts) >= SOAK_FRAC * spanCounts) return point;
  }
  return null;
}
