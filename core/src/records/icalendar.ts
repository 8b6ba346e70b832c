/** All-day events as an iCalendar file, each with an alarm. Source: RFC 5545. */

export type DayEvent = {
  /** A name that no other event has, anywhere. */
  readonly uid: string;
  readonly title: string;
  readonly description: string;
  /** Any moment of the day, ms since 1970; the day is that of UTC. */
  readonly dayMs: number;
};

/** Section 3.1: no line is longer than 75 octets; what follows stands on the next, behind a blank. */
const MOST_OCTETS = 75;
const DAY_MS = 86_400_000;

const date = (ms: number): string => new Date(ms).toISOString().slice(0, 10).replaceAll('-', '');
const stamp = (ms: number): string =>
  `${date(ms)}T${new Date(ms).toISOString().slice(11, 19).replaceAll(':', '')}Z`;

/** Section 3.3.11: backslash, semicolon, comma and line ends are written with a backslash. */
const escaped = (text: string): string =>
  text.replace(/[\\;,]/g, (one) => `\\${one}`).replace(/\r\n|\r|\n/g, '\\n');

/** Breaks a line between characters, never inside one. */
function folded(line: string): string {
  const octets = new TextEncoder();
  let text = '';
  let length = 0;
  for (const letter of line) {
    const more = octets.encode(letter).length;
    if (length + more > MOST_OCTETS) {
      text += '\r\n ';
      length = 1;
    }
    text += letter;
    length += more;
  }
  return `${text}\r\n`;
}

/** @param madeMs when it is written, ms since 1970 */
export function iCalendar(events: readonly DayEvent[], madeMs: number): string {
  const lines = events.flatMap(({ uid, title, description, dayMs }) => [
    'BEGIN:VEVENT',
    `UID:${escaped(uid)}`,
    `DTSTAMP:${stamp(madeMs)}`,
    `DTSTART;VALUE=DATE:${date(dayMs)}`,
    // The end is the first day that is no longer part of it.
    `DTEND;VALUE=DATE:${date(dayMs + DAY_MS)}`,
    `SUMMARY:${escaped(title)}`,
    `DESCRIPTION:${escaped(description)}`,
    // Section 3.6.6: told at nine in the morning of the day, by the clock of whoever looks.
    'BEGIN:VALARM',
    'ACTION:DISPLAY',
    'TRIGGER;RELATED=START:PT9H',
    `DESCRIPTION:${escaped(title)}`,
    'END:VALARM',
    'END:VEVENT',
  ]);
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//plain-trowel//EN',
    'CALSCALE:GREGORIAN',
    ...lines,
    'END:VCALENDAR',
  ]
    .map(folded)
    .join('');
}
