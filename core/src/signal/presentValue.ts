import { linearRegression } from 'simple-statistics';
import { medianOf, noiseOf, spreadOf } from './noise.ts';
import { stepOf } from './resolution.ts';
import type { Stretch, StreamBuffer } from './streamBuffer.ts';

/** What a stream says now: the middle of its last moments, and how far to trust it. */
export type PresentValue = {
  /** Median of the window, raw counts. */
  readonly rawCounts: number;
  /** Robust standard deviation of single readings, drift left out, raw counts. */
  readonly noiseCounts: number;
  /** Robust standard deviation about the median, drift included, raw counts. */
  readonly spreadCounts: number;
  /** Step in which the readings come, raw counts; null while all of the window are equal. */
  readonly stepCounts: number | null;
  /** Slope of a straight line through the window, raw counts per minute. */
  readonly driftCountsPerMin: number;
  readonly readings: number;
  readonly windowS: number;
  readonly atMs: number;
};

/** How much of the stream a value rests on: the last seconds; on a slow stream so many readings, but none older than the last one by more than `mostS`. */
export type WindowChoice = { readonly seconds: number; readonly atLeast: number; readonly mostS?: number };

/** The value shown while watching: short, so that a touch of the hand is seen at once. A board that wakes every ten minutes is believed by its last reading alone: what it read an hour ago is not now. */
export const WATCH_WINDOW: WindowChoice = { seconds: 4, atLeast: 5, mostS: 120 };
/** A captured reference: longer, so that its spread means something. */
export const CAPTURE_WINDOW: WindowChoice = { seconds: 10, atLeast: 12 };

/** Summary of the newest window of a stream; null without any reading. */
export function presentValue(buffer: StreamBuffer, choice: WindowChoice): PresentValue | null {
  const last = buffer.last();
  if (!last) return null;
  const { seconds, atLeast, mostS = Infinity } = choice;
  const wanted = buffer.since(last.timeMs - seconds * 1000, atLeast);
  const oldestMs = last.timeMs - mostS * 1000;
  return summarise((wanted.timesMs[0] ?? 0) >= oldestMs ? wanted : buffer.since(oldestMs));
}

/** A slope beyond so many of its own standard errors is one. */
const REAL_DRIFT = 2.5;

/** Whether the slope of a window differs from nothing: beyond what the noise of single readings makes of a straight line (σ·√(12/n) over the window). */
export function hasDrift({
  driftCountsPerMin,
  noiseCounts,
  readings,
  windowS,
  stepCounts,
}: PresentValue): boolean {
  if (readings < 3 || windowS <= 0) return false;
  // Readings that are all alike are still only known to a step.
  const sigma = Math.max(noiseCounts, (stepCounts ?? 1) / Math.sqrt(12));
  const error = (sigma * Math.sqrt(12 / readings)) / (windowS / 60);
  return Math.abs(driftCountsPerMin) > REAL_DRIFT * error;
}

/** So many readings a capture rests on at least: of fewer no spread can be told. */
export const LEAST_CAPTURED = 3;

/** What would be captured now: the newest window, as far as it lies behind the last change and behind the way that followed it. @param sinceMs of that change @returns null while too little has come since */
export function captureValue(buffer: StreamBuffer, sinceMs: number): PresentValue | null {
  const last = buffer.last();
  if (!last) return null;
  const { timesMs, values } = buffer.since(
    last.timeMs - CAPTURE_WINDOW.seconds * 1000,
    CAPTURE_WINDOW.atLeast,
  );
  const first = timesMs.findIndex((timeMs) => timeMs >= sinceMs);
  if (first < 0 || timesMs.length - first < LEAST_CAPTURED) return null;
  // The way to rest is no rest: of what came since the change the later half counts, as far as it has readings enough.
  const halfMs = (sinceMs + last.timeMs) / 2;
  const half = timesMs.findIndex((timeMs) => timeMs >= halfMs);
  const from = Math.max(first, Math.min(half, timesMs.length - CAPTURE_WINDOW.atLeast));
  return summarise({ timesMs: timesMs.subarray(from), values: values.subarray(from) });
}

/** Summary of a stretch of at least one reading. */
export function summarise(stretch: Stretch): PresentValue | null {
  const values = [...stretch.values];
  const firstMs = stretch.timesMs[0];
  const lastMs = stretch.timesMs[stretch.timesMs.length - 1];
  if (firstMs === undefined || lastMs === undefined) return null;
  const minutes = values.map((value, at) => [((stretch.timesMs[at] ?? firstMs) - firstMs) / 60_000, value]);
  return {
    rawCounts: medianOf(values),
    noiseCounts: noiseOf(values),
    spreadCounts: spreadOf(values),
    stepCounts: stepOf(values),
    driftCountsPerMin: lastMs > firstMs ? linearRegression(minutes).m : 0,
    readings: values.length,
    windowS: (lastMs - firstMs) / 1000,
    atMs: lastMs,
  };
}
