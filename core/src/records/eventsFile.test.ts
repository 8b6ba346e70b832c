import { expect, test } from 'vitest';
import { identified, type GardenEvent } from './event.ts';
import { eventLine, readEventsFile } from './eventsFile.ts';

const MARCH = 1_772_346_605_000;
const plain = (text: string, atMs = MARCH) =>
  ({ kind: 'note', atMs, plotId: 'mint', simulated: false, text }) as const;
const note = (text: string, atMs = MARCH): GardenEvent =>
  identified(plain(text, atMs), `n ${text}`, 'person');

test('events come back as they were written', () => {
  const events = [note('fed'), note('line\nend', MARCH + 5)];
  expect(readEventsFile(events.map(eventLine).join(''))).toEqual({ events, skipped: 0 });
});

test('what is no event is left out and counted', () => {
  const lines = [
    eventLine(note('fed')),
    '{"kind":"odd"}\n',
    'half a li',
    '\n\n',
    eventLine(note('late', 9e15)),
    `{"x":"${'y'.repeat(20_000)}"}`,
  ];
  expect(readEventsFile(lines.join('\r\n'))).toEqual({ events: [note('fed')], skipped: 4 });
});

test('an event of the first versions has no id: it gets the same one each time, and two alike stay two', () => {
  const old = `${JSON.stringify(plain('fed'))}\n`;
  const first = readEventsFile(old + old).events;
  expect(first).toMatchObject([plain('fed'), plain('fed')]);
  expect(first[0]).toMatchObject({ boardId: null, lineId: null, seq: null, author: 'person' });
  expect(new Set(first.map((one) => one.id)).size).toBe(2);
  expect(readEventsFile(old + old).events).toEqual(first);
});
