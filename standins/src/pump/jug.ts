/** What stands in the jug after a stand-in pump ran: its tube fills first, and no two runs give quite the same. */
import { normal, seedOf, type Seed } from '../random.ts';

const TUBE_S = 1.6;
/** A run differs from the next by so many parts, and by what clings to jug and tube, ml. */
const UNEVEN_FRAC = 0.02;
const CLINGS_ML = 1.5;

/** @param flowMlPerS of the line; @param round counts the runs, so that each is another */
export function jugAfter(lineId: string, flowMlPerS: number, runS: number, round: number): number {
  const seed: Seed = seedOf(`${lineId} ${round} ${runS}`);
  const exact = flowMlPerS * Math.max(0, runS - TUBE_S);
  const drawn = normal(seed).value;
  return Math.max(0, Math.round(exact + drawn * Math.hypot(UNEVEN_FRAC * exact, CLINGS_ML)));
}
