/**
 * The engine's border. Whatever comes in (readings, clock, orders, what was kept, settings) may hold something that is no number, negative or absurd: a loose
 * contact, a damaged memory, a slip in a file. It is cut off here, always towards less water, so that no guard moves.
 */
import { remembered } from '../../quantity/remembered.ts';
import type { EngineConfig, LineConfig, SensorConfig, TankConfig } from './settings.ts';
import type { Around, EngineInput, Order, RawReading, RememberedLine } from '../contract/types.ts';

/** Numbers of the contract are 32 bits wide on every board. */
const MOST = 2_147_483_647;
/** A leap of a board's clock that no board lives through between two calls, s: 400 days. */
export const MOST_LEAP_S = 400 * 86_400;
/** More than this no order by hand may ask for, ml. */
export const MOST_ORDER_ML = 100_000;
const HOURS = 25;

export const isWhole = (value: number, least: number, most: number): boolean =>
  Number.isInteger(value) && value >= least && value <= most;

/** A raw value that is no number lies in no window, and is implausible by that; a time that cannot be would count for too long. */
const isSoundReading = (one: RawReading, nowS: number): boolean => isWhole(one.atS, -MOST, nowS);

export const isSoundClock = ({ daySecond, weekday }: { daySecond: number; weekday: number }): boolean =>
  isWhole(daySecond, 0, 86_399) && isWhole(weekday, 0, 6);

export const isNumber = (value: number | null): boolean => value === null || isWhole(value, -MOST, MOST);

const known = (value: number | null) => (isNumber(value) ? value : null);

export const soundAround = (one: Around): Around => ({
  airTenthsC: known(one.airTenthsC),
  light: known(one.light),
  rain: one.rain,
  soilTenthsC: known(one.soilTenthsC),
  skip: one.skip,
});

const isSoundAround = ({ airTenthsC, light, soilTenthsC }: Around): boolean =>
  isNumber(airTenthsC) && isNumber(light) && isNumber(soilTenthsC);

/** Whether an order can be obeyed at all. An order without a volume has nothing to be wrong. */
export const isSoundOrder = (order: Order): boolean =>
  order.kind !== 'water' || isWhole(order.volumeMl, 1, MOST_ORDER_ML);

/** Whether a second can follow another one. */
export const follows = (nowS: number, beforeS: number): boolean =>
  isWhole(nowS, 0, MOST) && nowS >= beforeS && nowS - beforeS <= MOST_LEAP_S;

/** What the engine is told, without what cannot be: such a reading is as old as can be, such a value is not known. The same input where all of it can be. */
export function soundInput(input: EngineInput): EngineInput {
  const { nowS, sensors, tanks, clock, around, batteryMv } = input;
  const isSound =
    allSound(sensors, nowS) &&
    allSound(tanks, nowS) &&
    (clock === null || isSoundClock(clock)) &&
    around.every(isSoundAround) &&
    isNumber(batteryMv);
  if (isSound) return input;
  const read = (one: RawReading | null) => one && (isSoundReading(one, nowS) ? one : { ...one, atS: -MOST });
  return {
    ...input,
    sensors: sensors.map(read),
    tanks: tanks.map(read),
    clock: clock && isSoundClock(clock) ? clock : null,
    around: around.map(soundAround),
    batteryMv: known(batteryMv),
  };
}

function allSound(readings: readonly (RawReading | null)[], nowS: number): boolean {
  for (const one of readings) if (one && !isSoundReading(one, nowS)) return false;
  return true;
}

/** As it comes out of a board's memory, where anything may stand. */
type Kept = { readonly [Key in keyof RememberedLine]: unknown };

/** What a board kept of a line, as it can be believed: what cannot be is taken for the worst, a day that has had all it may and a dose that raised nothing. */
export function soundMemory(kept: Kept | undefined, line: LineConfig): RememberedLine {
  if (!kept) return NOTHING_KEPT;
  const { dailyMaxMl, noRiseTimes } = line.guards;
  const { locked } = kept;
  return {
    hoursMl: hoursOf(kept.hoursMl) ?? [Math.max(0, dailyMaxMl)],
    locked: typeof locked === 'boolean' ? locked : true,
    noRise: wholeOf(kept.noRise) ?? Math.max(0, noRiseTimes - 1),
    pulses: wholeOf(kept.pulses) ?? MOST_KEPT,
    watchTenths: wholeOf(kept.watchTenths),
  };
}

const MOST_KEPT = 1000;
const wholeOf = (value: unknown): number | null =>
  typeof value === 'number' && isWhole(value, 0, MOST_KEPT) ? value : null;

function hoursOf(value: unknown): number[] | null {
  if (!Array.isArray(value) || value.length > HOURS) return null;
  const whole = value.filter((one): one is number => typeof one === 'number' && isWhole(one, 0, MOST));
  return whole.length === value.length ? whole : null;
}

/** A board that has just come out of its box. */
export const NOTHING_KEPT: RememberedLine = {
  hoursMl: [],
  locked: false,
  noRise: 0,
  pulses: 0,
  watchTenths: null,
};

/** Every number below a place in the settings, but those that may be missing, is whole, and not negative unless it is named so. */
export function isSound(value: unknown, mayBeNegative: boolean): boolean {
  if (typeof value === 'number') return isWhole(value, mayBeNegative ? -MOST : 0, MOST);
  if (typeof value !== 'object' || value === null) return true;
  return Object.entries(value).every(([key, one]) => isSound(one, mayBeNegative || NEGATIVE.has(key)));
}
/** Degrees, light and raw values may lie below zero. */
const NEGATIVE: ReadonlySet<string> = new Set([
  'raw',
  'lowRaw',
  'highRaw',
  'soilLowRaw',
  'soilHighRaw',
  'minimumRaw',
  'darkBelow',
  'airBelowTenthsC',
  'soilAboveTenthsC',
  'brightAbove',
  // Before sunrise or sunset.
  's',
  // A leader that is not there.
  'leader',
]);

const isSoundTable = ({ table }: SensorConfig): boolean =>
  table.length >= 2 &&
  table.length <= 8 &&
  table.every(({ raw, tenths }, at) => {
    const before = table[at - 1];
    return isWhole(tenths, 0, 1000) && (!before || raw > before.raw);
  });

/** Whether what a place in the settings names is sound; a place that is not there is the engine's to refuse. */
const isSoundAt = <One extends SensorConfig | TankConfig>(
  list: readonly One[],
  at: number | null,
  isGood: (one: One) => boolean,
): boolean => {
  const one = at === null ? undefined : list[at];
  return one === undefined || isGood(one);
};

/** By line: whether its settings, its probe's and its reservoir's can be gone by. Worked out once for settings that stay the same. */
export const soundLines: (config: EngineConfig) => readonly boolean[] = remembered((config) =>
  config.lines.map(
    (line) =>
      isSound(line, false) &&
      line.flowMlPerMin >= 1 &&
      line.guards.noRiseTimes >= 1 &&
      isWhole(config.atOnce, 1, MOST) &&
      isSoundAt(config.sensors, line.sensor, (one) => isSound(one, false) && isSoundTable(one)) &&
      isSoundAt(config.tanks, line.tank, (one) => isSound(one, false)),
  ),
);
