import { describe, expect, test } from 'vitest';
import { setLimits, setWaterLine } from '../edits/plots.ts';
import { airAndWater, firstChannel, firstLine, onePlot } from '../edits/gardenForTests.ts';
import { channelsOfReplay, replayDay, type PastReading } from './replayDay.ts';

/** Raw 3000 is 0 %, 1000 is 100 %. Starts below 35 %, stops at 60; pulses of 100 ml at 10 ml a second, 900 s apart, four, then four hours of rest. */
const made = airAndWater(onePlot({ pump: { flowMlPerS: 10 } }), 3000, 1000).garden;
const plotId = made.plots[0]?.id ?? '';
const line = firstLine(made);
const garden = setWaterLine(setLimits(made, plotId, { startTenths: 350, stopTenths: 600 }), line.id, {
  staleAfterS: 600,
});
const channelId = firstChannel(garden).id;
const DAY0 = Date.UTC(2026, 4, 2);
const HOUR = 3_600_000;

/** A reading each five minutes, from a day before to the end of the day. */
const past = (percentAt: (hour: number) => number | null) =>
  new Map([
    [
      channelId,
      Array.from({ length: 2 * 288 }, (_, at) => DAY0 - 24 * HOUR + at * 300_000).flatMap(
        (timeMs): PastReading[] => {
          const percent = percentAt((timeMs - DAY0) / HOUR);
          return percent === null ? [] : [{ timeMs, raw: 3000 - 20 * percent }];
        },
      ),
    ],
  ]);
const replay = (percentAt: (hour: number) => number | null, of = garden) =>
  replayDay(of, line.id, past(percentAt), DAY0, DAY0 + 24 * HOUR);

describe('a day replayed', () => {
  test('in the middle of its band nothing happens, and the whole day has one reason', () => {
    const day = replay(() => 50);
    expect(day).toMatchObject({ runs: 0, volumeMl: 0, readings: 288 });
    expect(day?.stretches).toEqual([
      { fromMs: DAY0, toMs: DAY0 + 24 * HOUR, isOn: false, reason: 'not-below-start' },
    ]);
  });
  test('dry from six o’clock: four pulses, each soaking, then the rest', () => {
    const day = replay((hour) => (hour < 6 ? 50 : hour < 8 ? 30 : 50));
    expect(day).toMatchObject({ runs: 4, volumeMl: 400 });
    const on = day?.stretches.filter((one) => one.isOn) ?? [];
    // A leap of 20 % at six o'clock has to settle for ten minutes first; runs of 10 s, 900 s between them.
    expect(on.map((one) => (one.fromMs - DAY0) / 1000 - 21_600)).toEqual([600, 1510, 2420, 3330]);
    expect(on.every((one) => one.toMs - one.fromMs === 10_000)).toBe(true);
    expect(day?.stretches.map((one) => one.reason)).toContain('soaking');
  });
  test('stretches follow each other without a gap and end with the day', () => {
    const day = replay((hour) => 40 - hour / 2);
    const stretches = day?.stretches ?? [];
    for (const [at, one] of stretches.entries()) expect(one.fromMs).toBe(stretches[at - 1]?.toMs ?? DAY0);
    expect(stretches.at(-1)?.toMs).toBe(DAY0 + 24 * HOUR);
  });
  test('readings that stop make it stale, and a day without any says so', () => {
    const day = replay((hour) => (hour < 12 ? 50 : null));
    expect(day?.stretches.at(-1)).toMatchObject({ isOn: false, reason: 'stale' });
    expect(replay(() => null)).toMatchObject({ readings: 0, stretches: [{ reason: 'no-reading' }] });
  });
  test('it is shown as if it were switched on', () => {
    expect(firstLine(garden).automatic).toBe(false);
    expect(replay(() => 20)?.runs).toBeGreaterThan(0);
  });
  test('hours are local ones', () => {
    const night = setWaterLine({ ...garden, timeZone: 'Europe/London' }, line.id, {
      conditions: { ...line.conditions, hours: { fromMinute: 1200, toMinute: 420 } },
    });
    const on = replay(() => 20, night)?.stretches.filter((one) => one.isOn) ?? [];
    // British summer time: between seven and twenty o'clock is between six and nineteen UTC.
    expect(on.length).toBeGreaterThan(0);
    for (const one of on) {
      const hour = (one.fromMs - DAY0) / HOUR;
      expect(hour < 6 || hour >= 19).toBe(true);
    }
  });
});

test('channels that a replay needs: the probe, and what conditions go by', () => {
  const air = { ...firstChannel(garden), id: 'air', probeId: null, quantity: 'air temperature' as const };
  expect(channelsOfReplay({ ...garden, channels: [...garden.channels, air] }, line.id)).toEqual([
    channelId,
    'air',
  ]);
  expect(channelsOfReplay(garden, 'nobody')).toEqual([]);
  expect(replayDay(garden, 'nobody', new Map(), 0, 1)).toBeNull();
});
