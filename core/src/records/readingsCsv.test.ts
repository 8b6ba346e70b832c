import { describe, expect, test } from 'vitest';
import { readReadingsCsv, writeReadingsCsv, type CsvRow } from './readingsCsv.ts';
import { FLAGS } from './series.ts';

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
    expect(read.ok && [...read.value]).toEqual([
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
    expect(read.ok && read.value.get('channel-c2')?.[0]?.timeMs).toBe(MARCH_MORNING);
  });

  test('without channel ids, plot and probe name the channel', () => {
    const read = readReadingsCsv('time,plot,probe,raw\n2026-03-01T06:30:05Z,"Mint, trough",M1,9\n', channels);
    expect(read.ok && [...read.value.keys()]).toEqual(['channel-m1']);
  });

  test('semicolons between columns are fine as long as the numbers have points', () => {
    expect(readReadingsCsv('time;channel;raw\n2026-03-01T06:30:05Z;channel-c2;9.5\n', channels).ok).toBe(
      true,
    );
  });

  test('progress ends at one', () => {
    const seen: number[] = [];
    readReadingsCsv('time,channel,raw\n2026-03-01T06:30:05Z,channel-c2,9\n', channels, (done) =>
      seen.push(done),
    );
    expect(seen).toEqual([0, 1]);
  });

  const T = '2026-03-01T06:30:05Z';
  test.each([
    ['an empty file', '\n', { kind: 'empty' }],
    ['a binary file', 'ab\u0000', { kind: 'binary' }],
    ['no raw column', 'time,channel,value\n', { kind: 'missing-column', column: 'raw' }],
    ['no channel in any form', `time,raw,plot\n${T},1,x\n`, { kind: 'missing-column', column: 'channel' }],
    ['a header alone', 'time,channel,raw\n', { kind: 'no-rows' }],
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
      { kind: 'cell', row: 2, column: 'raw', text: '1e309' },
    ],
    [
      'a time without an offset',
      'time,channel,raw\n2026-03-01 06:30:05,channel-c2,1\n',
      { kind: 'cell', row: 2, column: 'time', text: '2026-03-01 06:30:05' },
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
  ])('refuses %s', (_, text, issue) => {
    expect(readReadingsCsv(text, channels)).toEqual({ ok: false, issue });
  });
});
