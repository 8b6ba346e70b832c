/**
 * The value of a thermometer in ice slush or a warm bath: the middle of the readings after its last change, with the verdict that references of moisture stand under as well.
 */
import { hasStopped, SettlingWatch, type SettlingVerdict } from '../settling/settlingWatch.ts';
import { medianOf } from '../signal/noise.ts';
import type { Stretch } from '../signal/streamBuffer.ts';

export type RestingPoint = {
  /** Median, in the unit of the stream. */
  readonly value: number;
  readonly readings: number;
  readonly verdict: SettlingVerdict;
  readonly isAtRest: boolean;
};

/** Between ice and a hand-warm bath, °C: within a hundredth of it is within 0.4 °C. */
export const BATH_SPAN_C = 40;
const LEAST_READINGS = 5;
/** Of what was watched since the change only the later half counts: the way to rest is no rest. */
const LATER = 0.5;

/** @param stretch newest readings in order of time; @param span way of the stream from ice to bath, in its own unit. Null with fewer than five readings after the last change. */
export function pointAtRest({ timesMs, values }: Stretch, span: number): RestingPoint | null {
  const watch = new SettlingWatch({ spanCounts: Math.abs(span) });
  for (const [at, timeMs] of timesMs.entries()) watch.push(timeMs / 1000, values[at] ?? Number.NaN);
  const { verdict, watchedS } = watch.settling();
  const lastMs = timesMs.at(-1) ?? 0;
  const fromMs = lastMs - LATER * watchedS * 1000;
  const calm = [...values].filter((value, at) => (timesMs[at] ?? 0) >= fromMs && Number.isFinite(value));
  if (calm.length < LEAST_READINGS) return null;
  return { value: medianOf(calm), readings: calm.length, verdict, isAtRest: hasStopped(verdict) };
}
