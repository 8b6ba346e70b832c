/** How vectors write what is read and known: short rows of whole numbers, and only what has changed. */
import { z } from '../../quantity/schema.ts';
import type { Around, EngineInput, RawReading } from '../contract/types.ts';

export const int = z.int();
export const maybe = int.nullable();
/** Raw value, and 1 when whoever read it knows that it has not settled. Read at the second of the call. */
const reading = z.tuple([int, int]).nullable();
/** Air in tenths of °C, light, rain (0 or 1), soil in tenths of °C, the skip switch (0 or 1). */
const around = z.tuple([maybe, maybe, maybe, maybe, maybe]);

/** What every call may tell, of lines and of contacts. */
export const CALL_FIELDS = {
  /** Seconds since boot. */
  t: int,
  /** By sensor; left out where none was read. */
  sensors: z.array(reading).optional(),
  /** Second of the local day, weekday; null: unknown. Left out: the clock ran on since the last call. */
  clock: z.tuple([int, int]).nullable().optional(),
  /** By line or contact. Left out: as at the last call. So the battery, in mV. */
  around: z.array(around).optional(),
  battery: maybe.optional(),
  /** 1 where what a board keeps must be written down. */
  write: int.optional(),
};

export const bit = (isSo: boolean | null): number | null => (isSo === null ? null : isSo ? 1 : 0);
const isSet = (value: number | null): boolean | null => (value === null ? null : value === 1);

export const aroundRow = (one: Around): z.infer<typeof around> => [
  one.airTenthsC,
  one.light,
  bit(one.rain),
  one.soilTenthsC,
  bit(one.skip),
];
export const aroundFrom = ([airTenthsC, light, rain, soilTenthsC, skip]: z.infer<typeof around>): Around => ({
  airTenthsC,
  light,
  rain: isSet(rain),
  soilTenthsC,
  skip: isSet(skip),
});

export const readingFrom = (row: z.infer<typeof reading> | undefined, atS: number): RawReading | null =>
  row ? { raw: row[0], atS, unsettled: row[1] === 1 } : null;

export const isAlike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

type Clock = EngineInput['clock'];
/** The clock a while later; it never passes midnight within a trace without being told again. */
export const ranOn = (clock: Clock, sinceS: number): Clock =>
  clock && { daySecond: clock.daySecond + sinceS, weekday: clock.weekday };

/** As a call tells it: second of the day and weekday, null for unknown; left out, it ran on. */
export const clockNow = (
  told: readonly [number, number] | null | undefined,
  before: Clock,
  sinceS: number,
): Clock => (told === undefined ? ranOn(before, sinceS) : told && { daySecond: told[0], weekday: told[1] });
