import { describe, expect, test } from 'vitest';
import { countedMl, doseS, givenMl } from '../contract/dose.ts';
import { bootEngine, rememberedOf, stepEngine } from './engine.ts';
import { freeAtS } from './ration.ts';
import {
  configOf,
  DRY,
  GUARDS,
  inputAt,
  LINE,
  MIDDLE,
  rawOf,
  reads,
  run,
  seconds,
  SENSOR,
  told,
  WET,
} from './engineForTests.ts';
import type { Program } from '../programs/programs.ts';
import type { TankConfig } from './settings.ts';
import type { EngineInput } from '../contract/types.ts';

const last = <T>(items: readonly T[]): T => {
  const item = items[items.length - 1];
  if (item === undefined) throw new Error('empty');
  return item;
};
const reasonAfter = (inputs: readonly EngineInput[], config = configOf()) =>
  last(run(inputs, config)).state.lines[0]?.reason;

describe('run time and volume', () => {
  // 540 ml a minute are 9 ml a second; the tube takes two seconds.
  const flow = { flowMlPerMin: 540, tubeMs: 2000 };
  test.each([
    // 100 · 60000 ÷ 540 = 11111 ms, and 2000 for the tube: 13.1 s.
    [100, 13],
    // 5 · 60000 ÷ 540 = 555 ms: 2.555 s.
    [5, 3],
    [0, 2],
  ])('%d ml take %d s', (ml, runS) => expect(doseS(flow, ml)).toBe(runS));
  test('a run has at least one second', () => expect(doseS({ flowMlPerMin: 60_000, tubeMs: 0 }, 1)).toBe(1));
  test('13 s give 99 ml and count as 117', () => {
    expect(givenMl(flow, 13)).toBe(99);
    expect(givenMl(flow, 1)).toBe(0);
    expect(countedMl(flow, 13)).toBe(117);
    // 7 ml a minute: one second counts as a whole ml.
    expect(countedMl({ flowMlPerMin: 7 }, 1)).toBe(1);
  });
});

describe('until wet', () => {
  test('starts below the start limit once the boot hold is over', () => {
    const [early, start] = run([reads(599, DRY), reads(600, DRY)]);
    expect(early).toMatchObject({ on: [false], callAgainAtS: 600 });
    expect(early?.state.lines[0]?.reason).toBe('min-interval');
    expect(start).toMatchObject({
      on: [true],
      events: [{ kind: 'started', line: 0, atS: 600, reason: 'below-start', plannedS: 20, tenths: 250 }],
    });
  });
  test('runs on between the limits and stops at the stop limit, not before', () => {
    const steps = run([reads(600, DRY), reads(605, MIDDLE), reads(610, 600)]);
    expect(steps.map((one) => one.on[0])).toEqual([true, true, false]);
    expect(last(steps).events).toEqual([
      { kind: 'stopped', line: 0, atS: 610, reason: 'above-stop', ranS: 10, volumeMl: 100 },
    ]);
  });
  test('does not start between the limits, nor exactly at the start limit', () => {
    expect(reasonAfter([reads(700, MIDDLE)])).toBe('not-below-start');
    expect(reasonAfter([reads(700, 300)])).toBe('not-below-start');
    expect(last(run([reads(700, 299)])).on).toEqual([true]);
  });
  test('ends at its own cap, or at the maximum run when that comes first', () => {
    const capped = configOf({ program: { kind: 'until-wet', startTenths: 300, stopTenths: 600, capMl: 50 } });
    expect(told(seconds(capped, 600, 610, () => DRY).events)).toEqual([
      '600 started below-start',
      '605 stopped dose-done',
    ]);
    expect(told(seconds(configOf(), 600, 625, () => DRY).events)).toEqual([
      '600 started below-start',
      '620 stopped max-run',
    ]);
  });
});

