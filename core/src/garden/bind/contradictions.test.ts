import { describe, expect, test } from 'vitest';
import { broughtIn, contradictions, dayBudget, tanksLost } from './contradictions.ts';
import { setSoilFacts } from '../edits/calibrations.ts';
import { setLimits, setWaterLine } from '../edits/plots.ts';
import { airAndWater, firstLine, onePlot } from '../edits/gardenForTests.ts';
import type { Garden, WaterLine } from '../document/schema.ts';
import { engineOf } from './engineOf.ts';

/** Ten ml a second, at most 20 s, every 600 s, 400 ml a day; pulses of 100 ml, four of them, soak 900 s. */
const garden = airAndWater(onePlot({ pump: { flowMlPerS: 10 } }), 3000, 1000).garden;
const line = firstLine(garden);
const kinds = (change: Partial<WaterLine>, of = garden) =>
  contradictions(setWaterLine(of, line.id, change), { ...line, ...change }).map((one) => one.kind);

const newContradictions = (of: Garden, lineId: string, change: Partial<WaterLine>) =>
  broughtIn(of, setWaterLine(of, lineId, change));

test('a new line contradicts nothing', () => expect(contradictions(garden, line)).toEqual([]));

const slots = (...minutes: readonly number[]) => minutes.map((minute) => ({ minute, days: 127 }));
const timer = (...minutes: readonly number[]) =>
  ({ kind: 'timer', slots: slots(...minutes), doseMl: 100 }) as const;
const pulses = { kind: 'pulse-soak', pulseMl: 100, soakS: 900, mostPulses: 4, restS: 14_400 } as const;
const { conditions } = line;

test.each<[Partial<WaterLine>, readonly string[]]>([
  // 200 ml take 20 s, 206 ml 21.
  [{ program: { ...pulses, pulseMl: 200, mostPulses: 2 } }, []],
  [{ program: { ...pulses, pulseMl: 206, mostPulses: 1 } }, ['dose-over-run']],
  [{ tubeS: 11 }, ['dose-over-run']],
  [{ program: { kind: 'until-wet', capMl: 500 }, maxRunS: 60 }, ['dose-over-day']],
  [{ fallbackMl: 206 }, ['dose-over-run']],
  [{ fallbackMl: 450, maxRunS: 60 }, ['dose-over-day']],
  [{ dailyMaxMl: 399 }, ['pulses-over-day']],
  [{ maxRunS: 601 }, ['run-over-interval']],
  [{ program: { ...pulses, soakS: 599 }, rise: { ...line.rise, responseS: 300 } }, ['soak-under-interval']],
  [{ rise: { ...line.rise, responseS: 901 } }, ['soak-under-response']],
  [{ program: { ...pulses, restS: 800 } }, ['rest-under-soak']],
  [{ program: { kind: 'single-dose', doseMl: 100, intervalS: 599 } }, ['interval-under-interval']],
  [{ staleAfterS: 9 }, ['stale-under-logging']],
  // A noise of 3 counts is 1.5 tenths; twice that is 3.
  [{ rise: { ...line.rise, tenths: 5 } }, []],
  [{ program: timer(360, 370) }, []],
  [{ program: timer(360, 369) }, ['slots-too-close']],
  [{ program: timer(1435, 4) }, ['slots-too-close']],
  [
    {
      program: {
        kind: 'timer',
        doseMl: 100,
        slots: [
          { minute: 360, days: 1 },
          { minute: 361, days: 2 },
        ],
      },
    },
    [],
  ],
  [
    { program: timer(720), conditions: { ...conditions, hours: { fromMinute: 1200, toMinute: 420 } } },
    ['slot-outside-hours'],
  ],
  [{ program: timer(300), conditions: { ...conditions, hours: { fromMinute: 1200, toMinute: 420 } } }, []],
  [{ conditions: { ...conditions, hours: { fromMinute: 300, toMinute: 300 } } }, ['no-hours']],
  [{ conditions: { ...conditions, darkBelow: 300 } }, ['no-sensor']],
  [{ conditions: { ...conditions, airBelowC: 30 } }, ['no-sensor']],
  [{ conditions: { ...conditions, soilAboveC: 2 } }, ['no-sensor']],
  [{ conditions: { ...conditions, noRain: true } }, ['no-sensor']],
  [{ conditions: { ...conditions, batteryAboveV: 12 } }, ['no-sensor']],
  [{ program: { kind: 'follower', leaderId: line.id, sharePercent: 100, everyNth: 1 } }, ['leader-missing']],
])('%j: %j', (change, expected) => expect(kinds(change)).toEqual(expected));

