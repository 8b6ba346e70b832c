import { describe, expect, test } from 'vitest';
import {
  configOf,
  DRY,
  GUARDS,
  inputAt,
  LINE,
  MIDDLE,
  NO_CONDITIONS,
  reads,
  run,
  seconds,
  SENSOR,
  told,
  WET,
} from '../engine/engineForTests.ts';
import type { Program } from './programs.ts';
import { nextSlotS, slotContradictions } from './slots.ts';
import type { Conditions } from '../conditions/conditions.ts';
import type { Around, EngineInput } from '../contract/types.ts';

const GENTLE = { ...GUARDS, responseS: 60, noRiseTimes: 99 };
/** What is known about the only line. */
const about = (known: Partial<Around>): Partial<EngineInput> => ({
  around: [{ airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null, ...known }],
});
const reasonOf = (inputs: readonly EngineInput[], change: Parameters<typeof configOf>[0]) =>
  run(inputs, configOf(change)).at(-1)?.state.lines[0]?.reason;

test('alert only never waters', () => {
  expect(reasonOf([reads(700, DRY)], { program: { kind: 'alert-only' } })).toBe('alert-only');
});

describe('pulse and soak', () => {
  const program: Program = {
    kind: 'pulse-soak',
    startTenths: 300,
    stopTenths: 600,
    pulseMl: 120,
    soakS: 720,
    mostPulses: 3,
    restS: 7200,
  };
  const config = configOf({ program, guards: GENTLE });
  test('small dose, wait, look again; at most so many; then a rest', () => {
    // 120 ml take 12 s; the soil never answers.
    expect(told(seconds(config, 600, 10_000, () => DRY).events)).toEqual([
      '600 started below-start',
      '612 stopped dose-done',
      '1332 started below-stop',
      '1344 stopped dose-done',
      '2064 started below-stop',
      '2076 stopped dose-done',
      // 7200 s after the end of the third.
      '9276 started below-start',
      '9288 stopped dose-done',
    ]);
  });
  test('once begun it goes on to the stop limit, not only above the start limit', () => {
    const { events } = seconds(config, 600, 4000, (nowS) => (nowS < 620 ? DRY : nowS < 1400 ? MIDDLE : 600));
    expect(told(events)).toEqual([
      '600 started below-start',
      '612 stopped dose-done',
      '1332 started below-stop',
      '1344 stopped dose-done',
    ]);
  });
  test('wet for a moment while the water passes the probe does not end it; wet after the soak does', () => {
    const passing = seconds(config, 600, 1340, (nowS) => (nowS > 612 && nowS < 700 ? WET : MIDDLE - 110));
    expect(told(passing.events)).toContain('1332 started below-stop');
    const dried = (nowS: number) => (nowS < 612 ? DRY : nowS < 1500 ? WET : MIDDLE);
    const { events, state } = seconds(config, 600, 1600, dried);
    expect(told(events)).toHaveLength(2);
    expect(state.lines[0]).toMatchObject({ pulses: 0, reason: 'not-below-start' });
  });
  test('an old reading that says wet does not end it', () => {
    const { state } = seconds(config, 600, 612, () => DRY);
    // Read at 1300 s, stale from 1330 s on, the soak over at 1332 s.
    const steps = run([reads(1300, WET), inputAt(1340), reads(1341, MIDDLE)], config, state);
    expect(told(steps.flatMap((one) => one.events))).toContain('1341 started below-stop');
  });
});

describe('single dose', () => {
  const program: Program = { kind: 'single-dose', startTenths: 300, doseMl: 100, intervalS: 4000 };
  test('one dose, then nothing for its own interval', () => {
    const { events } = seconds(configOf({ program, guards: GENTLE }), 600, 8100, () => DRY);
    expect(told(events)).toEqual([
      '4000 started below-start',
      '4010 stopped dose-done',
      '8000 started below-start',
      '8010 stopped dose-done',
    ]);
  });
});

