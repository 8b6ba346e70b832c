import { expect, test } from 'vitest';
import type { NamedChannel } from './columnNames.ts';
import { guessTable } from './guess.ts';
import { readTable } from './readTable.ts';

const channel: NamedChannel = {
  id: 'm1',
  quantity: 'moisture',
  unit: 'raw counts',
  meant: null,
  plot: 'Herb bed',
  probe: 'M1',
  board: 'Shed board',
  names: ['M1'],
  decides: true,
};

/** Local times in London as they stand in a table. There the hour from 1 o'clock came twice on 25 October 2026: first until 01:00 UTC, then until 02:00 UTC. */
function readLondon(times: readonly string[]) {
  const rows = times.map((time) => `${time.length === 5 ? `2026-10-25 ${time}` : time},1800`);
  const text = `time,M1\n${rows.join('\n')}\n`;
  const guess = guessTable(text, {
    channels: [channel],
    timeZone: 'Europe/London',
    nowMs: Date.UTC(2026, 10, 1),
  });
  if (!guess.ok) throw new Error(guess.issue);
  const { first, firstHour } = readTable(text, guess.value.layout, [channel]);
  return {
    utc: first.map(({ timeMs }) => new Date(timeMs).toISOString().slice(11, 16)),
    isUnsure: firstHour === 'unsure',
  };
}

test.each([
  ['ten minutes apart, on into the hour behind', ['01:40', '01:50', '02:00', '02:10'], '01:40'],
  ['hourly', ['01:30', '02:30', '03:30', '04:30'], '01:30'],
  ['every three hours', ['01:30', '04:30', '07:30', '10:30'], '01:30'],
  ['through the hour twice', ['01:40', '01:50', '01:00', '01:10', '01:20'], '00:40'],
  ['hourly, the hour twice', ['01:30', '01:30', '02:30', '03:30'], '00:30'],
  ['from the hour before', ['00:50', '01:00', '01:10', '01:20', '01:30'], '23:50'],
  ['newest first, back into the hour before', ['01:20', '01:10', '01:00', '00:50', '00:40'], '00:20'],
  ['newest first, through the hour twice', ['01:20', '01:10', '01:00', '01:50', '01:40'], '01:20'],
])(
  'a table that begins in an hour that came twice goes by the distance of its rows: %s',
  (_, times, first) => {
    const { utc, isUnsure } = readLondon(times);
    expect(utc[0]).toBe(first);
    expect(isUnsure).toBe(false);
  },
);

test('in the second hour all further rows follow', () => {
  expect(readLondon(['01:40', '01:50', '02:00', '02:10']).utc).toEqual(['01:40', '01:50', '02:00', '02:10']);
});

test.each([
  ['it never leaves the hour', ['01:10', '01:20', '01:30']],
  [
    'once a day, when somebody was there',
    ['01:30', '2026-10-26 00:40', '2026-10-27 03:10', '2026-10-28 01:00'],
  ],
  ['a single row behind it', ['01:30', '04:30']],
])('where nothing tells, it is taken for the first of the two and said: %s', (_, times) => {
  const { utc, isUnsure } = readLondon(times);
  expect(utc[0]).toMatch(/^00:/);
  expect(isUnsure).toBe(true);
});

test('on any other night nothing is asked', () => {
  expect(readLondon(['2026-10-24 01:10', '2026-10-24 01:20'])).toEqual({
    utc: ['00:10', '00:20'],
    isUnsure: false,
  });
});
