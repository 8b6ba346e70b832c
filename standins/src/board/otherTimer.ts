/** Somebody else's irrigation timer: it waters at its own times, and knows nothing of boards and probes. A permit contact in its circuit can only forbid. */

/** Early and late, five minutes each. */
const TIMES_S = [6 * 3600, 18 * 3600] as const;
const RUN_S = 300;
const FLOW_ML_PER_S = 1.2;

/** What it gives in a stretch of at most a minute, ml. @param daySecond at which the stretch begins */
export function timerGivesMl(daySecond: number, durationS: number): number {
  return TIMES_S.reduce((sum, atS) => {
    const fromS = Math.max(daySecond, atS);
    const toS = Math.min(daySecond + durationS, atS + RUN_S);
    return sum + Math.max(0, toS - fromS) * FLOW_ML_PER_S;
  }, 0);
}
