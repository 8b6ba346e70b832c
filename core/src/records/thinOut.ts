/** A day of which only the readings that tell stay: for whoever has no room left for years of them. */
import { bytesOf, packDay } from './packDay.ts';
import { FLAGS, type DayBlock } from './series.ts';
import { thinDay } from './thinDay.ts';

/** Of each hour the first, lowest, highest and last reading, as they were recorded; null where nothing would go. What stands beside a recorded reading goes as well. */
export function thinnedOut(block: DayBlock): DayBlock | null {
  const thin = thinDay(block).block;
  if (thin.raw.length === block.raw.length) return null;
  return { ...thin, flags: thin.flags.map((flags) => flags & (FLAGS.simulated | FLAGS.imported)) };
}

/** What thinning out would leave. */
export type ThinningSum = {
  readonly readings: number;
  readonly left: number;
  readonly bytes: number;
  readonly bytesLeft: number;
};

export const NO_THINNING: ThinningSum = { readings: 0, left: 0, bytes: 0, bytesLeft: 0 };

/** The sum with one more day. */
export function withDay(sum: ThinningSum, block: DayBlock): ThinningSum {
  const thin = thinnedOut(block) ?? block;
  return {
    readings: sum.readings + block.raw.length,
    left: sum.left + thin.raw.length,
    bytes: sum.bytes + bytesOf(packDay(block)),
    bytesLeft: sum.bytesLeft + bytesOf(packDay(thin)),
  };
}
