/** What a board's engine is told, from the newest values of the channels that it goes by. */
import type { LocalTime } from '../../quantity/localTime.ts';
import type { EngineInput, Order, RawReading } from '../contract/types.ts';
import { readSensor } from './combined.ts';
import type { Surroundings } from '../conditions/conditions.ts';
import type { ContactsInput } from '../contacts/contract.ts';
import { AROUND_STALE_S, type AroundIds, type BoardEngine } from './boardEngine.ts';

/** Whatever can be asked for readings: a stand-in's world, the page's streams, a day of the log. */
export type Senses = {
  /** Newest value of a channel and its time, ms since 1970; null while nothing came. */
  readonly newest: (channelId: string) => { readonly raw: number; readonly timeMs: number } | null;
  /** What a raw value of a channel means, in the unit of its quantity; null where it means nothing. */
  readonly meant: (channelId: string, raw: number) => number | null;
  /** Whether a channel is known not to have come to rest; missing where nobody watches. */
  readonly isMoving?: (channelId: string) => boolean;
  /** Local time at a moment; null while the clock is unknown. */
  readonly localTime: (timeMs: number) => LocalTime | null;
  /** Sunrise and sunset of that day in seconds of the local day; null where they are not known. */
  readonly sunTimes?: (timeMs: number) => ContactsInput['sun'];
};

/**
 * One input of the engine.
 * @param nowMs ms since 1970
 * @param bootMs when the board was switched on: the engine's seconds count from here
 */
export function engineInput(
  engine: BoardEngine,
  senses: Senses,
  nowMs: number,
  bootMs: number,
  orders: readonly Order[] = [],
): EngineInput {
  const secondsAt = (timeMs: number) => Math.floor((timeMs - bootMs) / 1000);
  const nowS = secondsAt(nowMs);
  const read = (channelId: string | null): RawReading | null => {
    const one = channelId === null ? null : senses.newest(channelId);
    // Whole numbers only; a median or a voltage may fall between two.
    return one && { raw: Math.round(one.raw), atS: secondsAt(one.timeMs) };
  };
  const exactly = (channelId: string) => {
    const one = senses.newest(channelId);
    return one && { raw: one.raw, atS: secondsAt(one.timeMs) };
  };
  return {
    ...surroundings(engine.around, engine, senses, nowMs, bootMs),
    sensors: engine.sensors.map((sensor, at): RawReading | null => {
      const staleAfterS = engine.config.sensors[at]?.staleAfterS ?? AROUND_STALE_S;
      const reading = readSensor(sensor, exactly, nowS, staleAfterS);
      const isMoving = sensor.members.some(({ channelId }) => senses.isMoving?.(channelId) === true);
      return reading && isMoving ? { ...reading, unsettled: true } : reading;
    }),
    tanks: engine.tankChannelIds.map(read),
    orders,
  };
}

/** One input of the board's contacts. */
export const contactsInput = (
  engine: BoardEngine,
  senses: Senses,
  nowMs: number,
  bootMs: number,
): ContactsInput => ({
  ...surroundings(engine.contactsAround, engine, senses, nowMs, bootMs),
  sun: senses.sunTimes?.(nowMs) ?? null,
});

/** The time, and what is about each line or contact. */
function surroundings(
  ids: readonly AroundIds[],
  { batteryId }: BoardEngine,
  senses: Senses,
  nowMs: number,
  bootMs: number,
): Surroundings {
  const secondsAt = (timeMs: number) => Math.floor((timeMs - bootMs) / 1000);
  const nowS = secondsAt(nowMs);
  const valueOf = (channelId: string | null): number | null => {
    const one = channelId === null ? null : senses.newest(channelId);
    if (channelId === null || !one || nowS - secondsAt(one.timeMs) > AROUND_STALE_S) return null;
    return senses.meant(channelId, one.raw);
  };
  const times = (channelId: string | null, factor: number) => {
    const value = valueOf(channelId);
    return value === null ? null : Math.round(value * factor);
  };
  /** A switch: half and more is on. */
  const isSet = (channelId: string | null) => {
    const value = valueOf(channelId);
    return value === null ? null : value >= 0.5;
  };
  return {
    nowS,
    clock: senses.localTime(nowMs),
    around: ids.map(({ airId, lightId, rainId, soilId, skipId }) => ({
      airTenthsC: times(airId, 10),
      light: times(lightId, 1),
      rain: isSet(rainId),
      soilTenthsC: times(soilId, 10),
      skip: isSet(skipId),
    })),
    batteryMv: times(batteryId, 1000),
  };
}
