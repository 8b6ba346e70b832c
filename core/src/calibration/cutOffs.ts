/** Raw cut-offs: two numbers to go by, and no percent. */
import type { Assumed } from './assumptions.ts';
import { COVERAGE } from './uncertainty.ts';

/**
 * Where the two cut-offs stand on the scale that the engine reckons by, percent. Nobody sees it: what is shown are counts. As far as they lie apart is left on either
 * side, and a little more, so that limits may be moved later.
 */
export const CUT_OFFS = { start: 35, stop: 65 } as const;

/** Two cut-offs hardly further apart than the same soil differs from itself would switch without need. @param spread of the same soil to either side, counts */
export const areClose = (startCounts: number, stopCounts: number, spread: number): boolean =>
  Math.abs(startCounts - stopCounts) < 2 * spread;

/**
 * How far off the same soil may read another time, counts: it dries a little differently each time, and is warmer or colder.
 * @param spanCounts that such a probe usually moves through from dry to wet, for its own was not captured
 */
export const anotherTime = (assumed: Assumed, spanCounts: number): number =>
  (COVERAGE * spanCounts * Math.hypot(assumed.staying, assumed.drift * assumed.swing)) / 100;