test('a rise that the noise alone could feign', () => {
  const noisy = airAndWater(onePlot({ pump: { flowMlPerS: 10 } }), 3000, 1000, { noiseCounts: 30 }).garden;
  // 30 counts are 15 tenths; twice that is 30, more than the usual 20.
  expect(kinds({}, noisy)).toEqual(['rise-under-noise']);
});

test('a plot without a probe, and a timer that needs none', () => {
  const bare = { ...garden, channels: [] };
  expect(contradictions(bare, line).map((one) => one.kind)).toEqual(['no-probe']);
  expect(contradictions(bare, { ...line, program: timer(360) })).toEqual([]);
});

describe('leaders and reservoirs', () => {
  const follower = {
    ...line,
    id: 'second',
    program: { kind: 'follower', leaderId: line.id, sharePercent: 100, everyNth: 1 } as const,
  };
  const of = (change: Partial<WaterLine>) =>
    contradictions({ ...garden, waterLines: [{ ...line, ...change }, follower] }, follower).map(
      (one) => one.kind,
    );
  test('a leader must be another line of the same board that runs by itself', () => {
    expect(of({})).toEqual([]);
    expect(of({ boardId: 'other' })).toEqual(['leader-missing']);
    expect(of({ program: { kind: 'alert-only' } })).toEqual(['leader-never-runs']);
    expect(of({ program: { ...follower.program, leaderId: 'second' } })).toEqual(['leader-follows']);
  });
  test('a reservoir without levels holds its lines forever', () => {
    const tank = {
      id: 'tank',
      name: 'Tank',
      kind: 'level',
      float: { highIs: 'water', threshold: 0.5 },
      channelId: null,
      levels: [],
      minimumMl: 0,
    } as const;
    const tanked = { ...garden, reservoirs: [{ ...tank, levels: [] }] };
    expect(
      contradictions(setWaterLine(tanked, line.id, { tankId: 'tank' }), { ...line, tankId: 'tank' }),
    ).toMatchObject([{ kind: 'tank-unread', at: 'tank' }]);
  });
});

test('only what a change brings in is held against it', () => {
  const old = setWaterLine(garden, line.id, { maxRunS: 700 });
  expect(newContradictions(old, line.id, { dailyMaxMl: 5000 })).toEqual([]);
  expect(newContradictions(old, line.id, { dailyMaxMl: 10 }).map((one) => one.kind)).toContain(
    'pulses-over-day',
  );
  expect(newContradictions(garden, 'nobody', { dailyMaxMl: 10 })).toEqual([]);
});

test('a second condition that nothing measures is one more, though the first stands already', () => {
  const dark = setWaterLine(garden, line.id, { conditions: { ...conditions, darkBelow: 300 } });
  const also = { conditions: { ...conditions, darkBelow: 300, noRain: true } };
  expect(newContradictions(dark, line.id, also).map((one) => one.at)).toEqual(['rain']);
});

test('a leader that would only alert strikes its follower, by name', () => {
  const second = {
    ...line,
    id: 'second',
    name: 'Far zone',
    program: { kind: 'follower', leaderId: line.id, sharePercent: 100, everyNth: 1 } as const,
  };
  const both = { ...garden, waterLines: [line, second] };
  const found = newContradictions(both, line.id, { program: { kind: 'alert-only' } });
  expect(found.map((one) => [one.owner.name, one.kind])).toEqual([['Far zone', 'leader-never-runs']]);
});

test('a pump that turns out to give a tenth of its flow needs more than the maximum run', () => {
  const slow = setWaterLine(garden, line.id, { flowMlPerS: 1 });
  expect(broughtIn(garden, slow).map((one) => one.kind)).toEqual(['dose-over-run']);
  expect(broughtIn(slow, slow)).toEqual([]);
});

