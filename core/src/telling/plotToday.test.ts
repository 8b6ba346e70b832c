/** A plot's row on Today, worked out by hand for a pot with a stick: dry reference 3000 counts, wet 1000. */
import { describe, expect, test } from 'vitest';
import { airAndWater, firstLine, onePlot } from '../garden/edits/gardenForTests.ts';
import { setWaterLine } from '../garden/edits/plots.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import type { LineAnswer } from '../control/host/answers.ts';
import type { Garden, WaterLine } from '../garden/document/schema.ts';
import { nextStage, stagesOf, type BuiltSoFar } from './building.ts';
import { dayAgo, nextWater, whenText } from './plotToday.ts';

const base = airAndWater(onePlot({ pump: { flowMlPerS: 9 } }), 3000, 1000).garden;
const plotId = base.plots[0]?.id ?? '';
const LONDON = 'Europe/London';
const HOUR = 3_600_000;

const withLine = (change: Partial<WaterLine>): Garden => ({
  ...setWaterLine(base, firstLine(base).id, { automatic: true, ...change }),
  timeZone: LONDON,
});
const answer = (change: Partial<LineAnswer> = {}): LineAnswer => ({
  isOn: false,
  reason: 'not-below-start',
  runningSinceMs: null,
  plannedS: null,
  mayStartAtMs: null,
  givenMl: 0,
  pulses: 0,
  isLocked: false,
  skippedUntilMs: null,
  noRise: 0,
  ...change,
});
function next(garden: Garden, nowMs: number, said?: LineAnswer): string {
  const parts = plotParts(garden, plotId);
  if (!parts) throw new Error('no plot');
  return nextWater(garden, parts, firstLine(garden), said, nowMs);
}
const timerAt = (minute: number, days = 127) =>
  withLine({ program: { kind: 'timer', slots: [{ minute, days }], doseMl: 100 } });

describe('when a plot is watered next', () => {
  const noon = Date.UTC(2026, 5, 1, 11); // Monday, 12:00 in London
  test('by a timer: its next time, on its next day', () => {
    expect(next(timerAt(18 * 60), noon)).toBe('18:00');
    expect(next(timerAt(6 * 60), noon)).toBe('Tue 2 Jun, 06:00');
    // On Sundays alone.
    expect(next(timerAt(6 * 60, 64), noon)).toBe('Sun 7 Jun, 06:00');
  });
  test('by the clock on the wall, also over the nights in which the hour changes', () => {
    // Clocks go forward on 29 March 2026 and back on 25 October.
    expect(next(timerAt(6 * 60), Date.UTC(2026, 2, 28, 22))).toBe('06:00');
    expect(next(timerAt(6 * 60), Date.UTC(2026, 9, 24, 21))).toBe('06:00');
  });
  test('not before its skip is over, whatever its timer says', () => {
    const skipped = answer({ skippedUntilMs: noon + 30 * HOUR });
    expect(next(timerAt(18 * 60), noon, skipped)).toBe('skipped until Tue 2 Jun, 18:00');
    expect(next(timerAt(18 * 60), noon, answer({ skippedUntilMs: noon - 1 }))).toBe('18:00');
  });
  test('by a probe: at its start limit, and not before its rest is over', () => {
    const garden = withLine({
      program: { kind: 'until-wet', capMl: 100 },
    });
    const at = {
      ...garden,
      plots: garden.plots.map((one) => ({ ...one, limits: { startTenths: 300, stopTenths: 600 } })),
    };
    expect(next(at, noon)).toBe('at 30.0 % span');
    expect(next(at, noon, answer({ mayStartAtMs: noon + 2 * HOUR }))).toBe(
      'at 30.0 % span, not before 14:00',
    );
    expect(next(at, noon, answer({ mayStartAtMs: noon - HOUR }))).toBe('at 30.0 % span');
  });
  test('not at all where it is switched off or locked, and by a person where nothing waters', () => {
    expect(next(withLine({ automatic: false }), noon)).toBe('switched off');
    expect(next(timerAt(60), noon, answer({ isLocked: true }))).toBe('locked');
    expect(next(timerAt(60), noon, answer({ isOn: true }))).toBe('running now');
    expect(next(withLine({ program: { kind: 'alert-only' } }), noon)).toBe('by you, when it is too dry');
  });
});

test('a moment within half a day is told by its time, others with their day', () => {
  expect(whenText(Date.UTC(2026, 5, 1, 17), Date.UTC(2026, 5, 1, 11), LONDON)).toBe('18:00');
  expect(whenText(Date.UTC(2026, 5, 2, 17), Date.UTC(2026, 5, 1, 11), LONDON)).toBe('Tue 2 Jun, 18:00');
});

describe('how it stood a day ago', () => {
  const now = Date.UTC(2026, 5, 2, 12);
  const parts = plotParts(base, plotId);
  const of = (rows: readonly (readonly [number, number])[]) =>
    parts && dayAgo(parts, { timesMs: rows.map(([ms]) => ms), raw: rows.map(([, raw]) => raw) }, now);
  test('is the middle reading of the hour round that moment', () => {
    const dayBefore = now - 24 * HOUR;
    // (3000 − 2000) / 2000 of the span; one reading that leapt, and one of an hour later, do not count.
    expect(
      of([
        [dayBefore - 1000, 2000],
        [dayBefore, 900],
        [dayBefore + 1000, 2010],
        [dayBefore + HOUR, 3000],
      ]),
    ).toBe('50.0 % span');
  });
  test('is not said where too little was read then', () => {
    expect(of([[now - 24 * HOUR, 2000]])).toBeNull();
    expect(of([])).toBeNull();
  });
});

describe('where a garden stands in the building of it', () => {
  const ALL: BuiltSoFar = { hasRead: () => true, hasProgram: () => true, isWatched: true };
  const nextOf = (garden: Garden, change: Partial<BuiltSoFar> = {}) =>
    nextStage(stagesOf(garden, { ...ALL, ...change }));
  test('an empty garden begins with its first plot', () => {
    expect(nextOf({ ...base, plots: [], channels: [], probes: [], waterLines: [] })?.says).toBe(
      'Add the first plot.',
    );
  });
  test('each stage waits for the one before', () => {
    const raw = onePlot({ pump: { flowMlPerS: 9 } });
    expect(nextOf(raw, { hasRead: () => false })?.id).toBe('read');
    expect(nextOf(raw)).toMatchObject({ id: 'calibrate', plotId: raw.plots[0]?.id });
    expect(nextOf(base)?.id).toBe('dose');
  });
  test('a garden without pumps has neither doses nor programs to do', () => {
    const dry = airAndWater(onePlot(), 3000, 1000).garden;
    expect(nextOf(dry, { hasProgram: () => false, isWatched: false })?.id).toBe('watch');
    expect(nextOf(dry)).toBeNull();
  });
});
