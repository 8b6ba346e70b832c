import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  initialEngine,
  stepEngine,
  type EngineConfig,
  type EngineInput,
  type EngineState,
} from './engine.ts';

// Raw 3000 is 0 %, raw 1000 is 100 %: 20 counts a percent. Starts below 30 % (above raw 2400), stops at 60 % (raw 1800).
const config: EngineConfig = {
  table: [
    { raw: 1000, tenths: 1000 },
    { raw: 3000, tenths: 0 },
  ],
  startTenths: 300,
  stopTenths: 600,
  lowCounts: 20,
  highCounts: 4075,
  staleAfterS: 30,
  maxRunS: 20,
  minIntervalS: 600,
  waters: 'automatic',
};
const DRY = 2500; // 25.0 %
const MIDDLE = 2200; // 40.0 %
const WET = 1790; // 60.5 %

const reading = (nowS: number, raw: number): EngineInput => ({ nowS, reading: { raw, atS: nowS } });

/** Feeds the inputs in order and gives every step's result. */
function run(
  inputs: readonly EngineInput[],
  settings: EngineConfig = config,
  from: EngineState = initialEngine,
) {
  let state = from;
  return inputs.map((input) => {
    const result = stepEngine(Object.freeze(state), input, settings);
    state = result.state;
    return result;
  });
}

const last = <T>(items: readonly T[]): T => {
  const item = items[items.length - 1];
  if (item === undefined) throw new Error('empty');
  return item;
};

describe('watering', () => {
  test('starts below the start limit once the boot hold is over', () => {
    const [early, start] = run([reading(599, DRY), reading(600, DRY)]);
    expect(early).toMatchObject({
      outputs: { pumpOn: false, lamp: 'on' },
      state: { reason: 'min-interval' },
      callAgainAtS: 600,
    });
    expect(start).toMatchObject({
      outputs: { pumpOn: true, lamp: 'on' },
      events: [{ kind: 'started', atS: 600, reason: 'below-start', tenths: 250 }],
      callAgainAtS: 620,
    });
  });

  test('runs on between the limits and stops at the stop limit, not before', () => {
    const steps = run([reading(600, DRY), reading(605, MIDDLE), reading(610, 1800)]);
    expect(steps.map((one) => one.outputs.pumpOn)).toEqual([true, true, false]);
    expect(last(steps).events).toEqual([{ kind: 'stopped', atS: 610, reason: 'above-stop', ranS: 10 }]);
  });

  test('does not start between the limits, nor exactly at the start limit', () => {
    expect(last(run([reading(700, MIDDLE)])).state.reason).toBe('not-below-start');
    expect(last(run([reading(700, 2400)])).outputs.pumpOn).toBe(false);
    // 29.9 %
    expect(last(run([reading(700, 2402)])).outputs.pumpOn).toBe(true);
  });

  test('a run ends at the maximum, counted in time and not in calls', () => {
    const steps = run([reading(600, DRY), reading(619, DRY), reading(620, DRY)]);
    expect(steps.map((one) => one.outputs.pumpOn)).toEqual([true, true, false]);
    expect(last(steps).events).toEqual([{ kind: 'stopped', atS: 620, reason: 'max-run', ranS: 20 }]);
  });

  test('after a run the minimum interval counts from its start', () => {
    const steps = run([reading(600, DRY), reading(620, DRY), reading(1199, DRY), reading(1200, DRY)]);
    expect(steps.map((one) => one.outputs.pumpOn)).toEqual([true, false, false, true]);
  });

  test('a reboot in the middle of a run waits the interval again', () => {
    const after = run([reading(1, DRY), reading(599, DRY)]);
    expect(after.every((one) => !one.outputs.pumpOn)).toBe(true);
  });
});