describe('guard 3: the minimum interval', () => {
  const quick = configOf({ guards: { ...GUARDS, responseS: 60, noRiseTimes: 9 } });
  test('counts from the start of the last run', () => {
    expect(told(seconds(quick, 600, 1230, () => DRY).events)).toEqual([
      '600 started below-start',
      '620 stopped max-run',
      '1200 started below-start',
      '1220 stopped max-run',
    ]);
  });
  test('a reboot in the middle of a run waits the interval again', () => {
    const before = last(run([reads(600, DRY), reads(610, DRY)], quick));
    expect(before.on).toEqual([true]);
    const after = bootEngine(quick, rememberedOf(before.state, quick));
    expect(told(seconds(quick, 1, 601, () => DRY, undefined, after).events)).toEqual([
      '600 started below-start',
    ]);
  });
});

describe('guard 5: a reading that cannot be trusted never waters', () => {
  const raw = (nowS: number, value: number, atS = nowS, unsettled = false) =>
    inputAt(nowS, { sensors: [{ raw: value, atS, unsettled }] });
  test.each([
    ['stale', raw(700, rawOf(DRY), 669)],
    ['stale', raw(700, rawOf(DRY), 701)],
    ['implausible', raw(700, 4076)],
    ['implausible', raw(700, 19)],
    ['implausible', raw(700, NaN)],
    ['no-reading', inputAt(700)],
    ['unsettled', raw(700, rawOf(DRY), 700, true)],
  ] as const)('%s', (reason, input) => {
    expect(last(run([input]))).toMatchObject({ on: [false], state: { lines: [{ reason }] } });
  });
  test('a reading as old as the limit still counts', () => {
    expect(last(run([raw(700, rawOf(DRY), 670)])).on).toEqual([true]);
  });
  test('a run stops when the readings stop coming', () => {
    const long = configOf({ guards: { ...GUARDS, maxRunS: 300 } });
    const steps = run([reads(600, DRY), inputAt(630), inputAt(631)], long);
    expect(steps.map((one) => one.on[0])).toEqual([true, true, false]);
    expect(told(last(steps).events)).toEqual(['631 stopped stale']);
  });
  test('a probe pulled out of the soil leaps, and nothing starts until it has settled there', () => {
    const leaping = configOf({}, { sensors: [{ ...SENSOR, leapTenths: 50 }] });
    const { events } = seconds(leaping, 600, 1700, (nowS) => (nowS < 800 ? MIDDLE : DRY));
    expect(told(events)).toEqual(['1400 started below-start', '1420 stopped max-run']);
    expect(events.map((one) => one.reason)).toContain('unsettled');
    // 5.0 % are no leap yet, 5.1 % are one.
    const small = (step: number) =>
      reasonAfter([reads(690, 299 + step), reads(700, 299)], leaping) === 'unsettled';
    expect([small(50), small(51)]).toEqual([false, true]);
  });
  test('coming back from the rail is a leap', () => {
    const config = configOf();
    expect(reasonAfter([raw(690, 4095), reads(700, DRY)], config)).toBe('unsettled');
    expect(reasonAfter([raw(100, 4095), reads(700, DRY)], config)).toBe('below-start');
  });
});

describe('guard 2: the daily maximum', () => {
  const tight = configOf({ guards: { ...GUARDS, dailyMaxMl: 250, responseS: 60, noRiseTimes: 99 } });
  test('cuts the run that would go beyond it, and holds for a day', () => {
    const { events, state } = seconds(tight, 600, 3000, () => DRY);
    // Twenty seconds give 200 ml, five more the rest.
    expect(told(events)).toEqual([
      '600 started below-start',
      '620 stopped max-run',
      '1200 started below-start',
      '1205 stopped daily-max',
    ]);
    expect(state.lines[0]).toMatchObject({ reason: 'daily-max', ration: { sumMl: 250 } });
    const later = seconds(tight, 86_000, 90_010, () => DRY, undefined, state).events;
    // Given within the first hour, forgotten when the 25th has passed.
    expect(told(later)[0]).toBe('90000 started below-start');
  });
  test('survives a reboot when the board remembers, and an order by hand obeys it', () => {
    const { state } = seconds(tight, 600, 1300, () => DRY);
    const rebooted = bootEngine(tight, rememberedOf(state, tight));
    const ordered = last(
      run([reads(10, DRY, { orders: [{ kind: 'water', line: 0, volumeMl: 50 }] })], tight, rebooted),
    );
    expect(ordered.events).toContainEqual({ kind: 'refused', line: 0, atS: 10, reason: 'daily-max' });
    expect(ordered.on).toEqual([false]);
  });
});

