import { describe, expect, test } from 'vitest';
import { contradictions } from '@plain-trowel/core/garden/bind/contradictions';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import { contradictionText } from './contradictionText.ts';
import { programSentence } from './programText.ts';
import { minuteOf, minuteText } from '@plain-trowel/core/quantity/timeText';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const [line] = garden.waterLines;
const plot = garden.plots.find((one) => one.id === 'chilli');
if (!line || !plot) throw new Error('the sample has no chillies');
const says = (change: Partial<WaterLine>, percentKind: PercentKind = 'volumetric') =>
  programSentence(setWaterLine(garden, line.id, change), { ...line, tankId: null, ...change }, plot, {
    percentKind,
    dryCounts: 3000,
    wetCounts: 1000,
    dryPercent: 0,
    wetPercent: 100,
  });

describe('a program in plain words', () => {
  test('pulse and soak within its hours', () => {
    const hours = { fromMinute: 1200, toMinute: 420 };
    expect(says({ conditions: { ...line.conditions, hours } })).toBe(
      'Between 20:00 and 07:00, when Chilli crate falls below 45.0 % VWC, give 120 ml, wait 15 min, look again until it has 58.0 % VWC; at most 4 times, then rest 4 h; never more than 600 ml a day.',
    );
  });
  test('a tension rises as the soil dries, and a comparator only says dry or wet', () => {
    // 45 and 58 on the scale that falls with tension are 55 and 42 kPa.
    expect(says({ program: { kind: 'until-wet', capMl: 130 } }, 'tension')).toMatch(
      /^When Chilli crate rises above 55\.0 kPa, run until it has 42\.0 kPa/,
    );
    expect(says({ program: { kind: 'until-wet', capMl: 130 } }, 'switch')).toMatch(
      /^When Chilli crate is dry by its comparator, run until it has turned wet/,
    );
    // Twenty counts a percent from 3 000 down: 45 and 58 are 2 100 and 1 840.
    expect(says({ program: { kind: 'until-wet', capMl: 130 } }, 'counts')).toMatch(
      /^When Chilli crate rises above 2\s100 counts, run until it has 1\s840 counts/,
    );
  });
  test('a dose for a faulty probe is only told where a probe decides', () => {
    expect(says({ fallbackMl: 40 })).toMatch(/While the probe is faulty, 40 ml once a day\.$/);
    const timer = { kind: 'timer' as const, slots: [{ minute: 390, days: 127 }], doseMl: 200 };
    expect(says({ fallbackMl: 40, program: timer })).not.toContain('faulty');
  });
  test('the other kinds', () => {
    const slots = [
      { minute: 1110, days: 127 },
      { minute: 390, days: 127 },
    ];
    expect(says({ program: { kind: 'timer', slots, doseMl: 200 } })).toBe(
      'At 06:30 and 18:30 every day, give 200 ml; never more than 600 ml a day.',
    );
    expect(
      says({ program: { kind: 'timer', slots: [{ minute: 360, days: 0b0010101 }], doseMl: 200 } }),
    ).toMatch(/^At 06:00 on Mondays, Wednesdays and Fridays, give 200 ml/);
    expect(says({ program: { kind: 'veto', slots, doseMl: 200, interrupts: true } })).toMatch(
      /unless Chilli crate has 58.0 % VWC or more; if it gets there under way, stop/,
    );
    expect(says({ program: { kind: 'until-wet', capMl: 130 } })).toMatch(
      /run until it has 58.0 % VWC, but give no more than 130 ml/,
    );
    expect(says({ program: { kind: 'single-dose', doseMl: 130, intervalS: 86_400 } })).toMatch(
      /not again within 1 d/,
    );
    expect(
      says({ program: { kind: 'follower', leaderId: 'line-roof', sharePercent: 80, everyNth: 2 } }),
    ).toMatch(/^After every 2nd run of Roof pump, run 80 % as long/);
    expect(says({ program: { kind: 'alert-only' } })).toMatch(
      /^Nothing runs by itself: when Chilli crate falls below 45.0 % VWC/,
    );
  });
  test('conditions and the fallback are said', () => {
    const conditions = {
      ...line.conditions,
      darkBelow: 300,
      airBelowC: 28,
      noRain: true,
      soilAboveC: 2,
      batteryAboveV: 11.8,
    };
    expect(says({ conditions, fallbackMl: 50, tankId: 'tank' })).toMatch(
      /Only while it is dark, the air is below 28.0 °C, the soil is above 2.0 °C, it does not rain, the battery has 11.8 V or more and Rain tank is above its minimum. While the probe is faulty, 50 ml once a day.$/,
    );
  });
});

test.each([
  ['6:30', 390],
  ['20.05', 1205],
  ['24:00', null],
  ['7:60', null],
  ['noon', null],
])('%s is minute %s', (typed, minute) => {
  expect(minuteOf(typed)).toBe(minute);
  if (minute !== null) expect(minuteOf(minuteText(minute))).toBe(minute);
});

test('every contradiction names both sides and what to do', () => {
  const bad = setWaterLine(garden, line.id, {
    maxRunS: 10,
    dailyMaxMl: 100,
    fallbackMl: 500,
    minIntervalS: 1200,
    rise: { ...line.rise, responseS: 2000, tenths: 5 },
    conditions: {
      ...line.conditions,
      hours: { fromMinute: 5, toMinute: 5 },
      noRain: true,
      darkBelow: 3,
      soilAboveC: 1,
    },
  });
  const found = contradictions(bad, bad.waterLines[0] ?? line);
  expect(found.length).toBeGreaterThanOrEqual(9);
  for (const one of found) {
    const text = contradictionText(one);
    expect(text.length).toBeGreaterThan(40);
    expect(text).not.toMatch(/undefined|NaN/);
  }
  expect(
    contradictionText(found[0] ?? { kind: 'no-hours', at: 'hours', against: 'hours', value: 0, limit: 0 }),
  ).toMatch(/takes 15 s, and the maximum run is 10 s/);
});