describe('timer', () => {
  // Six in the morning on Monday, Wednesday and Friday.
  const program: Program = {
    kind: 'timer',
    slots: [{ daySecond: 21_600, days: 0b0010101 }],
    doseMl: 100,
  };
  /** Booted at five on a weekday, so six o'clock is 3600 s later. */
  const from = (weekday: number, bootDayS = 18_000) => {
    return (nowS: number) => ({
      clock: {
        daySecond: (bootDayS + nowS) % 86_400,
        weekday: (weekday + Math.trunc((bootDayS + nowS) / 86_400)) % 7,
      },
    });
  };
  const config = configOf({ program, guards: GENTLE });
  test('runs at its time on its days, whatever the probe says', () => {
    const days = seconds(config, 1, 3 * 86_400, () => WET, from(0)).events;
    expect(told(days)).toEqual([
      '3600 started timer',
      '3610 stopped dose-done',
      `${3600 + 2 * 86_400} started timer`,
      `${3610 + 2 * 86_400} stopped dose-done`,
    ]);
  });
  test('without a clock it holds and says so', () => {
    expect(reasonOf([reads(700, DRY)], { program })).toBe('clock-unknown');
  });
  test('a time that passed before boot is missed, not made up for', () => {
    expect(told(seconds(config, 1, 5000, () => DRY, from(0, 21_700)).events)).toEqual([]);
  });
  test('held back at its time it still runs within the hour, and not after', () => {
    const wet: Partial<Conditions> = { noRain: true };
    const rainy = configOf({ program, guards: GENTLE, conditions: { ...NO_CONDITIONS, ...wet } });
    const until =
      (endS: number) =>
      (nowS: number): Partial<EngineInput> => ({ ...from(0)(nowS), ...about({ rain: nowS < endS }) });
    expect(told(seconds(rainy, 1, 9000, () => DRY, until(7000)).events)[0]).toBe('7000 started timer');
    expect(told(seconds(rainy, 1, 9000, () => DRY, until(7200)).events)).toEqual([]);
  });
  test('the hour that a clock is set back does not water twice', () => {
    const twice = (nowS: number) => ({
      clock: { daySecond: 18_000 + nowS - (nowS > 4000 ? 3600 : 0), weekday: 0 },
    });
    expect(told(seconds(config, 1, 9000, () => DRY, twice).events)).toHaveLength(2);
  });
  test('a time just before midnight counts for its own day', () => {
    const late: Program = { kind: 'timer', slots: [{ daySecond: 86_000, days: 0b0000001 }], doseMl: 50 };
    // Monday 23:50 to Tuesday: boot hold is over at 00:00, ten minutes later.
    const { events } = seconds(
      configOf({ program: late, guards: GENTLE }),
      1,
      2000,
      () => DRY,
      from(0, 85_800),
    );
    expect(told(events)).toEqual(['600 started timer', '605 stopped dose-done']);
  });
});

describe('veto', () => {
  const at = (interrupts: boolean): Program => ({
    kind: 'veto',
    slots: [{ daySecond: 21_600, days: 127 }],
    doseMl: 200,
    wetTenths: 500,
    interrupts,
  });
  const clock = (nowS: number) => ({ clock: { daySecond: 18_000 + nowS, weekday: 0 } });
  test('a dry probe permits, a wet one does not, an unreadable one holds', () => {
    const permitted = seconds(configOf({ program: at(false) }), 1, 3700, () => 499, clock);
    expect(told(permitted.events)[0]).toBe('3600 started dry-enough');
    const vetoed = seconds(configOf({ program: at(false) }), 1, 3700, () => 500, clock);
    expect(vetoed.state.lines[0]?.reason).toBe('too-wet');
    expect(reasonOf([inputAt(3600, clock(3600))], { program: at(false) })).toBe('no-reading');
  });
  test.each([
    [true, '3605 stopped wet-veto'],
    [false, '3620 stopped dose-done'],
  ])('interrupts %s: a probe that turns wet under way, %s', (interrupts, end) => {
    const turning = (nowS: number) => (nowS < 3605 ? DRY : 700);
    const { events } = seconds(configOf({ program: at(interrupts) }), 1, 3700, turning, clock);
    expect(told(events)[1]).toBe(end);
  });
});

