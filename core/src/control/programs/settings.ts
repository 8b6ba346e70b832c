/** Bounds that the settings of all programs share. */
import { MOST } from '../../quantity/bounds.ts';
import { z } from '../../quantity/schema.ts';

export const DAY_S = 86_400;
export const WEEK_S = 7 * DAY_S;

export const volumeMl = z.int().min(1).max(1_000_000);
export const seconds = (most: number) => z.int().min(0).max(most);
export const minute = z.int().min(0).max(1439);
/** Times of a timer: a minute of the day, and the weekdays as bits, Monday lowest. */
export const slots = z
  .array(z.strictObject({ minute, days: z.int().min(1).max(127) }))
  .min(1)
  .max(MOST.slots);
export type SavedSlots = z.infer<typeof slots>;
