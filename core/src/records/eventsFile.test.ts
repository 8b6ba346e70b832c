import { expect, test } from 'vitest';
import type { GardenEvent } from './event.ts';
import { eventLine, readEventsFile } from './eventsFile.ts';

const MARCH = 1_772_346_605_000;
const note = (text: string, atMs = MARCH): GardenEvent => ({
  kind: 'note',
  atMs,
  plotId: 'mint',
  simulated: false,
  text,
});

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