describe('guard 4: the reservoir', () => {
  // Distance from the lid in mm: 300 is the minimum.
  const tank: TankConfig = {
    minimumRaw: 300,
    fallsWithWater: true,
    lowRaw: 20,
    highRaw: 400,
    staleAfterS: 60,
  };
  const config = configOf({ tank: 0 }, { tanks: [tank] });
  const with_ = (nowS: number, raw: number | null) =>
    reads(nowS, DRY, { tanks: [raw === null ? null : { raw, atS: nowS }] });
  test.each([
    [300, 'below-start'],
    [301, 'tank-low'],
    [401, 'tank-unknown'],
    [19, 'tank-unknown'],
    [null, 'tank-unknown'],
  ] as const)('at %s mm: %s', (raw, reason) => expect(reasonAfter([with_(700, raw)], config)).toBe(reason));
  test('stops within the very step that reads it low, an order too', () => {
    expect(told(run([with_(700, 290), with_(701, 301)], config).flatMap((one) => one.events))).toEqual([
      '700 started below-start',
      '701 stopped tank-low',
    ]);
    const ordered = {
      ...with_(10, 290),
      orders: [{ kind: 'water', line: 0, volumeMl: 900 }],
    } as const;
    const steps = run([ordered, with_(11, 305)], config);
    expect(steps.map((one) => one.on[0])).toEqual([true, false]);
  });
  test('a level that is no longer read stops as well; a float knows no in between', () => {
    expect(told(run([with_(700, 290), with_(761, null)], config).flatMap((one) => one.events))).toEqual([
      '700 started below-start',
      '761 stopped tank-unknown',
    ]);
    const float = { minimumRaw: 1, fallsWithWater: false, lowRaw: 0, highRaw: 1, staleAfterS: 60 };
    const floating = configOf({ tank: 0 }, { tanks: [float] });
    expect(reasonAfter([with_(700, 1)], floating)).toBe('below-start');
    expect(reasonAfter([with_(700, 0)], floating)).toBe('tank-low');
  });
  test('a level that says it was read later than now is not believed', () => {
    const later = reads(700, DRY, { tanks: [{ raw: 290, atS: 701 }] });
    expect(reasonAfter([later], config)).toBe('tank-unknown');
  });
  test('a line whose reservoir is missing from the settings does not run', () => {
    expect(reasonAfter([reads(700, DRY)], configOf({ tank: 0 }))).toBe('tank-unknown');
  });
});

