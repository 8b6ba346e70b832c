import { describe, expect, test } from 'vitest';
import { stampFromField, takeStamp } from './timeStamp.ts';

// 2026-03-01T06:30:05Z, counted by hand: 20 513 days × 86 400 s + 23 405 s
const MARCH_MORNING = (20_513 * 86_400 + 23_405) * 1000;

describe('takeStamp', () => {
  test.each([
    { says: 'ISO with Z', line: '2026-03-01T06:30:05Z,512', ms: MARCH_MORNING, zoned: true, rest: '512' },
    {
      says: 'ISO with an offset',
      line: '2026-03-01T07:30:05+01:00 512',
      ms: MARCH_MORNING,
      zoned: true,
      rest: '512',
    },
    {
      says: 'date, blank, time, no zone',
      line: '2026-03-01 06:30:05;512',
      ms: MARCH_MORNING,
      zoned: false,
      rest: '512',
    },
    {
      says: 'milliseconds',
      line: '2026-03-01T06:30:05.250Z 512',
      ms: MARCH_MORNING + 250,
      zoned: true,
      rest: '512',
    },
    {
      says: 'square brackets',
      line: '[2026-03-01T06:30:05Z] a=1',
      ms: MARCH_MORNING,
      zoned: true,
      rest: 'a=1',
    },
  ])('reads $says', ({ line, ms, zoned, rest }) => {
    expect(takeStamp(line)).toEqual({ stamp: { kind: 'absolute', ms, zoned }, rest });
  });

  test('reads a time of day with an arrow behind it', () => {
    // 16 h 20 min 5.5 s = 58 805.5 s
    expect(takeStamp('16:20:05.500 -> 512')).toEqual({
      stamp: { kind: 'time-of-day', ms: 58_805_500 },
      rest: '512',
    });
  });

  test.each(['512', 'a:1', '25:00:00 1', '12:61:00 1', '2026-13-45T99:00Z 1', ''])(
    'leaves %j alone',
    (line) => {
      expect(takeStamp(line)).toEqual({ stamp: null, rest: line });
    },
  );
});

describe('stampFromField', () => {
  test.each([
    ['time', 1_772_346_605, { kind: 'absolute', ms: MARCH_MORNING, zoned: true }],
    ['time', MARCH_MORNING, { kind: 'absolute', ms: MARCH_MORNING, zoned: true }],
    ['Timestamp', '2026-03-01T06:30:05Z', { kind: 'absolute', ms: MARCH_MORNING, zoned: true }],
    ['time', MARCH_MORNING * 1000, { kind: 'absolute', ms: MARCH_MORNING, zoned: true }],
    ['time', MARCH_MORNING * 1e6, { kind: 'absolute', ms: MARCH_MORNING, zoned: true }],
    ['time', 1e11, { kind: 'unbelievable' }],
    ['timestamp', '9999-12-31T23:59:59Z', { kind: 'unbelievable' }],
    ['timestamp', '1970-01-01 00:00:12', { kind: 'unbelievable' }],
    // 40 days, near the end of a 32-bit count of milliseconds.
    ['millis', 3_456_000_000, { kind: 'uptime', ms: 3_456_000_000 }],
    ['uptime_s', 1_000_000_000, { kind: 'uptime', ms: 1e12 }],
    ['millis', 4_500, { kind: 'uptime', ms: 4_500 }],
    ['uptime', '12.5', { kind: 'uptime', ms: 12_500 }],
  ])('%s %s', (name, value, stamp) => {
    expect(stampFromField(name, value)).toEqual(stamp);
  });

  test('an ordinary name is a value, whatever its number', () => {
    expect(stampFromField('moisture', 1_772_346_605)).toBeNull();
  });

  test('a negative or senseless time is not a time', () => {
    expect(stampFromField('time', -3)).toBeNull();
    expect(stampFromField('time', 'soon')).toBeNull();
  });
});

describe('dates in the usual orders', () => {
  const at = (line: string) => takeStamp(line);
  const MOMENT = Date.UTC(2026, 10, 27, 16, 20, 5);
  test.each([
    '27.11.2026 16:20:05;512',
    '27.11.26 16:20:05 512',
    '27/11/2026 16:20:05, 512',
    '11/27/2026 4:20:05 PM 512',
    '2026/11/27 16:20:05 512',
    '27-11-2026, 16:20:05 512',
  ])('%s', (line) => {
    expect(at(line)).toEqual({ stamp: { kind: 'absolute', ms: MOMENT, zoned: false }, rest: '512' });
  });
  test('where day and month cannot be told apart, only the time of day is believed', () => {
    expect(at('03/04/2026 16:20:05 512')).toEqual({
      stamp: { kind: 'time-of-day', ms: ((16 * 60 + 20) * 60 + 5) * 1000 },
      rest: '512',
    });
    expect(at('04.03.2026 00:00:00 512').stamp).toMatchObject({ kind: 'absolute', ms: Date.UTC(2026, 2, 4) });
    expect(at('04/04/2026 00:00:00 512').stamp).toMatchObject({ kind: 'absolute', ms: Date.UTC(2026, 3, 4) });
  });
  test.each(['31.02.2026 10:00:00 5', '27.11.2026 25:00:00 5'])('%s is no date', (line) => {
    expect(at(line).stamp).not.toMatchObject({ kind: 'absolute' });
  });
});