describe('leader and followers', () => {
  const follower = (everyNth: number, sharePercent = 50) => ({
    ...LINE,
    sensor: null,
    program: { kind: 'follower', leader: 0, sharePercent, everyNth } as const,
  });
  const config = (everyNth: number) => ({
    ...configOf({ guards: GENTLE }),
    lines: [{ ...LINE, guards: GENTLE }, follower(everyNth)],
  });
  const ofFollower = (everyNth: number) =>
    told(seconds(config(everyNth), 600, 1900, () => DRY).events.filter((event) => event.line === 1));
  test('the follower runs its share of the leader’s time, once the leader has done', () => {
    expect(ofFollower(1)).toEqual([
      '620 started follows',
      '630 stopped dose-done',
      '1220 started follows',
      '1230 stopped dose-done',
      '1820 started follows',
      '1830 stopped dose-done',
    ]);
  });
  test('it may skip cycles', () => {
    expect(ofFollower(2)).toEqual(['1220 started follows', '1230 stopped dose-done']);
  });
  test('an order to the leader is no cycle', () => {
    const order = { kind: 'water', line: 0, volumeMl: 50 } as const;
    const { events } = seconds(
      config(1),
      700,
      720,
      () => WET,
      (nowS) => (nowS === 700 ? { orders: [order] } : {}),
    );
    expect(events.some((event) => event.line === 1 && event.kind === 'started')).toBe(false);
  });
});

describe('a faulty probe', () => {
  const program: Program = { kind: 'single-dose', startTenths: 300, doseMl: 100, intervalS: 4000 };
  const faulty = (fallbackMl: number) => {
    const config = configOf({ program, fallbackMl, guards: GENTLE });
    // Looked at every half hour, and again four seconds later: 40 ml take four.
    const inputs = Array.from({ length: 200 }, (_, at) => inputAt(Math.trunc(at / 2) * 1800 + (at % 2) * 4));
    return told(run(inputs, config).flatMap((one) => one.events));
  };
  test('holds by default', () => expect(faulty(0)).toEqual([]));
  test('or gives a small dose once a day, the first a day after boot', () => {
    expect(faulty(40)).toEqual([
      '86400 started fallback',
      '86404 stopped dose-done',
      '172800 started fallback',
      '172804 stopped dose-done',
    ]);
  });
});

