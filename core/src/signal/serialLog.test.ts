import { describe, expect, test } from 'vitest';
import { readSerialLog } from './serialLog.ts';

const START = 1_700_000_000_000;
const options = { startMs: START, intervalMs: 500 };

const read = (text: string) => {
  const result = readSerialLog(text, options);
  if (!result.ok) throw new Error(result.issue.kind);
  return result.value;
};

describe('times of the lines', () => {
  test('a log without stamps gets one line each interval, headers and chatter aside', () => {
    const log = read('roof board ready\n512\n513\n514\n');
    expect(log.stamps).toBe('none');
    expect(log.lines.map((line) => line.atMs)).toEqual([START, START, START + 500, START + 1000]);
    expect(log).toMatchObject({ understood: 3, notUnderstood: 1 });
  });

  test('full dates are taken as they are', () => {
    const log = read('2026-03-01T06:30:05Z 512\n2026-03-01T06:30:07Z 513');
    expect(log.stamps).toBe('absolute');
    expect(log.lines.map((line) => line.atMs)).toEqual([1_772_346_605_000, 1_772_346_607_000]);
  });

  test('dates without an offset are read as UTC, and the log says so', () => {
    expect(read('2026-03-01 06:30:05;512').stamps).toBe('absolute-utc');
  });

  test('times of day keep their distances and run on past midnight', () => {
    const log = read('23:59:58 512\n00:00:03 513');
    expect(log.stamps).toBe('time-of-day');
    expect(log.lines.map((line) => line.atMs)).toEqual([START, START + 5000]);
  });

  test('a late line a second back is not a new day', () => {
    expect(read('12:00:05 1\n12:00:04 2').lines.map((line) => line.atMs)).toEqual([START, START - 1000]);
  });

  test('uptimes start at the given time; a line without one shares the time before it', () => {
    const log = read('millis=4500 c2=1\nwarming up now\nmillis=6000 c2=2');
    expect(log.stamps).toBe('uptime');
    expect(log.lines.map((line) => line.atMs)).toEqual([START, START, START + 1500]);
  });
});

test('a line whose date no garden has is left out and counted', () => {
  const log = read('1970-01-01T00:00:02Z c2=1\n2026-03-01T06:30:05Z c2=2\n9999-01-01T00:00:00Z c2=3');
  expect(log).toMatchObject({ understood: 1, badTimes: 2, stamps: 'absolute' });
  expect(log.lines).toEqual([{ text: '2026-03-01T06:30:05Z c2=2', atMs: 1_772_346_605_000 }]);
});

test('a log in microseconds keeps real times', () => {
  expect(read('1772346605000000,512').lines[0]?.atMs).toBe(1_772_346_605_000);
});

test('an uptime that no board reaches is left out as well', () => {
  expect(read('uptime_s=5 c2=1\nuptime_s=99999999999999 c2=2')).toMatchObject({ understood: 1, badTimes: 1 });
});

describe('refused, with the reason', () => {
  test.each([
    ['an empty file', '', { kind: 'empty' }],
    ['blank lines only', '\n\n  \n', { kind: 'empty' }],
    ['a file with zero bytes', 'PK\u0000\u0003stuff', { kind: 'binary' }],
    ['bytes that are no text', '\ufffd\ufffd\ufffdab\ufffd\ufffd', { kind: 'binary' }],
    [
      'dates of a clock that was never set',
      '1970-01-01T00:00:02Z c2=1\n',
      { kind: 'bad-times', lines: 1, firstLine: '1970-01-01T00:00:02Z c2=1' },
    ],
    ['prose', 'Dear diary\nno numbers', { kind: 'nothing-understood', lines: 2, firstLine: 'Dear diary' }],
  ])('%s', (_, text, issue) => {
    expect(readSerialLog(text, options)).toEqual({ ok: false, issue });
  });
});

test('progress is reported and never runs backwards', () => {
  const seen: number[] = [];
  readSerialLog('512\n'.repeat(12_000), { ...options, onProgress: (done) => seen.push(done) });
  expect(seen.length).toBeGreaterThan(1);
  expect(seen).toEqual([...seen].sort((a, b) => a - b));
});
