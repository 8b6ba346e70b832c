import { describe, expect, test } from 'vitest';
import { FEEL_EDGES } from '../quantity/bands.ts';
import { lineBetween } from '../calibration/curveForTests.ts';
import { addToSeason, noSeason, seasonOf, wordOfDay } from './seasonDays.ts';
import { FLAGS, seriesOfReadings } from './series.ts';
import { zoneClock } from './zoneClock.ts';

const HOUR = 3_600_000;
const at = (day: number, hour: number) => Date.UTC(2026, 4, day, hour);
type Row = readonly [ms: number, percent: number, flags?: number];
const seriesOfRows = (rows: readonly Row[]) =>
  seriesOfReadings(rows.map(([timeMs, raw, flags = 0]) => ({ timeMs, raw, flags })));
/** In one stretch, or in several. */
const days = (rows: readonly Row[], zone = 'UTC', cuts: readonly number[] = []) => {
  const [season, clock] = [noSeason(), zoneClock(zone)];
  for (const [at, from] of [0, ...cuts].entries())
    addToSeason(season, seriesOfRows(rows.slice(from, cuts[at])), lineBetween(0, 100), FEEL_EDGES, clock);
  return seasonOf(season, FEEL_EDGES, clock);
};

describe('a day is what was so for how long, not how often it was read', () => {
  test('six hours at 30 %, read each minute, and six at 60 %, read each hour', () => {
    const dense = Array.from({ length: 360 }, (_, minute) => [at(3, 0) + minute * 60_000, 30] as const);
    const sparse = Array.from({ length: 6 }, (_, hour) => [at(3, 6 + hour), 60] as const);
    const [day] = days([...dense, ...sparse]);
    // The last reading of all holds for an hour.
    expect(day).toMatchObject({ lowest: 30, highest: 60, knownH: 12 });
    expect(day?.mean).toBeCloseTo(45, 9);
    // By feel: low from 20, right from 35, wet from 70 %.
    expect(day?.shares).toMatchObject({ low: 0.5, right: 0.5, wet: 0 });
  });

  test('a spike of one minute counts for a minute, not for what is left of its hour', () => {
    const rows = Array.from({ length: 1440 }, (_, minute): Row => [
      at(3, 0) + minute * 60_000,
      minute % 60 === 20 ? 100 : 50,
    ]);
    const [day] = days(rows);
    // 24 minutes of 1,440 at 100, and the last minute holds for an hour.
    expect(day).toMatchObject({ lowest: 50, highest: 100, knownH: 24 });
    expect(day?.mean).toBeCloseTo(50 + (50 * 24) / 1440, 9);
  });

  test('it does not matter in how many stretches the readings come', () => {
    const rows = Array.from({ length: 200 }, (_, minute): Row => [
      at(3, 20) + minute * 120_000,
      30 + ((minute * 7) % 50),
    ]);
    const whole = days(rows, 'Europe/Berlin');
    expect(days(rows, 'Europe/Berlin', [1, 2, 77, 77, 150])).toEqual(whole);
    expect(whole).toHaveLength(2);
  });

  test('probes count where there are some; without them stand-in boards do', () => {
    const standIn = Array.from({ length: 12 }, (_, hour): Row => [at(3, hour), 80, FLAGS.simulated]);
    const probe: Row[] = [
      [at(3, 3), 20],
      [at(3, 4), 20],
    ];
    const both = [...standIn, ...probe].toSorted(([one], [other]) => one - other);
    expect(days(standIn)).toMatchObject([{ mean: 80, knownH: 12 }]);
    expect(days(both)).toMatchObject([{ mean: 20, highest: 20, knownH: 2 }]);
  });

  test('behind a gap nothing is known for longer than two hours', () => {
    const [day] = days([
      [at(3, 0), 50],
      [at(3, 20), 50],
    ]);
    expect(day?.knownH).toBe(3);
  });

  test('the word of a day is the one that it had longest', () => {
    const [day] = days([
      [at(3, 0), 10],
      [at(3, 1), 50],
      [at(3, 2), 50],
    ]);
    expect(day && wordOfDay(day)).toBe('right');
  });
});

describe('days are those of the garden’s clocks', () => {
  test('what is read at 23:30 UTC belongs to the next day in Berlin, and a stretch over midnight to both', () => {
    const found = days(
      [
        [at(3, 21), 40],
        [at(3, 22) + HOUR / 2, 60],
      ],
      'Europe/Berlin',
    );
    // Midnight of 4 May in Berlin is 22:00 UTC: an hour at 40 % before it, half an hour behind it, then an hour at 60 %.
    expect(found.map(({ dayMs, knownH }) => [new Date(dayMs).getUTCDate(), knownH])).toEqual([
      [3, 1],
      [4, 1.5],
    ]);
    expect(found[1]?.mean).toBeCloseTo((0.5 * 40 + 60) / 1.5, 9);
  });

  test('the day on which clocks go back has 25 hours, the one on which they go forward 23', () => {
    const hourly = (from: number, hours: number) =>
      days(
        Array.from({ length: hours }, (_, hour) => [from + hour * HOUR, 50] as const),
        'Europe/Berlin',
      );
    const known = (found: ReturnType<typeof days>) => found.map(({ knownH }) => knownH);
    expect(known(hourly(Date.UTC(2026, 9, 23, 22), 73))).toEqual([24, 25, 24]);
    expect(known(hourly(Date.UTC(2026, 2, 27, 23), 71))).toEqual([24, 23, 24]);
  });

  test('the clock of a zone agrees with the platform’s calendar over a year', () => {
    const zone = 'America/New_York';
    const { dayAt } = zoneClock(zone);
    const format = new Intl.DateTimeFormat('en-CA', { timeZone: zone });
    for (let ms = Date.UTC(2026, 0, 1); ms < Date.UTC(2027, 0, 1); ms += 5 * HOUR + 1234)
      expect(new Date(dayAt(ms)).toISOString().slice(0, 10)).toBe(format.format(ms));
  });
});

test('nothing read, no day', () => {
  expect(days([])).toEqual([]);
});
