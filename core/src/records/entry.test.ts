/** What people write into the log: what is kept of it, what is refused, and the time on the wall. */
import { describe, expect, test } from 'vitest';
import { entryDraft, entryOf, localMinute, momentAt, WRITTEN, type Entry } from './entry.ts';
import { eventSchema, identified } from './event.ts';

const NOW = Date.UTC(2026, 4, 1, 10);
const of = { plotId: 'plot', nowMs: NOW };
const entry = (change: Partial<Entry>): Entry => ({
  what: 'fed',
  amount: null,
  text: '',
  atMs: NOW,
  photo: change.what === 'photo' ? 'abcdefgh12345678' : null,
  ...change,
});
const issueOf = (change: Partial<Entry>) => {
  const made = entryDraft(entry(change), of);
  return made.ok ? null : made.issue.kind;
};

describe('an entry', () => {
  test.each(WRITTEN)(
    '%s is an event that storage and files take, and reads back as it was written',
    (what) => {
      const written = entry({
        what,
        amount: what === 'watered' || what === 'rain' || what === 'dial' || what === 'fed' ? 12 : null,
        text: 'by the shed',
      });
      const made = entryDraft(written, of);
      if (!made.ok) throw new Error(made.issue.kind);
      const event = identified(made.value, 'x 1', 'person');
      expect(eventSchema.parse(JSON.parse(JSON.stringify(event)))).toEqual(event);
      expect(entryOf(event)).toEqual(written);
    },
  );
  test.each([
    ['a photo without a picture', { what: 'photo', photo: null }, 'no-photo'],
    ['watered without how much', { what: 'watered' }, 'no-amount'],
    ['watered nothing', { what: 'watered', amount: 0 }, 'amount-out'],
    ['rain below nothing', { what: 'rain', amount: -1 }, 'amount-out'],
    ['a number that is none', { what: 'dial', amount: Number.NaN }, 'amount-out'],
    ['a note of blanks', { what: 'note', text: '  ' }, 'no-text'],
    ['a time that is none', { atMs: Number.NaN }, 'no-time'],
    ['the year 1999', { atMs: Date.UTC(1999, 0, 1) }, 'no-time'],
    ['tomorrow', { atMs: NOW + 86_400_000 }, 'in-future'],
  ] as const)('is refused: %s', (_, change, kind) => expect(issueOf(change)).toBe(kind));
  test.each([
    ['a dry day', { what: 'rain', amount: 0 }],
    ['fed without measuring', { what: 'fed' }],
    ['what happened a year ago', { atMs: NOW - 365 * 86_400_000 }],
    ['a clock half a minute ahead', { atMs: NOW + 30_000 }],
  ] as const)('is taken: %s', (_, change) => expect(issueOf(change)).toBe(null));
  test('of a board, of the page, or of a made-up garden is not a person’s to change', () => {
    const made = entryDraft(entry({ what: 'watered', amount: 5 }), of);
    if (!made.ok) throw new Error('refused');
    expect(entryOf(identified(made.value, 'x', 'board'))).toBe(null);
    expect(entryOf(identified({ ...made.value, simulated: true }, 'x', 'person'))).toBe(null);
    expect(entryOf(identified(made.value, 'old 7', 'person'))).toBe(null);
  });
});

describe('the time on the wall', () => {
  const BERLIN = 'Europe/Berlin';
  test.each([
    ['2026-05-01T12:00', Date.UTC(2026, 4, 1, 10)],
    ['2026-01-15T00:30', Date.UTC(2026, 0, 14, 23, 30)],
    // Before and after the clocks go forward, at 01:00 UTC on 29 March.
    ['2026-03-29T01:59', Date.UTC(2026, 2, 29, 0, 59)],
    ['2026-03-29T03:00', Date.UTC(2026, 2, 29, 1)],
    // An hour that is left out: as far behind three as it would be behind two.
    ['2026-03-29T02:30', Date.UTC(2026, 2, 29, 1, 30)],
    // An hour that comes twice: the first of them.
    ['2026-10-25T02:30', Date.UTC(2026, 9, 25, 0, 30)],
    ['2026-10-25T03:00', Date.UTC(2026, 9, 25, 2)],
  ])('%s in Berlin', (local, atMs) => expect(momentAt(local, BERLIN)).toBe(atMs));
  test('goes there and back at every hour of two years', () => {
    for (const zone of ['Europe/Berlin', 'Asia/Kolkata', 'Pacific/Auckland', 'America/St_Johns'])
      for (let atMs = Date.UTC(2025, 0, 1); atMs < Date.UTC(2027, 0, 1); atMs += 7 * 3_600_000) {
        const back = momentAt(localMinute(atMs, zone), zone);
        // Only the second half of an hour that comes twice is told as the first.
        expect([0, 3_600_000]).toContain(atMs - back);
      }
  });
  test.each(['', '2026-13-01T00:00', '2026-05-01', 'now', '2026-05-01T25:00'])('"%s" is none', (local) =>
    expect(momentAt(local, BERLIN)).toBeNaN(),
  );
});