describe('guard 6: doses that raise nothing', () => {
  const config = configOf({ guards: { ...GUARDS, noRiseTimes: 2, responseS: 700 } });
  test('lock the line; only a person unlocks it, and a reboot does not', () => {
    const { events, state } = seconds(config, 600, 4000, () => DRY);
    // Each dose is watched for 700 s after its end; the second one without a rise locks.
    expect(told(events)).toEqual([
      '600 started below-start',
      '620 stopped max-run',
      '1320 started below-start',
      '1340 stopped max-run',
      '2040 locked locked',
    ]);
    const rebooted = bootEngine(config, rememberedOf(state, config));
    expect(told(seconds(config, 1, 2000, () => DRY, undefined, rebooted).events)).toEqual([]);
    const order = { kind: 'water', line: 0, volumeMl: 50 } as const;
    expect(last(run([reads(10, DRY, { orders: [order] })], config, rebooted)).events[0]).toMatchObject({
      kind: 'refused',
      reason: 'locked',
    });
    const unlocked = run(
      [reads(10, DRY, { orders: [{ kind: 'unlock', line: 0 }] }), reads(600, DRY)],
      config,
      rebooted,
    );
    expect(unlocked.map((one) => one.on[0])).toEqual([false, true]);
  });
  test('an order to unlock that comes in the very second in which the line locks was meant for no lock, and clears none', () => {
    const before = seconds(config, 600, 2039, () => DRY).state;
    const unlock = { orders: [{ kind: 'unlock', line: 0 }] } as const;
    const both = run([reads(2040, DRY, unlock), reads(2041, DRY)], config, before);
    expect(told(both.flatMap((one) => one.events))).toEqual(['2040 locked locked']);
    expect(
      told(run([reads(2042, DRY, unlock)], config, last(both).state).flatMap((one) => one.events)),
    ).toEqual(['2042 unlocked order', '2042 started below-start']);
  });
  test('a dose given in full counts as well as a run that was cut; and the count outlives a reboot', () => {
    const pulses = configOf({
      program: {
        kind: 'pulse-soak',
        startTenths: 300,
        stopTenths: 600,
        pulseMl: 50,
        soakS: 700,
        mostPulses: 9,
        restS: 9000,
      },
      guards: { ...GUARDS, noRiseTimes: 2, responseS: 700 },
    });
    const once = seconds(pulses, 600, 1306, () => DRY);
    expect(once.state.lines[0]).toMatchObject({ noRise: 1, locked: false });
    const rebooted = bootEngine(pulses, rememberedOf(once.state, pulses));
    const { events } = seconds(pulses, 1, 1500, () => DRY, undefined, rebooted);
    // The second dose was under way: it is watched for from boot on, and the round goes on only where it shows.
    expect(told(events)).toEqual(['700 locked locked']);
    const rising = seconds(pulses, 1, 1500, (nowS) => (nowS > 300 ? DRY + 30 : DRY), undefined, rebooted);
    expect(told(rising.events)[0]).toBe('700 started below-stop');
    expect(told(rising.events)).not.toContain('1405 locked locked');
  });
  test('a rise within the time clears the count', () => {
    // It comes up by 2 % only, after the second dose: 250 to 270.
    const { events, state } = seconds(config, 600, 3000, (nowS) => (nowS > 1500 && nowS < 2000 ? 270 : 250));
    expect(told(events)).not.toContain('2040 locked locked');
    expect(state.lines[0]?.noRise).toBe(1);
  });
  test('a probe that is near the top cannot rise, and one that cannot be read proves nothing', () => {
    const nearTop = configOf({
      program: { kind: 'until-wet', startTenths: 990, stopTenths: 1000, capMl: 30 },
    });
    expect(seconds(nearTop, 600, 700, () => 985).state.lines[0]?.watch).toBeNull();
    // From 98.0 % it can just rise by the two percent that are asked for.
    expect(seconds(nearTop, 600, 700, () => 980).state.lines[0]?.watch).toMatchObject({ fromTenths: 980 });
    const started = run([reads(600, DRY), reads(620, DRY), inputAt(1400)], config);
    expect(last(started).state.lines[0]).toMatchObject({ watch: null, noRise: 0, locked: false });
  });
});

