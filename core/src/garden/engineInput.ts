/** What a board's engine is told, from the newest values of the garden's channels. */
import type { EngineInput, Order, RawReading } from '../control/engine/types.ts';
import { corrected } from '../temperature/correction.ts';
import { AROUND_STALE_S, type BoardEngine } from './engineOf.ts';
import type { Channel } from './schema.ts';

export type Newest = { readonly raw: number; readonly atS: number };
export type Clock = NonNullable<EngineInput['clock']>;

/**
 * @param newest of a channel, on the engine's own clock; null while nothing came
 * @param fullScale of a channel's converter, counts
 */
export function engineInput(
  engine: BoardEngine,
  nowS: number,
  newest: (channelId: string) => Newest | null,
  clock: Clock | null,
  orders: readonly Order[] = [],
  fullScale: (channel: Channel) => number = () => 4095,
): EngineInput {
  const { around } = engine;
  const read = (channelId: string | null): RawReading | null => {
    const one = channelId === null ? null : newest(channelId);
    // Whole numbers only; a median or a voltage may fall between two.
    return one && { raw: Math.round(one.raw), atS: one.atS };
  };
  const valueOf = (channel: Channel | null): number | null => {
    const one = channel && newest(channel.id);
    if (!channel || !one || nowS - one.atS > AROUND_STALE_S) return null;
    return corrected(channel.correction, one.raw, fullScale(channel));
  };
  const times = (value: number | null, factor: number) =>
    value === null ? null : Math.round(value * factor);
  const light = valueOf(around.light);
  const rain = valueOf(around.rain);
  return {
    nowS,
    sensors: engine.sensorChannelIds.map(read),
    tanks: engine.tankChannelIds.map(read),
    clock,
    airTenthsC: times(valueOf(around.air), 10),
    light: times(light, 1),
    rain: rain === null ? null : rain >= 0.5,
    batteryMv: times(valueOf(around.battery), 1000),
    soilTenthsC: around.soil.map((channel) => times(valueOf(channel), 10)),
    orders,
  };
}

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Local time of the day in a zone. Slow (a formatter), so callers that step each second keep the offset of the hour. */
export function clockIn(timeZone: string): (timeMs: number) => Clock {
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  });
  // Offsets change at quarter hours only, so within one a clock just counts on.
  const QUARTER_MS = 900_000;
  let quarter = Number.NaN;
  let start: Clock = { daySecond: 0, weekday: 0 };
  return (timeMs) => {
    const now = Math.floor(timeMs / QUARTER_MS);
    if (now !== quarter) {
      quarter = now;
      start = clockOfParts(format.formatToParts(now * QUARTER_MS));
    }
    return {
      daySecond: start.daySecond + Math.floor((timeMs - quarter * QUARTER_MS) / 1000),
      weekday: start.weekday,
    };
  };
}

function clockOfParts(parts: readonly Intl.DateTimeFormatPart[]): Clock {
  const part = (type: string) => parts.find((one) => one.type === type)?.value ?? '0';
  return {
    daySecond: Number(part('hour')) * 3600 + Number(part('minute')) * 60 + Number(part('second')),
    weekday: Math.max(0, WEEKDAYS.indexOf(part('weekday'))),
  };
}
