/**
 * The first test of a probe: touched by fingers, held in air, put into water up to its line. Each step says whether what should be seen has been seen;
 * the steps are judged from the stream alone.
 */
import type { ProbeScale } from '../faults/streamFaults.ts';
import type { TestStep } from '../garden/document/probeSchema.ts';
import type { SettlingVerdict } from '../settling/settlingWatch.ts';
import { hasStopped } from '../settling/settlingWatch.ts';

export type TestSeen = {
  readonly nowCounts: number;
  readonly noiseCounts: number;
  readonly verdict: SettlingVerdict;
  /** Where the reading stood when the step was begun, counts. */
  readonly startCounts: number;
  /** What the air step gave, counts; null while it was not done. */
  readonly airCounts: number | null;
};

export type TestAnswer =
  | { readonly kind: 'seen' }
  /** Not yet; moved by a share of the span so far. */
  | { readonly kind: 'waiting'; readonly movedFrac: number }
  | { readonly kind: 'wait-for-rest'; readonly movedFrac: number }
  | { readonly kind: 'at-rail'; readonly end: 'top' | 'bottom' }
  | { readonly kind: 'air-first' };

/** Fingers move a probe by this share of its span at least, and by many times its noise; water by this one. */
const TOUCH_FRAC = 0.06;
const WATER_FRAC = 0.3;
const NOISES = 6;

/** Whether a step has shown what it should. Air and water are only believed at rest, for their values are kept. */
export function judgeTest(step: TestStep, seen: TestSeen, scale: ProbeScale): TestAnswer {
  const { nowCounts, noiseCounts, startCounts, airCounts, verdict } = seen;
  if (nowCounts > scale.highCounts) return { kind: 'at-rail', end: 'top' };
  if (nowCounts < scale.lowCounts) return { kind: 'at-rail', end: 'bottom' };
  const from = step === 'water' ? airCounts : startCounts;
  if (from === null) return { kind: 'air-first' };
  const movedFrac = Math.abs(nowCounts - from) / scale.spanCounts;
  const isSure = Math.abs(nowCounts - from) > NOISES * noiseCounts;
  if (step === 'touch')
    return isSure && movedFrac > TOUCH_FRAC ? { kind: 'seen' } : { kind: 'waiting', movedFrac };
  if (step === 'water' && !(isSure && movedFrac > WATER_FRAC)) return { kind: 'waiting', movedFrac };
  return hasStopped(verdict) ? { kind: 'seen' } : { kind: 'wait-for-rest', movedFrac };
}