describe('guards 1 and 7', () => {
  test('a clock that goes back stops the run, holds as after a boot and forgets neither lock nor day', () => {
    const started = last(run([reads(600, DRY), reads(605, DRY)])).state;
    // The run that was cut is watched for its rise, from the step back on.
    const steps = run([reads(300, DRY), reads(1199, DRY), reads(1200, DRY)], configOf(), started);
    expect(steps[0]).toMatchObject({
      on: [false],
      // A run of 20 s was under way: all 200 ml count, though 50 had come.
      state: { lines: [{ reason: 'clock-went-back', ration: { sumMl: 200 } }] },
      events: [{ kind: 'stopped', reason: 'clock-went-back', ranS: 5, volumeMl: 50 }],
    });
    expect(steps.map((one) => one.on[0])).toEqual([false, false, true]);
  });
  test('a time that is no number waters nothing', () => {
    expect(last(run([reads(NaN, DRY)])).on).toEqual([false]);
    const started = last(run([reads(600, DRY)])).state;
    const steps = run([reads(NaN, DRY), reads(1499, DRY), reads(1500, DRY)], configOf(), started);
    expect(steps.map((one) => one.on[0])).toEqual([false, false, true]);
  });
  test('an order needs no dry soil, no interval and no switch, but ends at the maximum run', () => {
    const off = configOf({ enabled: false });
    const order = { kind: 'water', line: 0, volumeMl: 900 } as const;
    const { events } = seconds(
      off,
      1,
      40,
      () => WET,
      (nowS) => (nowS === 1 ? { orders: [order] } : {}),
    );
    expect(told(events)).toEqual(['1 started order', '21 stopped max-run']);
  });
  test('an order to stop stops, and a second one to water is refused while the line runs', () => {
    const water = { kind: 'water', line: 0, volumeMl: 100 } as const;
    const steps = run([
      reads(1, WET, { orders: [water] }),
      reads(2, WET, { orders: [water] }),
      reads(3, WET, { orders: [{ kind: 'stop', line: 0 }] }),
    ]);
    expect(told(steps.flatMap((one) => one.events))).toEqual([
      '1 started order',
      '2 refused already-runs',
      '3 stopped stop-order',
    ]);
  });
  test('switched off by the person, a run ends at once', () => {
    const started = last(run([reads(600, DRY)])).state;
    const stopped = stepEngine(started, reads(605, DRY), configOf({ enabled: false }));
    expect(told(stopped.events)).toEqual(['605 stopped switched-off']);
  });
});

describe('one supply, several lines', () => {
  const two = {
    ...configOf({}, { sensors: [SENSOR, SENSOR] }),
    lines: [LINE, { ...LINE, sensor: 1 }],
  };
  const both = (nowS: number) =>
    inputAt(nowS, {
      sensors: [
        { raw: rawOf(DRY), atS: nowS },
        { raw: rawOf(DRY), atS: nowS },
      ],
    });
  test('take turns when only one may run at once', () => {
    expect(run([both(600), both(620), both(621)], two).map((one) => one.on)).toEqual([
      [true, false],
      [false, true],
      [false, true],
    ]);
    expect(last(run([both(600)], { ...two, atOnce: 2 })).on).toEqual([true, true]);
  });
});

test('a refusal is told once, when its reason is new', () => {
  const steps = run([reads(700, MIDDLE), reads(701, MIDDLE), inputAt(740)]);
  expect(steps.map((one) => one.events.map((event) => event.reason))).toEqual([
    ['not-below-start'],
    [],
    ['stale'],
  ]);
});

test('a state that went through JSON goes on as if it had not', () => {
  const program: Program = { kind: 'timer', slots: [{ daySecond: 30_000, days: 127 }], doseMl: 80 };
  const config = configOf({ program });
  const { state } = seconds(config, 600, 700, () => DRY);
  const kept = JSON.parse(JSON.stringify(state)) as typeof state;
  const clock = { daySecond: 30_000, weekday: 2 };
  expect(stepEngine(kept, reads(701, DRY, { clock }), config)).toEqual(
    stepEngine(state, reads(701, DRY, { clock }), config),
  );
});

