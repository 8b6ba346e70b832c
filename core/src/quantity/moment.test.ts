import { expect, test } from 'vitest';
import { isMoment, isoOf, momentOf } from './moment.ts';

// 2026-03-01T06:30:05Z
const S = 1_772_346_605;

test.each([
  ['seconds', S, S * 1000],
  ['milliseconds', S * 1000 + 250, S * 1000 + 250],
  ['microseconds', S * 1e6, S * 1000],
  ['nanoseconds', S * 1e9, S * 1000],
  ['the first second of 2000', 946_684_800, 946_684_800_000],
  ['the last second of 2099', 4_102_444_799, 4_102_444_799_000],
])('%s since 1970 are told apart by their size', (_, number, ms) => expect(momentOf(number)).toBe(ms));

test.each([
  ['a second too early', 946_684_799],
  ['the first second of 2100', 4_102_444_800],
  ['an uptime', 4500],
  ['between seconds and milliseconds', 1e11],
  ['the year 58221 in milliseconds', 1_775_117_700_000_000 * 1000 * 60],
  ['nothing', Number.NaN],
  ['without end', Infinity],
  ['before 1970', -S],
])('%s is no moment', (_, number) => expect(momentOf(number)).toBeNull());

test('2000 is in, 2100 is out', () => {
  expect([946_684_799_999, 946_684_800_000, 4_102_444_799_999, 4_102_444_800_000].map(isMoment)).toEqual([
    false,
    true,
    true,
    false,
  ]);
});

test.each([
  [S * 1000, '2026-03-01T06:30:05.000Z'],
  [1e300, '2099-12-31T23:59:59.999Z'],
  [-1e300, '2000-01-01T00:00:00.000Z'],
  [Number.NaN, '2000-01-01T00:00:00.000Z'],
])('%d never throws as a date', (ms, iso) => expect(isoOf(ms)).toBe(iso));