describe('a reading that cannot be trusted never waters', () => {
  test.each([
    ['stale', { nowS: 700, reading: { raw: DRY, atS: 669 } }],
    ['stale', { nowS: 700, reading: { raw: DRY, atS: 701 } }],
    ['implausible', { nowS: 700, reading: { raw: 4095, atS: 700 } }],
    ['implausible', { nowS: 700, reading: { raw: 0, atS: 700 } }],
    ['implausible', { nowS: 700, reading: { raw: NaN, atS: 700 } }],
    ['no-reading', { nowS: 700, reading: null }],
  ] as const)('%s: %j', (reason, input) => {
    expect(last(run([input]))).toMatchObject({
      outputs: { pumpOn: false, lamp: 'blink' },
      state: { reason },
    });
  });

  test('a reading as old as the limit still counts', () => {
    expect(last(run([{ nowS: 700, reading: { raw: DRY, atS: 670 } }])).outputs.pumpOn).toBe(true);
  });

  test('a run stops when the readings stop coming, and asks to be called at that very second', () => {
    const long = { ...config, maxRunS: 300 };
    const [start, , stale] = run(
      [reading(600, DRY), { nowS: 630, reading: null }, { nowS: 631, reading: null }],
      long,
    );
    expect(start?.callAgainAtS).toBe(631);
    expect(stale?.events).toEqual([{ kind: 'stopped', atS: 631, reason: 'stale', ranS: 31 }]);
  });
});

test('switched off by the person, a running line stops and the lamp still answers', () => {
  const started = last(run([reading(600, DRY)])).state;
  const stopped = stepEngine(started, reading(605, DRY), { ...config, waters: 'switched-off' });
  expect(stopped.outputs).toEqual({ pumpOn: false, lamp: 'on' });
  expect(stopped.events).toEqual([{ kind: 'stopped', atS: 605, reason: 'switched-off', ranS: 5 }]);
});

test('without a water line the lamp is all there is', () => {
  expect(last(run([reading(700, DRY)], { ...config, waters: 'no-line' })).outputs).toEqual({
    pumpOn: false,
    lamp: 'on',
  });
});

test('a clock that goes back stops the run and holds as after a boot', () => {
  const started = last(run([reading(600, DRY)])).state;
  const steps = run([reading(300, DRY), reading(899, DRY), reading(900, DRY)], config, started);
  expect(steps[0]).toMatchObject({ outputs: { pumpOn: false }, state: { reason: 'clock-went-back' } });
  expect(steps.map((one) => one.outputs.pumpOn)).toEqual([false, false, true]);
});

test('a time that is no number waters nothing', () => {
  expect(last(run([reading(NaN, DRY)])).outputs.pumpOn).toBe(false);
  const started = last(run([reading(600, DRY)])).state;
  expect(stepEngine(started, reading(NaN, DRY), config).outputs.pumpOn).toBe(false);
});

test('a refusal is told once, when its reason is new', () => {
  const steps = run([reading(700, MIDDLE), reading(701, MIDDLE), reading(702, 4095)]);
  expect(steps.map((one) => one.events.map((event) => event.reason))).toEqual([
    ['not-below-start'],
    [],
    ['implausible'],
  ]);
});

test('in any world no run exceeds the maximum, no two starts are closer than the interval, and every start is trusted and below', () => {
  const inputs = fc.array(
    fc.record({ afterS: fc.integer({ min: 1, max: 90 }), raw: fc.option(fc.integer({ min: 0, max: 4095 })) }),
    { maxLength: 120 },
  );
  fc.assert(
    fc.property(inputs, (world) => {
      let state = initialEngine;
      let nowS = 0;
      let startedS: number | null = null;
      let previousStartS = 0;
      for (const moment of world) {
        nowS += moment.afterS;
        // A board calls each second while the pump runs; here it is enough to call when the engine asked for it.
        const {
          state: next,
          outputs,
          events,
          callAgainAtS,
        } = stepEngine(
          state,
          { nowS, reading: moment.raw === null ? null : { raw: moment.raw, atS: nowS } },
          config,
        );
        for (const event of events) {
          if (event.kind === 'started') {
            expect(event.atS - previousStartS).toBeGreaterThanOrEqual(config.minIntervalS);
            expect(event.tenths).toBeLessThan(config.startTenths);
            previousStartS = event.atS;
          }
        }
        startedS = outputs.pumpOn ? (startedS ?? nowS) : null;
        state = next;
        if (outputs.pumpOn && callAgainAtS !== null) {
          const called = stepEngine(state, { nowS: callAgainAtS, reading: null }, config);
          if (startedS !== null && callAgainAtS - startedS >= config.maxRunS)
            expect(called.outputs.pumpOn).toBe(false);
          state = called.state;
          nowS = callAgainAtS;
          startedS = called.outputs.pumpOn ? startedS : null;
        }
      }
    }),
    { numRuns: 300 },
  );
});

test('replaying the same inputs gives the same outputs', () => {
  const inputs = [reading(600, DRY), reading(604, WET), reading(1300, DRY), { nowS: 1340, reading: null }];
  expect(run(inputs)).toEqual(run(inputs));
});