describe('conditions hold back automatic starts, and what nobody knows holds them too', () => {
  const clock = (daySecond: number) => ({ daySecond, weekday: 0 });
  test.each([
    [{ hours: { fromS: 72_000, toS: 25_200 } }, {}, 'clock-unknown'],
    [{ hours: { fromS: 72_000, toS: 25_200 } }, { clock: clock(71_999) }, 'outside-hours'],
    [{ hours: { fromS: 72_000, toS: 25_200 } }, { clock: clock(72_000) }, 'below-start'],
    [{ hours: { fromS: 72_000, toS: 25_200 } }, { clock: clock(25_199) }, 'below-start'],
    [{ hours: { fromS: 72_000, toS: 25_200 } }, { clock: clock(25_200) }, 'outside-hours'],
    [{ hours: { fromS: 3600, toS: 7200 } }, { clock: clock(7200) }, 'outside-hours'],
    [{ hours: { fromS: 3600, toS: 7200 } }, { clock: clock(3600) }, 'below-start'],
    [{ darkBelow: 300 }, {}, 'light-unknown'],
    [{ darkBelow: 300 }, about({ light: 300 }), 'not-dark'],
    [{ darkBelow: 300 }, about({ light: 299 }), 'below-start'],
    [{ airBelowTenthsC: 300 }, {}, 'air-unknown'],
    [{ airBelowTenthsC: 300 }, about({ airTenthsC: 300 }), 'air-warm'],
    [{ airBelowTenthsC: 300 }, about({ airTenthsC: 299 }), 'below-start'],
    [{ soilAboveTenthsC: 20 }, {}, 'soil-temperature-unknown'],
    [{ soilAboveTenthsC: 20 }, about({ soilTenthsC: 20 }), 'soil-cold'],
    [{ soilAboveTenthsC: 20 }, about({ soilTenthsC: 21 }), 'below-start'],
    [{ noRain: true }, {}, 'rain-unknown'],
    [{ noRain: true }, about({ rain: true }), 'rain'],
    [{ noRain: true }, about({ rain: false }), 'below-start'],
    [{ batteryAboveMv: 12_000 }, {}, 'battery-unknown'],
    [{ batteryAboveMv: 12_000 }, { batteryMv: 11_999 }, 'battery-low'],
    [{ batteryAboveMv: 12_000 }, { batteryMv: 12_000 }, 'below-start'],
  ] as const)('%j with %j: %s', (conditions, known, reason) => {
    expect(reasonOf([reads(700, DRY, known)], { conditions: { ...NO_CONDITIONS, ...conditions } })).toBe(
      reason,
    );
  });
  test('an order by hand is not asked', () => {
    const order = { kind: 'water', line: 0, volumeMl: 50 } as const;
    expect(
      reasonOf([reads(700, WET, { ...about({ rain: true }), orders: [order] })], {
        conditions: { ...NO_CONDITIONS, noRain: true },
      }),
    ).toBe('order');
  });
});

test('two probes are not mixed up: each line looks at its own', () => {
  const config = {
    ...configOf({}, { sensors: [SENSOR, SENSOR], atOnce: 2 }),
    lines: [LINE, { ...LINE, sensor: 1 }],
  };
  const input = inputAt(700, {
    sensors: [reads(700, WET).sensors[0] ?? null, reads(700, DRY).sensors[0] ?? null],
  });
  expect(run([input], config)[0]?.on).toEqual([false, true]);
});

describe('the times of a timer', () => {
  const { clock, ...input } = inputAt(1000);
  const at = (daySecond: number): EngineInput => ({ ...input, clock: { daySecond, weekday: 0 } });
  const slots = [
    { daySecond: 7200, days: 127 },
    { daySecond: 3600, days: 127 },
  ];
  test.each([
    ['the sooner of two', 3000, 1000 + 600],
    ['one that is now comes again in a day, the other sooner', 3600, 1000 + 3600],
    ['past midnight the first of the next day', 80_000, 1000 + 86_400 - 80_000 + 3600],
  ])('%s', (_, daySecond, next) => {
    expect(nextSlotS(slots, at(daySecond))).toBe(next);
  });
  test('without a clock or without times there is none', () => {
    expect(nextSlotS(slots, { ...input, clock: null })).toBeNull();
    expect(nextSlotS([], at(3000))).toBeNull();
    expect(clock).toBeNull();
  });
  test('two times nearer than the minimum interval are told with both fields and numbers', () => {
    const line = { minIntervalS: 1200, dailyMaxMl: 1, responseS: 1, hours: null, programOf: () => null };
    const times = [
      { minute: 390, days: 127 },
      { minute: 400, days: 127 },
    ];
    expect(slotContradictions(times, line)).toEqual([
      { kind: 'slots-too-close', at: 'slots', against: 'minInterval', value: 600, limit: 1200 },
    ]);
    const never = { ...line, minIntervalS: 60, hours: { fromMinute: 300, toMinute: 300 } };
    expect(slotContradictions(times, never)).toEqual([]);
  });
});
