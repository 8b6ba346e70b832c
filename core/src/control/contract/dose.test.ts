import { expect, test } from 'vitest';
import { countedMl, doseS, givenMl } from './dose.ts';

/** Nearly five years: seconds since boot are counted no further. */
const LONGEST_S = 150_000_000;

/** The same sums in whole numbers of any length: a second method, which cannot overflow or round. */
const exactDoseS = (ml: number, flow: number, tubeMs: number) => {
  const ms = (BigInt(ml) * 60_000n) / BigInt(flow) + BigInt(tubeMs);
  const s = (ms + 500n) / 1000n;
  return Number(s < 1n ? 1n : s);
};
const exactGivenMl = (ranS: number, flow: number, tubeMs: number) => {
  const ms = BigInt(ranS) * 1000n - BigInt(tubeMs);
  return Number(((ms > 0n ? ms : 0n) * BigInt(flow)) / 60_000n);
};
const exactCountedMl = (ranS: number, flow: number) => Number((BigInt(ranS) * BigInt(flow) + 59n) / 60n);

test.each([
  // 35 792 ml is where the product leaves 32 bits; a million ml through the smallest flow is the largest that a garden can hold.
  [35_791, 540, 0],
  [35_792, 540, 0],
  [1_000_000, 6, 600_000],
  [1_000_000, 60_000, 0],
  [1, 60_000, 0],
])('a dose of %d ml at %d ml/min with %d ms of tube is exact', (ml, flow, tubeMs) => {
  expect(doseS({ flowMlPerMin: flow, tubeMs }, ml)).toBe(exactDoseS(ml, flow, tubeMs));
  expect(doseS({ flowMlPerMin: flow, tubeMs }, ml)).toBeLessThan(2 ** 31);
});

test.each([
  [20, 540, 1200],
  [3600, 60_000, 0],
  [LONGEST_S, 60_000, 999],
  [1, 6, 600_000],
])(
  'a run of %d s at %d ml/min with %d ms of tube is exact, also after a leap of the clock',
  (ranS, flow, tubeMs) => {
    expect(givenMl({ flowMlPerMin: flow, tubeMs }, ranS)).toBe(exactGivenMl(ranS, flow, tubeMs));
    expect(countedMl({ flowMlPerMin: flow }, ranS)).toBe(exactCountedMl(ranS, flow));
    expect(ranS * 1000 * flow).toBeLessThanOrEqual(Number.MAX_SAFE_INTEGER);
  },
);
