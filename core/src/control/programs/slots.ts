/** The times of a timer: which is due, when the next begins, and what they may contradict. */
import { isBetween } from '../../quantity/hours.ts';
import { doseS, type Flow } from '../contract/dose.ts';
import type { Reason } from '../contract/reasons.ts';
import type { EngineInput, LineState } from '../contract/types.ts';
import { found, type Contradiction } from './contradiction.ts';
import type { LineSettings, Wish } from './record.ts';
import { DAY_S, type SavedSlots } from './settings.ts';

/** A time of a timer: seconds since local midnight, and the weekdays as bits, Monday lowest. */
export type Slot = { readonly daySecond: number; readonly days: number };

/** A time counts for an hour: what could not begin within it is left out, not made up for. */
const SLOT_WINDOW_S = 3600;
/** A time that was served is not due again before this, s: the hour that a clock is set back does not water twice. */
const SERVED_S = 20 * 3600;

export const EVERY_DAY = 127;

/** @param reason for which a run starts */
export function dueSlot(
  { slots, doseMl }: { readonly slots: readonly Slot[]; readonly doseMl: number },
  line: LineState,
  flow: Flow,
  { clock, nowS }: EngineInput,
  reason: Reason,
): Wish {
  if (!clock) return 'clock-unknown';
  for (let slot = 0; slot < slots.length; slot += 1) {
    const one = slots[slot];
    const served = line.served[slot] ?? null;
    if (!one || (served !== null && nowS - served < SERVED_S)) continue;
    const sinceS = clock.daySecond - one.daySecond;
    const passedS = sinceS < 0 ? sinceS + DAY_S : sinceS;
    // A time before boot may have been served before boot: better missed than watered twice.
    if (passedS >= SLOT_WINDOW_S || passedS > nowS) continue;
    const weekday = sinceS < 0 ? (clock.weekday + 6) % 7 : clock.weekday;
    if (((one.days >> weekday) & 1) === 1) return { runS: doseS(flow, doseMl), reason, slot };
  }
  return 'not-due';
}

/** When the next time begins, s since boot; null without a clock or times. */
export function nextSlotS(slots: readonly Slot[], { clock, nowS }: EngineInput): number | null {
  if (!clock) return null;
  let next: number | null = null;
  for (const { daySecond } of slots) {
    const aheadS = daySecond - clock.daySecond;
    const atS = nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S);
    if (next === null || atS < next) next = atS;
  }
  return next;
}

/** When the next time is due by its days as well, s since boot; null without a clock or times. */
export function nextDueS(slots: readonly Slot[], clock: EngineInput['clock'], nowS: number): number | null {
  if (!clock) return null;
  let next: number | null = null;
  for (const { daySecond, days } of slots)
    for (let day = 0; day <= 7; day += 1) {
      const aheadS = day * DAY_S + daySecond - clock.daySecond;
      if (aheadS <= 0 || ((days >> ((clock.weekday + day) % 7)) & 1) === 0) continue;
      if (next === null || nowS + aheadS < next) next = nowS + aheadS;
    }
  return next;
}

export const boundSlots = (slots: SavedSlots): Slot[] =>
  slots.map(({ minute, days }) => ({ daySecond: minute * 60, days }));

/** Times on the fullest day of the week. */
export const mostTimesADay = (slots: SavedSlots): number =>
  Math.max(...WEEKDAYS.map((day) => slots.filter(({ days }) => ((days >> day) & 1) === 1).length));
const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6] as const;

const DAY_MINUTES = 1440;

export function slotContradictions(
  slots: SavedSlots,
  { minIntervalS, hours }: LineSettings,
): readonly Contradiction[] {
  const sorted = [...slots].sort((a, b) => a.minute - b.minute);
  const gaps = sorted.flatMap((slot, at) => {
    const next = sorted[(at + 1) % sorted.length];
    // Two times on days that never meet are no neighbours.
    if (!next || next === slot || (slot.days & next.days) === 0) return [];
    return [(next.minute - slot.minute + DAY_MINUTES) % DAY_MINUTES];
  });
  const closest = Math.min(...gaps, Infinity) * 60;
  const isEmpty = hours?.fromMinute === hours?.toMinute;
  const outside =
    hours && !isEmpty
      ? sorted.find((slot) => !isBetween(hours.fromMinute, hours.toMinute, slot.minute))
      : undefined;
  return [
    ...found(closest < minIntervalS, 'slots-too-close', 'slots', 'minInterval', closest, minIntervalS),
    ...(outside
      ? found(true, 'slot-outside-hours', 'slots', 'hours', outside.minute, hours?.fromMinute ?? 0)
      : []),
  ];
}
