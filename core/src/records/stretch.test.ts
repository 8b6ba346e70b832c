import fc from 'fast-check';
import { expect, test } from 'vitest';
import { dayIn, daysStretch, dayStartMs, moved, zoomed } from './stretch.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const MAY = Date.UTC(2026, 4, 1);
const may = { fromMs: MAY, toMs: MAY + DAY };

test('moved by half of itself, and back', () => {
  expect(moved(may, 0.5)).toEqual({ fromMs: MAY + 12 * HOUR, toMs: MAY + 36 * HOUR });
  expect(moved(moved(may, 0.25), -0.25)).toEqual(may);
});

test('zoomed around a place, that place stays where it is', () => {
  expect(zoomed(may, 0.5, 0)).toEqual({ fromMs: MAY, toMs: MAY + 12 * HOUR });
  expect(zoomed(may, 0.5, 1)).toEqual({ fromMs: MAY + 12 * HOUR, toMs: MAY + DAY });
  expect(zoomed(may, 2, 0.5)).toEqual({ fromMs: MAY - 12 * HOUR, toMs: MAY + 36 * HOUR });
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 10, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (factor, place) => {
        const after = zoomed(may, factor, place);
        const before = MAY + place * DAY;
        expect(after.fromMs + place * (after.toMs - after.fromMs)).toBeCloseTo(before, -1);
      },
    ),
  );
});

test('never shorter than a minute, and never beyond what a record can hold', () => {
  expect(zoomed(may, 1e-9, 0.5).toMs - zoomed(may, 1e-9, 0.5).fromMs).toBe(60_000);
  const far = zoomed(may, 1e9, 0.5);
  expect(far.fromMs).toBeGreaterThanOrEqual(Date.UTC(2000, 0, 1));
  expect(far.toMs).toBeLessThanOrEqual(Date.UTC(2100, 0, 1));
  expect(moved(may, -1e6).fromMs).toBe(Date.UTC(2000, 0, 1));
  expect(moved(may, 1e6).toMs).toBe(Date.UTC(2100, 0, 1));
});

test('days are those of the zone; the nights of a change of clocks have 23 and 25 hours', () => {
  // London is an hour ahead of UTC in May.
  expect(dayStartMs('2026-05-01', 'Europe/London')).toBe(MAY - HOUR);
  expect(dayIn(MAY - HOUR, 'Europe/London')).toBe('2026-05-01');
  expect(dayIn(MAY - HOUR - 1, 'Europe/London')).toBe('2026-04-30');
  const hours = (day: string, zone: string) => {
    const stretch = daysStretch(day, day, zone);
    return stretch && (stretch.toMs - stretch.fromMs) / HOUR;
  };
  // The last Sundays of March and October; in Lord Howe the clocks move by half an hour.
  expect([hours('2026-03-29', 'Europe/London'), hours('2026-10-25', 'Europe/London')]).toEqual([23, 25]);
  expect([hours('2026-05-01', 'Europe/London'), hours('2026-04-05', 'Australia/Lord_Howe')]).toEqual([
    24, 24.5,
  ]);
  expect(daysStretch('2026-05-03', '2026-05-01', 'UTC')).toEqual({ fromMs: MAY, toMs: MAY + 3 * DAY });
  expect(daysStretch('2026-05-01', 'yesterday', 'UTC')).toBeNull();
});

test('a day begins where the day before ends, in any zone and year', () => {
  const zones = [
    'Europe/London',
    'America/St_Johns',
    'Pacific/Apia',
    'Asia/Kathmandu',
    'America/Santiago',
    'UTC',
  ];
  fc.assert(
    fc.property(fc.constantFrom(...zones), fc.integer({ min: 0, max: 9000 }), (zone, day) => {
      const iso = new Date(Date.UTC(2012, 0, 1) + day * DAY).toISOString().slice(0, 10);
      const after = new Date(Date.UTC(2012, 0, 1) + (day + 1) * DAY).toISOString().slice(0, 10);
      expect(daysStretch(iso, iso, zone)?.toMs).toBe(dayStartMs(after, zone));
    }),
    { numRuns: 400 },
  );
});
