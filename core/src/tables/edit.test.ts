import { expect, test } from 'vitest';
import { timeForms, unanswered, withName, withRole } from './edit.ts';
import type { Layout, Question } from './layout.ts';

const layout: Layout = {
  delimiter: ',',
  headerLine: 1,
  columns: [
    { name: 'Date', role: { kind: 'day' } },
    { name: 'Time', role: { kind: 'clock' } },
    { name: 'M1', role: { kind: 'channel', channelId: 'm1', unit: null } },
    { name: 'stamp', role: { kind: 'leave-out' } },
  ],
  decimal: '.',
  time: 'dmy',
  timeZone: 'UTC',
  isFalling: false,
  names: { 'M1 raw': { channelId: 'm1', unit: null } },
};
const kinds = (of: Layout) => of.columns.map(({ role }) => role.kind);

test('a whole time takes the place of a day and a clock, and the other way round', () => {
  const whole = withRole(layout, 3, { kind: 'time' });
  expect(kinds(whole)).toEqual(['leave-out', 'leave-out', 'channel', 'time']);
  expect(kinds(withRole(whole, 0, { kind: 'day' }))).toEqual(['day', 'leave-out', 'channel', 'leave-out']);
});

test('a channel is taken from one column only', () => {
  expect(kinds(withRole(layout, 3, { kind: 'channel', channelId: 'm1', unit: null }))).toEqual([
    'day',
    'clock',
    'leave-out',
    'channel',
  ]);
});

test('a name means another channel, or none', () => {
  expect(withName(layout, 'M2 raw', { channelId: 'm2', unit: null }).names).toHaveProperty('M2 raw');
  expect(withName(layout, 'M1 raw', null).names).toEqual({});
});

test('the ways in which cells can be times', () => {
  expect(timeForms(['03/05/2026', '04/05/2026'])).toEqual(['dmy', 'mdy']);
  expect(timeForms(['2026-05-03 10:00'])).toEqual(['ymd']);
  expect(timeForms(['1777800000'])).toEqual(['since-1970']);
  expect(timeForms(['46145.5', '46146'])).toEqual(['sheet-days']);
  expect(timeForms(['1800'])).toEqual([]);
});

test('a question about another column, or another name, stays', () => {
  const questions: Question[] = [
    { kind: 'counts', column: 2, name: null, channelId: 'm1' },
    { kind: 'counts', column: 2, name: 'M1', channelId: 'm1' },
    { kind: 'decimal', example: '1,234' },
    { kind: 'which-time', columns: [0, 3] },
  ];
  const left = (of: Parameters<typeof unanswered>[1]) => unanswered(questions, of).length;
  expect(left({ column: 2 })).toBe(3);
  expect(left({ column: 2, name: 'M1' })).toBe(3);
  expect(left('decimal')).toBe(3);
  expect(left({ column: 3 })).toBe(3);
  expect(left({ column: 1 })).toBe(4);
});
