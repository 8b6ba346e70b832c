import { describe, expect, test } from 'vitest';
import {
  follows,
  isSoundOrder,
  MOST_LEAP_S,
  NOTHING_KEPT,
  soundInput,
  soundLines,
  soundMemory,
} from './border.ts';
import { configOf, GUARDS, inputAt, LINE, reads, SENSOR, UNTIL_WET } from './engineForTests.ts';

const NOT_NUMBERS = [Number.NaN, Infinity, -Infinity, 1e300, 0.5] as const;

describe('time', () => {
  test.each<readonly [number, number, boolean]>([
    [0, 0, true],
    [5, 4, true],
    [4, 5, false],
    [-1, -2, false],
    [MOST_LEAP_S, 0, true],
    [MOST_LEAP_S + 1, 0, false],
    [4_000_000_000, 3_999_999_999, false],
    ...NOT_NUMBERS.map((one) => [one, 0, false] as const),
  ])('%d after %d: %s', (nowS, beforeS, expected) => expect(follows(nowS, beforeS)).toBe(expected));
});

describe('what the engine is told', () => {
  test('a sound input is the same one, unchanged', () => {
    const input = reads(10, 250, { clock: { daySecond: 0, weekday: 6 }, batteryMv: -3 });
    expect(soundInput(input)).toBe(input);
  });
  test('a reading of a time that cannot be is as old as can be', () => {
    for (const atS of [...NOT_NUMBERS, 11])
      expect(soundInput(inputAt(10, { sensors: [{ raw: 2000, atS }] })).sensors[0]?.atS).toBeLessThan(-1e9);
  });
  test('a clock, a battery, a surrounding that cannot be are not known', () => {
    for (const bad of NOT_NUMBERS) {
      expect(soundInput(inputAt(10, { clock: { daySecond: bad, weekday: 0 } })).clock).toBeNull();
      expect(soundInput(inputAt(10, { batteryMv: bad })).batteryMv).toBeNull();
      const around = [{ airTenthsC: bad, light: 4, rain: true, soilTenthsC: bad, skip: false }];
      expect(soundInput(inputAt(10, { around })).around).toEqual([
        { airTenthsC: null, light: 4, rain: true, soilTenthsC: null, skip: false },
      ]);
    }
    expect(soundInput(inputAt(10, { clock: { daySecond: 86_400, weekday: 0 } })).clock).toBeNull();
    expect(soundInput(inputAt(10, { clock: { daySecond: 0, weekday: 7 } })).clock).toBeNull();
  });
});

test('an order has a whole volume of a millilitre to a hundred litres; to stop needs none', () => {
  const water = (volumeMl: number) => isSoundOrder({ kind: 'water', line: 0, volumeMl });
  expect([1, 100_000].map(water)).toEqual([true, true]);
  expect([0, -5, 100_001, ...NOT_NUMBERS].some(water)).toBe(false);
  expect(isSoundOrder({ kind: 'stop', line: 0 })).toBe(true);
});

describe('what a board kept', () => {
  const kept = { hoursMl: [10, 0, 20], locked: false, noRise: 1, pulses: 2, watchTenths: 250 };
  test('nothing is that of a new board', () => expect(soundMemory(undefined, LINE)).toEqual(NOTHING_KEPT));
  test('what can be stays', () => expect(soundMemory(kept, LINE)).toEqual(kept));
  test('damaged, a day has had all it may, a lock holds, a round is over, one more dose without a rise locks', () => {
    for (const bad of [...NOT_NUMBERS, -1]) {
      expect(soundMemory({ ...kept, hoursMl: [10, bad] }, LINE).hoursMl).toEqual([GUARDS.dailyMaxMl]);
      expect(soundMemory({ ...kept, noRise: bad }, LINE).noRise).toBe(GUARDS.noRiseTimes - 1);
      expect(soundMemory({ ...kept, pulses: bad }, LINE).pulses).toBe(1000);
      expect(soundMemory({ ...kept, watchTenths: bad }, LINE).watchTenths).toBeNull();
    }
    expect(soundMemory({ ...kept, hoursMl: Array.from({ length: 26 }, () => 1) }, LINE).hoursMl).toEqual([
      GUARDS.dailyMaxMl,
    ]);
    expect(soundMemory({ ...kept, locked: undefined }, LINE).locked).toBe(true);
  });
});

describe('settings', () => {
  test('of tests are sound', () => expect(soundLines(configOf())).toEqual([true]));
  test.each([...NOT_NUMBERS, -1])('%d in any guard, flow or program switches the line off', (bad) => {
    for (const key of Object.keys(GUARDS))
      expect(soundLines(configOf({ guards: { ...GUARDS, [key]: bad } }))).toEqual([false]);
    expect(soundLines(configOf({ flowMlPerMin: bad }))).toEqual([false]);
    expect(soundLines(configOf({ tubeMs: bad }))).toEqual([false]);
    expect(soundLines(configOf({ fallbackMl: bad }))).toEqual([false]);
    expect(soundLines(configOf({ program: { ...UNTIL_WET, capMl: bad } as typeof UNTIL_WET }))).toEqual([
      false,
    ]);
    expect(soundLines(configOf({}, { sensors: [{ ...SENSOR, staleAfterS: bad }] }))).toEqual([false]);
    expect(soundLines(configOf({}, { atOnce: bad }))).toEqual([false]);
  });
  test('a flow of nothing, a lock after no dose, a table that falls or is too short', () => {
    expect(soundLines(configOf({ flowMlPerMin: 0 }))).toEqual([false]);
    expect(soundLines(configOf({ guards: { ...GUARDS, noRiseTimes: 0 } }))).toEqual([false]);
    const tables = [
      [{ raw: 1, tenths: 0 }],
      [
        { raw: 5, tenths: 0 },
        { raw: 5, tenths: 9 },
      ],
      [
        { raw: 1, tenths: 0 },
        { raw: 2, tenths: 1001 },
      ],
    ];
    for (const table of tables)
      expect(soundLines(configOf({}, { sensors: [{ ...SENSOR, table }] }))).toEqual([false]);
  });
  test('only the line that goes by it is off', () => {
    const lines = [LINE, { ...LINE, sensor: 1 }];
    const sensors = [SENSOR, { ...SENSOR, settleS: Number.NaN }];
    expect(soundLines(configOf({}, { lines, sensors }))).toEqual([true, false]);
  });
});
