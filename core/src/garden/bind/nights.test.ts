/** Nights against sunrise and sunset of the almanac for London: 21 June 03:43 to 20:21 UTC, 21 December 08:04 to 15:53 UTC. */
import { describe, expect, test } from 'vitest';
import { onePlot } from '../edits/gardenForTests.ts';
import type { Garden } from '../document/schema.ts';
import { nightsIn } from './nights.ts';

const at = (latitudeDeg: number | null, longitudeDeg: number | null): Garden => {
  const garden = onePlot();
  return {
    ...garden,
    plan: { ...garden.plan, supply: { ...garden.plan.supply, latitudeDeg, longitudeDeg } },
  };
};
const LONDON = at(51.5, -0.13);
const MINUTE = 60_000;
const utc = (text: string) => Date.parse(`2026-${text}Z`);
const minutesOff = (one: number | undefined, other: number) => Math.abs((one ?? 0) - other) / MINUTE;

describe('nights', () => {
  test('of midsummer begin and end with the sun', () => {
    const nights = nightsIn(LONDON, { fromMs: utc('06-20T12:00'), toMs: utc('06-22T12:00') });
    expect(nights).toHaveLength(2);
    expect(minutesOff(nights[0]?.fromMs, utc('06-20T20:21'))).toBeLessThan(4);
    expect(minutesOff(nights[0]?.toMs, utc('06-21T03:43'))).toBeLessThan(4);
  });
  test('of midwinter are cut off at the ends of what is looked at', () => {
    const [first, second, ...more] = nightsIn(LONDON, {
      fromMs: utc('12-21T02:00'),
      toMs: utc('12-21T20:00'),
    });
    expect(more).toEqual([]);
    expect(first?.fromMs).toBe(utc('12-21T02:00'));
    expect(minutesOff(first?.toMs, utc('12-21T08:04'))).toBeLessThan(4);
    expect(minutesOff(second?.fromMs, utc('12-21T15:53'))).toBeLessThan(4);
    expect(second?.toMs).toBe(utc('12-21T20:00'));
  });
  test('within one night there is one, the whole of it, on either side of the world', () => {
    for (const [garden, from, to] of [
      [LONDON, '12-21T22:00', '12-22T03:00'],
      // In Auckland it is dark from about 05:30 to 18:30 UTC in March.
      [at(-36.8, 174.8), '03-21T08:00', '03-21T14:00'],
      [at(40.7, -74), '03-21T02:00', '03-21T08:00'],
    ] as const)
      expect(nightsIn(garden, { fromMs: utc(from), toMs: utc(to) })).toEqual([
        { fromMs: utc(from), toMs: utc(to) },
      ]);
  });
  test('by day there is none, nor where nobody knows the place, nor where the sun stays up', () => {
    const day = { fromMs: utc('06-21T09:00'), toMs: utc('06-21T15:00') };
    expect(nightsIn(LONDON, day)).toEqual([]);
    expect(nightsIn(at(null, null), { fromMs: utc('06-20T00:00'), toMs: utc('06-25T00:00') })).toEqual([]);
    expect(nightsIn(at(69.6, 18.9), { fromMs: utc('06-20T00:00'), toMs: utc('06-25T00:00') })).toEqual([]);
  });
});