test('what contradicts waters nothing by itself, wherever it came from; solved, it does again', () => {
  const engineLine = (of: Garden) => engineOf(of, line.boardId).config.lines[0];
  const armed = setWaterLine(garden, line.id, { automatic: true });
  expect(engineLine(armed)).toMatchObject({ enabled: true, contradicts: false });
  const against = setWaterLine(armed, line.id, { dailyMaxMl: 399 });
  expect(engineLine(against)).toMatchObject({ enabled: true, contradicts: true });
  expect(engineLine(setWaterLine(against, line.id, { program: { ...pulses, mostPulses: 3 } }))).toMatchObject(
    {
      contradicts: false,
    },
  );
});

describe('limits', () => {
  const inVwc = (of: Garden): Garden => ({
    ...of,
    calibrations: of.calibrations.map((one) => ({ ...one, percentKind: 'volumetric' as const })),
  });
  const plotId = garden.plots[0]?.id ?? '';
  test('of a soil that nobody has named were never set; a timer does not mind', () => {
    expect(kinds({}, inVwc(garden))).toEqual(['limits-unset']);
    expect(kinds({ program: timer(360) }, inVwc(garden))).toEqual([]);
    expect(kinds({}, inVwc(setLimits(garden, plotId, { startTenths: 200, stopTenths: 300 })))).toEqual([]);
  });
  test('above the pores of the soil would never be reached', () => {
    const set = inVwc(setLimits(garden, plotId, { startTenths: 200, stopTenths: 600 }));
    expect(kinds({}, setSoilFacts(set, plotId, { kindId: 'loam' }))).toEqual(['limits-beyond']);
  });
});

test('a line that loses its reservoir is named', () => {
  const tanked = setWaterLine(garden, line.id, { tankId: 'tank' });
  expect(tanksLost(tanked, setWaterLine(tanked, line.id, { tankId: null })).map((one) => one.id)).toEqual([
    line.id,
  ]);
  expect(tanksLost(garden, garden)).toEqual([]);
});

describe('what a day may ask', () => {
  const asked = (change: Partial<WaterLine>) => dayBudget(garden, { ...line, ...change });
  test.each<[string, Partial<WaterLine>, number]>([
    // A round: three waits of 900 s and a rest of 14 400 are 17 100 s; five whole ones leave 900 s, for two more doses.
    ['pulses', {}, 22 * 100],
    // Each ten minutes, and once at the start.
    ['until wet', { program: { kind: 'until-wet', capMl: 50 } }, 145 * 50],
    [
      'a single dose each eight hours',
      { program: { kind: 'single-dose', doseMl: 80, intervalS: 28_800 } },
      4 * 80,
    ],
    ['a timer', { program: timer(360, 1200) }, 200],
  ])('%s', (_, change, askedMl) => expect(asked(change)?.askedMl).toBe(askedMl));
  test('and how many of them are whole: a run of 100 ml counts as 100', () => {
    expect(asked({ dailyMaxMl: 130 })).toMatchObject({ allowedMl: 130, wholeRuns: 1 });
  });
  test('none is whole where the maximum run cuts each', () => {
    expect(asked({ maxRunS: 9 })?.wholeRuns).toBe(0);
  });
  test('a program that asks for nothing by itself has none', () => {
    expect(asked({ program: { kind: 'alert-only' } })).toBeNull();
  });
});

test('what a program does not go by contradicts nothing: its fields are not shown', () => {
  const slots = [{ minute: 360, days: 127 }];
  // Five litres for a faulty probe would be far beyond the maximum run, and a timer has no probe.
  const blind = { fallbackMl: 5000, program: { kind: 'timer', slots, doseMl: 50 } } as const;
  expect(newContradictions(garden, line.id, blind)).toEqual([]);
  expect(newContradictions(garden, line.id, { fallbackMl: 5000 }).map((one) => one.at)).toContain('fallback');
  const dark = { ...line.conditions, darkBelow: 300, hours: { fromMinute: 60, toMinute: 60 } };
  expect(
    newContradictions(garden, line.id, { conditions: dark })
      .map((one) => one.at)
      .sort(),
  ).toEqual(['dark', 'hours']);
  expect(newContradictions(garden, line.id, { conditions: dark, program: { kind: 'alert-only' } })).toEqual(
    [],
  );
});
