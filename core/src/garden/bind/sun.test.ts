import { describe, expect, test } from 'vitest';
import { localTimeIn } from '../../quantity/localTime.ts';
import { emptyGarden } from '../edits/plots.ts';
import type { Garden } from '../document/schema.ts';
import { placeOf, sunOf } from './sun.ts';

const at = (timeZone: string, latitudeDeg: number | null, longitudeDeg: number | null = null): Garden => {
  const garden = emptyGarden('g', timeZone, { random: () => 0.5, nowIso: '2026-01-01T00:00:00Z' });
  return {
    ...garden,
    plan: { ...garden.plan, supply: { ...garden.plan.supply, latitudeDeg, longitudeDeg } },
  };
};
const clock = (second: number) =>
  `${String(Math.floor(second / 3600)).padStart(2, '0')}:${String(Math.floor((second % 3600) / 60)).padStart(2, '0')}`;
const sunAt = (garden: Garden, timeMs: number) => {
  const sun = sunOf(garden, localTimeIn(garden.timeZone))(timeMs);
  return sun && [clock(sun.riseS), clock(sun.setS)];
};

describe('sunrise and sunset by the clock on the wall', () => {
  // Almanac: London 21 June 04:43 and 21:21 summer time; Sydney 21 December 05:41 and 20:05 summer time.
  test.each([
    ['London, noon', at('Europe/London', 51.51, -0.13), Date.UTC(2025, 5, 21, 11), ['04:43', '21:21']],
    [
      'the first minute of that day',
      at('Europe/London', 51.51, -0.13),
      Date.UTC(2025, 5, 20, 23, 1),
      ['04:43', '21:21'],
    ],
    ['its last minute', at('Europe/London', 51.51, -0.13), Date.UTC(2025, 5, 21, 22, 58), ['04:43', '21:21']],
    ['Sydney', at('Australia/Sydney', -33.87, 151.21), Date.UTC(2025, 11, 21, 0), ['05:41', '20:05']],
  ])('%s', (_, garden, timeMs, [rise, set]) => {
    const minutes = (text = '') => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));
    const sun = sunAt(garden, timeMs) ?? [];
    expect(Math.abs(minutes(sun[0]) - minutes(rise))).toBeLessThanOrEqual(1);
    expect(Math.abs(minutes(sun[1]) - minutes(set))).toBeLessThanOrEqual(1);
  });
});

test('without a latitude nothing is known, and up north there are days without sun', () => {
  expect(sunAt(at('Europe/London', null), Date.UTC(2025, 5, 21, 11))).toBeNull();
  expect(sunAt(at('Europe/Oslo', 70, 20), Date.UTC(2025, 11, 21, 11))).toBeNull();
});

test.each([
  ['Europe/Berlin', 15],
  ['Europe/London', 0],
  ['America/New_York', -75],
  ['Australia/Sydney', 150],
  ['Pacific/Auckland', 180],
  ['Asia/Kolkata', 82.5],
  ['Pacific/Honolulu', -150],
])('without a longitude: the middle of %s lies at %d°', (zone, longitudeDeg) => {
  expect(placeOf(at(zone, 50))).toEqual({ latitudeDeg: 50, longitudeDeg, isRough: true });
});
