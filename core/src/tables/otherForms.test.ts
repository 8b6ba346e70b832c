import { describe, expect, test } from 'vitest';
import type { NamedChannel } from './columnNames.ts';
import { guessTable } from './guess.ts';
import { asTable } from './otherForms.ts';
import { seriesOfReadings, type Reading } from '../records/series.ts';
import { senmlWriter } from './senmlFile.ts';
import { readTable } from './readTable.ts';

const channel = (
  id: string,
  plot: string,
  probe: string,
  rest: Partial<NamedChannel> = {},
): NamedChannel => ({
  id,
  quantity: 'moisture',
  unit: 'raw counts',
  meant: null,
  plot,
  probe,
  board: 'Shed board',
  names: [probe, id],
  decides: true,
  ...rest,
});
const CHANNELS = [
  channel('s1', 'Herb bed', 'M1'),
  channel('t1', 'Herb bed', 'M1', {
    quantity: 'soil temperature',
    unit: '°C',
    decides: false,
    names: ['M1 soil temperature', 't1'],
  }),
];

function read(table: string | null) {
  if (table === null) throw new Error('no table');
  const guess = guessTable(table, {
    channels: CHANNELS,
    timeZone: 'Europe/London',
    nowMs: Date.UTC(2026, 10, 29),
  });
  if (!guess.ok) throw new Error(guess.issue);
  const { first, problems } = readTable(table, guess.value.layout, CHANNELS);
  expect([guess.value.questions, problems]).toEqual([[], []]);
  return first.map(({ channelId, timeMs, raw }) => `${channelId} ${new Date(timeMs).toISOString()} ${raw}`);
}

describe('SenML', () => {
  test('base name, time, unit and value go on from record to record (RFC 8428, 5.1.3 in kind)', () => {
    const pack = JSON.stringify([
      { bn: '', bt: 1_777_800_000, n: 's1', v: 1800 },
      { n: 's1', v: 1801, t: 600 },
      { n: 't1', u: 'Cel', v: 17.5, t: 600 },
      { n: 'note', vs: 'rain' },
    ]);
    expect(read(asTable(pack, 'senml'))).toEqual([
      's1 2026-05-03T09:20:00.000Z 1800',
      's1 2026-05-03T09:30:00.000Z 1801',
      't1 2026-05-03T09:30:00.000Z 17.5',
    ]);
  });

  test('what is exported comes back as it was, to the millisecond; stand-ins and readings beside others stay out', () => {
    const reading = (timeMs: number, raw: number, flags = 0) => ({ timeMs, raw, flags });
    const at = Date.UTC(2026, 4, 3, 9, 20);
    const records = (id: string, unit: string, readings: readonly Reading[]) =>
      new TextDecoder().decode(senmlWriter({ id, unit })(seriesOfReadings(readings)));
    const counts = [reading(at, 1800), reading(at + 61_234, 1801.25), reading(at + 90_000, 9, 1)];
    const warmth = [reading(at, -0.0625), reading(at, 9, 4)];
    const all = `${records('s1', 'raw counts', counts)}${records('t1', '°C', warmth)}`;
    expect(all.split('\n')).toEqual([
      ',',
      '{"n":"s1","u":"count","t":1777800000,"v":1800},',
      '{"n":"s1","u":"count","t":1777800061.234,"v":1801.25},',
      '{"n":"t1","u":"Cel","t":1777800000,"v":-0.0625}',
    ]);
    const pack = `[${all.slice(1)}]`;
    expect(read(asTable(pack, 'senml'))).toEqual([
      's1 2026-05-03T09:20:00.000Z 1800',
      's1 2026-05-03T09:21:01.234Z 1801.25',
      't1 2026-05-03T09:20:00.000Z -0.0625',
    ]);
  });

  test('times relative to a now that nobody knows, labels that must be understood, and anything else are none', () => {
    for (const text of [
      '[{"n":"s1","v":1800,"t":-5}]',
      '[{"n":"s1","v":1800,"t":1777800000,"secret_":1}]',
      '[{"n":5}]',
      '[]',
      '{"n":"s1"}',
      '[1, 2',
      'time,M1',
    ])
      expect(asTable(text, 'senml')).toBeNull();
  });
});

describe('serial logs', () => {
  test('lines with dates, whatever stands between them', () => {
    const log = [
      'board ready',
      '2026-05-03T10:00:00Z s1=1800 t1=17.5',
      '2026-05-03T10:10:00Z s1=1801 t1=17.6',
      'pump off',
    ].join('\n');
    expect(read(asTable(log, 'serial-log'))).toEqual([
      's1 2026-05-03T10:00:00.000Z 1800',
      't1 2026-05-03T10:00:00.000Z 17.5',
      's1 2026-05-03T10:10:00.000Z 1801',
      't1 2026-05-03T10:10:00.000Z 17.6',
    ]);
  });

  test('dates without an offset are of the garden’s clocks, unless a person says otherwise', () => {
    expect(read(asTable('2026-05-03 10:00:00 s1:1800\n2026-05-03 10:10:00 s1:1801\n', 'serial-log'))[0]).toBe(
      's1 2026-05-03T09:00:00.000Z 1800',
    );
  });

  test('without a date in each line there is no record of when', () => {
    expect(asTable('10:00:00 s1=1800\n10:00:05 s1=1801', 'serial-log')).toBeNull();
    expect(asTable('s1=1800\ns1=1801', 'serial-log')).toBeNull();
    expect(asTable('2026-05-03T10:00:00Z s1=1800\ns1=1801', 'serial-log')).toBeNull();
    expect(asTable('Dear diary', 'serial-log')).toBeNull();
  });
});
