import { expect, test } from 'vitest';
import { iCalendar } from './icalendar.ts';

const MADE = Date.UTC(2026, 10, 27, 9, 5, 7);
const event = {
  uid: 'g-1',
  title: 'Calibrate C2 again',
  description: 'made',
  dayMs: Date.UTC(2027, 1, 28, 15),
};

test('an event of one day, line for line as the RFC has it', () => {
  expect(iCalendar([event], MADE)).toBe(
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//plain-trowel//EN',
      'CALSCALE:GREGORIAN',
      'BEGIN:VEVENT',
      'UID:g-1',
      'DTSTAMP:20261127T090507Z',
      'DTSTART;VALUE=DATE:20270228',
      'DTEND;VALUE=DATE:20270301',
      'SUMMARY:Calibrate C2 again',
      'DESCRIPTION:made',
      'BEGIN:VALARM',
      'ACTION:DISPLAY',
      'TRIGGER;RELATED=START:PT9H',
      'DESCRIPTION:Calibrate C2 again',
      'END:VALARM',
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n'),
  );
});

test('commas, semicolons, backslashes and line ends are written with a backslash', () => {
  const text = iCalendar([{ ...event, title: 'mint, sage; a\\b\r\nnext' }], MADE);
  expect(text).toContain('SUMMARY:mint\\, sage\\; a\\\\b\\nnext\r\n');
});

test('no line is longer than 75 octets, no character is cut, and unfolded it says the same', () => {
  const title = 'Kräuterbeet 💧 '.repeat(20);
  const text = iCalendar([{ ...event, title }], MADE);
  const octets = new TextEncoder();
  for (const line of text.split('\r\n')) expect(octets.encode(line).length).toBeLessThanOrEqual(75);
  expect(text.replaceAll('\r\n ', '')).toContain(`SUMMARY:${title}\r\n`);
  expect(text).not.toContain('\ufffd');
});
