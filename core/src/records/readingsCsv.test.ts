import { describe, expect, test } from 'vitest';
import { readReadingsCsv } from './readingsCsv.ts';
import { writeReadingsCsv } from './readingsCsvForTests.ts';
import type { CsvRow } from './readingsCsvOut.ts';
import { FLAGS, readingsOfDay } from './series.ts';

const channels = [
  { id: 'channel-c2', plot: 'Chilli crate', probe: 'C2' },
  { id: 'channel-m1', plot: 'Mint, trough', probe: 'M1' },
];
const MARCH_MORNING = 1_772_346_605_000; // 2026-03-01T06:30:05Z

const row = (change: Partial<CsvRow> = {}): CsvRow => ({
  timeMs: MARCH_MORNING,
  plot: 'Chilli crate',
  probe: 'C2',
  channelId: 'channel-c2',
  raw: 1512,
  percent: 39.84,
  percentKind: 'span',
  flags: FLAGS.simulated,
  ...change,
});

/** Channels and days with their readings; null where it was refused. */
const readingsIn = (read: ReturnType<typeof readReadingsCsv>) =>
  read.ok ? read.value.map((day) => [day.channelId, readingsOfDay(day)] as const) : null;

const HEADER = 'time,plot,probe,channel,raw,percent,percent_kind,flags';

describe('writing', () => {
  test('one row by hand', () => {
    expect(writeReadingsCsv([row()])).toBe(
      `${HEADER}\r\n2026-03-01T06:30:05.000Z,Chilli crate,C2,channel-c2,1512,39.8,span,simulated\r\n`,
    );
  });

  test('a comma in a name is quoted, a missing percent is empty, two flags stand side by side', () => {
    const text = writeReadingsCsv([
      row({ plot: 'Mint, trough', percent: null, flags: FLAGS.simulated | FLAGS.imported }),
    ]);
    expect(text.split('\r\n')[1]).toBe(
      '2026-03-01T06:30:05.000Z,"Mint, trough",C2,channel-c2,1512,,,simulated imported',
    );
  });
});