describe('what comes in and cannot be', () => {
  const bad = [Number.NaN, Infinity, -5, 1e12] as const;
  test.each(bad)('an order of %d ml is refused, with its reason', (volumeMl) => {
    const step = last(run([reads(10, DRY, { orders: [{ kind: 'water', line: 0, volumeMl }] })]));
    expect(step.on).toEqual([false]);
    expect(told(step.events)).toEqual(['10 refused bad-order']);
  });
  test('settings that are no numbers switch the line off, a run under way too', () => {
    const on = last(run([reads(600, DRY)]));
    expect(on.on).toEqual([true]);
    const broken = configOf({ guards: { ...GUARDS, maxRunS: Number.NaN } });
    const off = stepEngine(on.state, reads(601, DRY), broken);
    expect(off.on).toEqual([false]);
    expect(told(off.events)).toEqual(['601 stopped unsound-settings']);
    expect(told(stepEngine(off.state, reads(602, DRY), broken).events)).toEqual([]);
  });
  test.each([Number.NaN, Infinity, -1, 1e15, 700.5])(
    'a clock of %d s: outputs off, the day stays as it was',
    (nowS) => {
      const on = last(run([reads(600, DRY), reads(610, DRY)]));
      const off = stepEngine(on.state, reads(nowS, DRY), configOf());
      expect(off.on).toEqual([false]);
      expect(off.state.lines[0]).toMatchObject({ reason: 'clock-went-back', run: null });
      // 20 s of 10 ml, as much as it might still have given.
      expect(off.state.lines[0]?.ration.sumMl).toBe(200);
    },
  );
  test('a reading in air is no reading of the soil: nothing starts, a run ends, and the fallback stands in', () => {
    const inAir = { ...SENSOR, soilHighRaw: 2900 };
    const config = configOf({ fallbackMl: 30 }, { sensors: [inAir] });
    const out = run([reads(700, 40)], config);
    expect(last(out).state.lines[0]?.reason).toBe('out-of-soil');
    const pulled = run([reads(700, DRY), reads(701, 40)], config);
    expect(told(pulled.flatMap((one) => one.events))).toEqual([
      '700 started below-start',
      '701 stopped out-of-soil',
    ]);
    const day = seconds(config, 1, 90_000, () => 40);
    expect(told(day.events)).toEqual(['86400 started fallback', '86403 stopped dose-done']);
  });
  test('settings that stand against each other start nothing and stop what runs; an order by hand still works', () => {
    const at = (contradicts: boolean) => configOf({ contradicts });
    expect(last(run([reads(700, DRY)], at(true))).state.lines[0]?.reason).toBe('contradiction');
    const on = last(run([reads(700, DRY)], at(false)));
    expect(told(stepEngine(on.state, reads(701, DRY), at(true)).events)).toEqual([
      '701 stopped contradiction',
    ]);
    const order = { orders: [{ kind: 'water', line: 0, volumeMl: 50 }] } as const;
    expect(last(run([reads(10, DRY, order)], at(true))).on).toEqual([true]);
  });
});

describe('a dose that starts wet proves nothing', () => {
  const timer: Program = { kind: 'timer', slots: [{ daySecond: 600, days: 127 }], doseMl: 50 };
  const wetWeather = configOf({
    program: timer,
    guards: { ...GUARDS, noRiseTimes: 1, provesBelowTenths: 600 },
  });
  const clock = (nowS: number) => ({ clock: { daySecond: nowS % 86_400, weekday: 0 } });
  test('a timer in wet weather never locks; in soil below the stop limit it does', () => {
    expect(told(seconds(wetWeather, 1, 2000, () => 600, clock).events)).toEqual([
      '600 started timer',
      '605 stopped dose-done',
    ]);
    expect(told(seconds(wetWeather, 1, 2000, () => 599, clock).events)).toEqual([
      '600 started timer',
      '605 stopped dose-done',
      '1505 locked locked',
    ]);
  });
});

