/** Whether a stream has fallen silent: nothing that was worked out from it may be said of now any more. */
import { medianOf } from '../signal/noise.ts';
import type { StreamBuffer } from '../signal/streamBuffer.ts';

/** What was heard last of a stream that has fallen silent. */
export type Silence = {
  readonly rawCounts: number;
  readonly atMs: number;
  /** Since then, s. */
  readonly ageS: number;
};

/** Newest distances that the usual one is told from. */
const GAPS = 24;
/** A stream may be late by two of its usual distances. */
const LATE = 3;
/** No stream counts as silent sooner, ms. */
const LEAST_MS = 5000;
/** While fewer than two distances are known, ms. */
const UNKNOWN_MS = 15_000;

/** Time without a reading after which a stream counts as silent, ms of the source's clock. */
export function silentAfterMs(buffer: StreamBuffer): number {
  const { timesMs } = buffer.since(Infinity, GAPS + 1);
  const gaps = Array.from(timesMs.subarray(1), (timeMs, at) => timeMs - (timesMs[at] ?? timeMs)).filter(
    (gap) => gap > 0,
  );
  const own = gaps.length < 2 ? UNKNOWN_MS : Math.max(LEAST_MS, LATE * medianOf(gaps));
  // What is delivered a bundle at a time is not late before two bundles are missing.
  return Math.max(own, LATE * buffer.bundleMs);
}

/** @returns null while readings come as they usually do, or when none ever came */
export function silenceOf(buffer: StreamBuffer, nowMs: number): Silence | null {
  const last = buffer.last();
  if (!last || nowMs - last.timeMs <= silentAfterMs(buffer)) return null;
  return { rawCounts: last.value, atMs: last.timeMs, ageS: (nowMs - last.timeMs) / 1000 };
}
