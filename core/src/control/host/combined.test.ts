import { describe, expect, test } from 'vitest';
import { combine, readSensor, type SensorMember } from './combined.ts';

describe('several probes as one', () => {
  test.each([
    ['one', [400], 400],
    ['driest', [520, 310, 480], 310],
    ['driest', [520, null, null], 520],
    ['mean', [300, 401, 500], 400],
    ['mean', [300, null, 500], 400],
    // One of three is not enough: what it says may be its own fault.
    ['mean', [300, null, null], null],
    ['mean', [300, null], null],
    ['median', [900, 310, 480], 480],
    ['median', [900, 310, null], 605],
    ['median', [null, null, 480], null],
    ['driest', [null, null], null],
    ['one', [null], null],
    ['mean', [], null],
  ] as const)('%s of %j is %s', (by, votes, expected) => expect(combine(by, votes)).toBe(expected));
});

describe('what a board reads at a sensor’s place', () => {
  const member = (channelId: string): SensorMember => ({
    channelId,
    factor: 1,
    // Falls from 100 % at 1000 to 0 % at 3000.
    table: [
      { raw: 1000, tenths: 1000 },
      { raw: 3000, tenths: 0 },
    ],
    lowRaw: 20,
    highRaw: 4075,
  });
  const members = ['a', 'b', 'c'].map(member);
  const reads = (said: Readonly<Record<string, readonly [raw: number, atS: number]>>) => (id: string) => {
    const one = said[id];
    return one ? { raw: one[0], atS: one[1] } : null;
  };
  test('one probe gives its own raw value, whole', () =>
    expect(readSensor({ by: 'one', members: [member('a')] }, reads({ a: [1999.6, 50] }), 60, 60)).toEqual({
      raw: 2000,
      atS: 50,
    }));
  test('a percent of its own comes in tenths', () =>
    expect(
      readSensor({ by: 'one', members: [{ ...member('a'), factor: 10 }] }, reads({ a: [37.4, 50] }), 60, 60),
    ).toEqual({ raw: 374, atS: 50 }));
  test('several give the tenths of what they come to, at the time of the newest that counts', () =>
    expect(
      readSensor({ by: 'median', members }, reads({ a: [2000, 50], b: [2600, 58], c: [1200, 40] }), 60, 60),
    ).toEqual({ raw: 500, atS: 58 }));
  test('one that is silent or at its rail drops out, and does not keep the others young', () => {
    // b is at its rail, c is stale: of three one is left.
    const said = { a: [2000, 50], b: [4095, 100], c: [1200, 10] } as const;
    expect(readSensor({ by: 'median', members }, reads(said), 100, 60)).toBe(null);
    expect(readSensor({ by: 'driest', members }, reads(said), 100, 60)).toEqual({ raw: 500, atS: 50 });
  });
});