describe('what a board keeps carries its age', () => {
  const config = configOf({ guards: { ...GUARDS, noRiseTimes: 1000 } });
  test('hours that it lived through are counted on, time off is not', () => {
    // 20 s of 10 ml at 600; then wet. A look each hour.
    const { state } = seconds(config, 600, 620, () => DRY);
    let now = state;
    for (let hour = 1; hour <= 20; hour += 1) now = stepEngine(now, reads(hour * 3600, WET), config).state;
    const kept = rememberedOf(now, config);
    expect(kept[0]?.hoursMl[20]).toBe(200);
    // Off for as long as it likes; four more hours on, and a fifth, then it is forgotten: never sooner than 24 hours.
    let after = bootEngine(config, kept);
    const given = [1, 2, 3, 4, 5].map((hour) => {
      after = stepEngine(after, reads(hour * 3600, WET), config).state;
      return after.lines[0]?.ration.sumMl;
    });
    expect(given).toEqual([200, 200, 200, 200, 0]);
  });
  test('a board that starts anew each 23 hours frees its day all the same', () => {
    let kept = rememberedOf(seconds(config, 600, 620, () => DRY).state, config);
    for (let boot = 0; boot < 2; boot += 1) {
      let state = bootEngine(config, kept);
      for (let hour = 1; hour <= 23; hour += 1)
        state = stepEngine(state, reads(hour * 3600, WET), config).state;
      kept = rememberedOf(state, config);
    }
    expect(kept[0]?.hoursMl.reduce((sum, one) => sum + one, 0)).toBe(0);
  });
  test('it is written at starts, ends and full hours with water in the day, and at no other time', () => {
    const writes = (fromS: number, toS: number, tenths: number, from = bootEngine(config)) => {
      let state = from;
      const at: number[] = [];
      for (let nowS = fromS; nowS <= toS; nowS += 1) {
        const step = stepEngine(state, reads(nowS, tenths), config);
        state = step.state;
        if (step.write) at.push(nowS);
      }
      return { at, state };
    };
    expect(writes(1, 7300, WET).at).toEqual([]);
    const watered = writes(1, 620, DRY);
    expect(watered.at).toEqual([600, 620]);
    // The rise is seen at 621: nothing is watched for any more.
    expect(writes(621, 7300, WET, watered.state).at).toEqual([621, 3600, 7200]);
  });
  test('a round under way waits and rests again from boot; a dose that was watched for is watched for again', () => {
    const pulses = configOf({
      program: {
        kind: 'pulse-soak',
        startTenths: 300,
        stopTenths: 600,
        pulseMl: 50,
        soakS: 700,
        mostPulses: 1,
        restS: 9000,
      },
      guards: { ...GUARDS, noRiseTimes: 1 },
    });
    const { state } = seconds(pulses, 600, 650, () => DRY);
    const rebooted = bootEngine(pulses, rememberedOf(state, pulses));
    expect(rebooted.lines[0]).toMatchObject({ pulses: 1, watch: { fromTenths: DRY, untilS: 900 } });
    expect(told(seconds(pulses, 1, 1000, () => DRY, undefined, rebooted).events)).toEqual([
      '900 locked locked',
    ]);
    // Where it rose, the rest of 9000 s begins again: the next round not before.
    const rose = seconds(pulses, 1, 9100, (nowS) => (nowS < 100 ? WET - 100 : DRY), undefined, rebooted);
    expect(told(rose.events)).toEqual(['9000 started below-start', '9005 stopped dose-done']);
  });
});

test('when the day frees enough for another second of water', () => {
  // 300 ml in the hour 0, 200 in the hour 2; ten ml a second.
  const ration = { hour: 2, ml: [200, 0, 300, ...Array.from({ length: 22 }, () => 0)], sumMl: 500 };
  expect(freeAtS(ration, 500)).toBeNull();
  expect(freeAtS(ration, 490)).toBe(25 * 3600);
  expect(freeAtS(ration, 190)).toBe(27 * 3600);
  expect(freeAtS(ration, -1)).toBe(27 * 3600);
});