describe('reading', () => {
  test('what was written comes back, marked as imported', () => {
    const text = writeReadingsCsv([
      row(),
      row({ timeMs: MARCH_MORNING + 250, raw: 1510.5 }),
      row({ channelId: 'channel-m1', raw: 0 }),
    ]);
    const read = readReadingsCsv(text, channels);
    expect(readingsIn(read)).toEqual([
      [
        'channel-c2',
        [
          { timeMs: MARCH_MORNING, raw: 1512, flags: FLAGS.simulated | FLAGS.imported },
          { timeMs: MARCH_MORNING + 250, raw: 1510.5, flags: FLAGS.simulated | FLAGS.imported },
        ],
      ],
      ['channel-m1', [{ timeMs: MARCH_MORNING, raw: 0, flags: FLAGS.simulated | FLAGS.imported }]],
    ]);
  });

  test('times with any offset are understood', () => {
    const read = readReadingsCsv('time,channel,raw\n2026-03-01T07:30:05+01:00,channel-c2,9\n', channels);
    expect(readingsIn(read)).toMatchObject([['channel-c2', [{ timeMs: MARCH_MORNING }]]]);
  });

  test('without channel ids, plot and probe name the channel', () => {
    const read = readReadingsCsv('time,plot,probe,raw\n2026-03-01T06:30:05Z,"Mint, trough",M1,9\n', channels);
    expect(readingsIn(read)).toMatchObject([['channel-m1', [{}]]]);
  });

  test('semicolons between columns are fine as long as the numbers have points', () => {
    expect(readReadingsCsv('time;channel;raw\n2026-03-01T06:30:05Z;channel-c2;9.5\n', channels).ok).toBe(
      true,
    );
  });

  const T = '2026-03-01T06:30:05Z';
  test('progress ends at one', () => {
    const seen: number[] = [];
    readReadingsCsv('time,channel,raw\n2026-03-01T06:30:05Z,channel-c2,9\n', channels, (done) =>
      seen.push(done),
    );
    expect(seen.at(-1)).toBe(1);
    expect(seen).toEqual(seen.toSorted((a, b) => a - b));
  });

  test.each([
    ['an empty file', '\n', { kind: 'empty' }],
    ['a binary file', 'ab\u0000', { kind: 'binary' }],
    ['no raw column', 'time,channel,value\n', { kind: 'missing-column', column: 'raw' }],
    ['no channel in any form', `time,raw,plot\n${T},1,x\n`, { kind: 'missing-column', column: 'channel' }],
    [
      'a column twice',
      `time,raw,channel,Raw\n${T},1,channel-c2,2\n`,
      { kind: 'doubled-column', column: 'raw' },
    ],
    ['a header alone', 'time,channel,raw\n', { kind: 'no-rows' }],
  ])('refuses %s', (_, text, issue) => {
    expect(readReadingsCsv(text, channels)).toEqual({ ok: false, issue });
  });

  test.each([
    [
      'decimal commas between semicolons',
      `time;channel;raw\n${T};channel-c2;12,5\n`,
      { kind: 'decimal-comma', row: 2, text: '12,5' },
    ],
    [
      'decimal commas between commas',
      `time,channel,raw\n${T},channel-c2,12,5\n`,
      { kind: 'decimal-comma', row: 2, text: `${T},channel-c2,12,5` },
    ],
    [
      'a short row',
      `time,channel,raw\n${T},channel-c2,1\n${T},channel-c2\n`,
      { kind: 'columns', row: 3, found: 2, wanted: 3 },
    ],
    [
      'a value too large to hold',
      `time,channel,raw\n${T},channel-c2,1e309\n`,
      { kind: 'value-range', row: 2, text: '1e309' },
    ],
    [
      'a value that nothing counts',
      `time,channel,raw\n${T},channel-c2,-1e308\n`,
      { kind: 'value-range', row: 2, text: '-1e308' },
    ],
    [
      'a word for a value',
      `time,channel,raw\n${T},channel-c2,wet\n`,
      { kind: 'cell', row: 2, column: 'raw', text: 'wet' },
    ],
    [
      'a time without an offset',
      'time,channel,raw\n2026-03-01 06:30:05,channel-c2,1\n',
      { kind: 'cell', row: 2, column: 'time', text: '2026-03-01 06:30:05' },
    ],
    [
      'a day that no month has',
      'time,channel,raw\n2026-02-30T06:30:05Z,channel-c2,1\n',
      { kind: 'cell', row: 2, column: 'time', text: '2026-02-30T06:30:05Z' },
    ],
    [
      'the year 9999',
      'time,channel,raw\n9999-03-01T06:30:05Z,channel-c2,1\n',
      { kind: 'time-range', row: 2, text: '9999-03-01T06:30:05Z' },
    ],
    [
      'the last second of 1999',
      'time,channel,raw\n1999-12-31T23:59:59Z,channel-c2,1\n',
      { kind: 'time-range', row: 2, text: '1999-12-31T23:59:59Z' },
    ],
    [
      'a bare number that is no time',
      'time,channel,raw\n4500,channel-c2,1\n',
      { kind: 'time-range', row: 2, text: '4500' },
    ],
    [
      'a flag nobody knows',
      `time,channel,raw,flags\n${T},channel-c2,1,odd\n`,
      { kind: 'cell', row: 2, column: 'flags', text: 'odd' },
    ],
    [
      'a channel of another garden',
      `time,channel,raw\n${T},channel-zz,1\n`,
      { kind: 'unknown-channel', row: 2, channel: 'channel-zz' },
    ],
    [
      'a wrong row behind blank lines, by its line in the file',
      `\ntime,channel,raw\r\n\n\r\n${T},channel-c2,x\n`,
      { kind: 'cell', row: 5, column: 'raw', text: 'x' },
    ],
  ])('refuses %s', (_, text, problem) => {
    expect(readReadingsCsv(text, channels)).toEqual({
      ok: false,
      issue: { kind: 'rows', problems: [problem], more: 0 },
    });
  });

  test('of many wrong rows the first ten are told and the others counted', () => {
    const text = `time,channel,raw\n${`${T},channel-c2,x\n`.repeat(14)}`;
    const read = readReadingsCsv(text, channels);
    expect(!read.ok && read.issue).toMatchObject({ kind: 'rows', more: 4 });
    expect(!read.ok && read.issue.kind === 'rows' && read.issue.problems.map((one) => one.row)).toEqual([
      2, 3, 4, 5, 6, 7, 8, 9, 10, 11,
    ]);
  });

  test('a file that is wrong from end to end is not read to its end', () => {
    const read = readReadingsCsv(`time,channel,raw\n${`${T},channel-c2,x\n`.repeat(5000)}`, channels);
    expect(!read.ok && read.issue).toMatchObject({ kind: 'rows', more: 990 });
  });

  test('lines may end in any way, also mixed', () => {
    const read = readReadingsCsv(
      `time,channel,raw\r\n${T},channel-c2,1\n${T},channel-c2,2\r${T},channel-m1,3`,
      channels,
    );
    expect(readingsIn(read)?.map(([id, list]) => [id, list.map((one) => one.raw)])).toEqual([
      ['channel-c2', [1, 2]],
      ['channel-m1', [3]],
    ]);
  });

  test.each([1_772_346_605, 1_772_346_605_000, 1_772_346_605_000_000, '1772346605000000000'])(
    'a time may be a number since 1970: %s',
    (time) => {
      const read = readReadingsCsv(`time,channel,raw\n${time},channel-c2,1\n`, channels);
      expect(readingsIn(read)).toMatchObject([['channel-c2', [{ timeMs: MARCH_MORNING }]]]);
    },
  );

  test('times of many days in any order come back to the millisecond, days that no calendar has do not', () => {
    const times = Array.from({ length: 400 }, (_, at) => MARCH_MORNING + ((at * 7919) % 400) * 7_654_321);
    const read = readReadingsCsv(writeReadingsCsv(times.map((timeMs) => row({ timeMs }))), channels);
    expect(readingsIn(read)?.flatMap(([, list]) => list.map(({ timeMs }) => timeMs))).toEqual(
      times.toSorted((a, b) => a - b),
    );
    const odd = `${HEADER}\n2026-02-29T06:30:05.000Z,,,channel-c2,1,,,\n2026-02-28T24:30:05.000Z,,,channel-c2,1,,,\n`;
    expect(readReadingsCsv(odd, channels)).toMatchObject({
      issue: { kind: 'rows', problems: [{ column: 'time' }, { column: 'time' }] },
    });
  });

  test('a name that looks like a formula leaves harmless and comes home', () => {
    const odd = [{ id: 'channel-c2', plot: '=SUM(A1)', probe: '+1' }];
    const text = writeReadingsCsv([row({ plot: '=SUM(A1)', probe: '+1', channelId: 'gone' })]);
    expect(text).toContain(`,'=SUM(A1),+1,`);
    expect(readReadingsCsv(text, odd).ok).toBe(true);
  });
});
