/**
 * One reading that is taken by itself: a person says that the probe is in place, and it is taken once it has moved away from the condition before and rests. What
 * hangs on a number alone is asked of the number; what no number shows is the person's word.
 */
import type { MethodId } from '../calibration/conditions.ts';
import type { PresentValue } from '../signal/presentValue.ts';
import { hasStopped, STOPPED_FRAC, type Settling } from '../settling/settlingWatch.ts';

/** What was captured of a probe in a step. */
export type Taken = {
  readonly value: PresentValue;
  readonly settling: Pick<Settling, 'verdict' | 'end'>;
};

/** What comes in of one channel at one moment. */
export type SeenNow = {
  /** The reading now, and what would be captured of it: only readings after the last change. Null while nothing comes or too little has come. */
  readonly now: PresentValue | null;
  readonly capture: PresentValue | null;
  readonly settling: Settling | null;
  /** Something is wrong with its stream that spoils the number. */
  readonly isSpoilt: boolean;
  /** Usual way from dry to wet, counts, and the window of plausible numbers. */
  readonly spanCounts: number;
  readonly lowCounts: number;
  readonly highCounts: number;
};

export type Unsound =
  | { readonly kind: 'no-reading' }
  | { readonly kind: 'at-rail'; readonly end: 'top' | 'bottom' }
  | { readonly kind: 'spoilt' };
/** Moved by a share of its usual span so far. */
export type NotMoved = { readonly kind: 'wait-for-change'; readonly movedFrac: number };
export type NotAtRest = { readonly kind: 'wait-for-rest'; readonly leftS: number | null };
export type Ready = { readonly kind: 'ready'; readonly taken: Taken };
export type RestAnswer = Unsound | NotMoved | NotAtRest | Ready;

/** Schools whose readings are taken at rest; where a finger feels or a meter is read, the person says when. */
export const TAKEN_AT_REST: readonly MethodId[] = [
  'air-water',
  'dry-soaked',
  'dry-right-soaked',
  'mixing',
  'pot',
  'drain',
];

/** A change is believed from so many times the noise on. */
export const NOISES = 6;
/** What lies nearer to the reading of another condition than this share of the span is that condition still: a repeat of it would be believed so near. */
const ANOTHER_FRAC = 0.05;

/** Why a channel's number is none; null where it is one. */
export function unsoundOf({ now, highCounts, lowCounts, isSpoilt }: SeenNow): Unsound | null {
  if (!now) return { kind: 'no-reading' };
  if (now.rawCounts > highCounts) return { kind: 'at-rail', end: 'top' };
  if (now.rawCounts < lowCounts) return { kind: 'at-rail', end: 'bottom' };
  return isSpoilt ? { kind: 'spoilt' } : null;
}

/** A reading at its end, or how long it still takes. */
export function restOf({ capture, settling, spanCounts }: SeenNow): NotAtRest | Ready {
  if (
    !settling ||
    !hasStopped(settling.verdict) ||
    !capture ||
    !isAtEnd(capture.rawCounts, settling.end, STOPPED_FRAC * spanCounts)
  )
    return { kind: 'wait-for-rest', leftS: settling?.left ? settling.left.likelyS : null };
  return {
    kind: 'ready',
    taken: { value: capture, settling: { verdict: settling.verdict, end: settling.end } },
  };
}

/** A median is believed where it lies at the end that is foreseen: a mix of before and after does not. @param slack counts that it may lie beyond the end's interval */
export const isAtEnd = (counts: number, end: Settling['end'], slack: number): boolean =>
  end === null || (counts >= end.low - slack && counts <= end.high + slack);

/** @param others what the probe read in the other conditions of the run, counts: while it still reads one of them it has not been moved */
export function judgeAtRest(seen: SeenNow, others: readonly number[]): RestAnswer {
  const unsound = unsoundOf(seen);
  if (unsound || !seen.now) return unsound ?? { kind: 'no-reading' };
  const { rawCounts, noiseCounts } = seen.now;
  const nearest = Math.min(...others.map((one) => Math.abs(rawCounts - one)));
  if (nearest <= Math.max(ANOTHER_FRAC * seen.spanCounts, NOISES * noiseCounts))
    return { kind: 'wait-for-change', movedFrac: nearest / seen.spanCounts };
  return restOf(seen);
}
