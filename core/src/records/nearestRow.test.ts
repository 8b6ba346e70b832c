import { describe, expect, test } from 'vitest';
import { nearestReading, nearestRow } from './nearestRow.ts';
import { FLAGS } from './series.ts';
import { gapFinder } from './trace.ts';

/** Every ten seconds, then nothing for an hour, then again. */
const TIMES = [0, 10, 20, 30, 40, 50, 3650, 3660, 3670, 3680, 3690, 3700].map((s) => 1000 * s);
const isGap = gapFinder(TIMES);
const rowAt = (s: number, reachS = 2) => nearestRow(TIMES, 1000 * s, isGap, 1000 * reachS);

test.each([
  ['on a reading', 20, 2],
  ['nearer to the one before', 24, 2],
  ['nearer to the one after', 27, 3],
  ['just as far from both: the one before', 25, 2],
  ['in a gap, far from either end', 600, null],
  ['in a gap, within reach of its beginning', 51, 5],
  ['in a gap, within reach of its end', 3649, 6],
  ['before the first, within reach', -1, 0],
  ['before the first', -60, null],
  ['after the last, within reach', 3701, 11],
  ['after the last', 9000, null],
])('%s', (_, s, row) => expect(rowAt(s)).toBe(row));

test('nothing is near to nothing, and a single reading only within reach', () => {
  expect(nearestRow([], 5, () => false, 1e9)).toBe(null);
  expect(nearestRow([100], 130, () => false, 50)).toBe(0);
  expect(nearestRow([100], 130, () => false, 10)).toBe(null);
});

test('finds what a look at every reading finds, on made-up times', () => {
  let seed = 7;
  const chance = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
  for (let turn = 0; turn < 300; turn += 1) {
    const times = Array.from({ length: 1 + Math.floor(40 * chance()) }, () =>
      Math.floor(1000 * chance()),
    ).sort((one, other) => one - other);
    const atMs = Math.floor(1000 * chance());
    const row = nearestRow(times, atMs, () => false, Infinity);
    expect(Math.abs((times[row ?? -1] ?? Infinity) - atMs)).toBe(
      Math.min(...times.map((one) => Math.abs(one - atMs))),
    );
  }
});

describe('in a log of a probe and of stand-in boards', () => {
  const { simulated } = FLAGS;
  const at = (s: number) => 1000 * s;
  /** A stand-in each ten seconds; the probe for the first and the last minute of an hour. */
  const probeS = [...Array(6).keys()].flatMap((turn) => [turn * 10 + 5, 3600 + turn * 10 + 5]);
  const standInS = Array.from({ length: 366 }, (_, turn) => turn * 10);
  const rows = [
    ...probeS.map((s) => ({ s, flags: 0 })),
    ...standInS.map((s) => ({ s, flags: simulated })),
  ].toSorted((a, b) => a.s - b.s);
  const series = {
    timesMs: Float64Array.from(rows, ({ s }) => at(s)),
    raw: new Float64Array(rows.length),
    flags: Uint8Array.from(rows, ({ flags }) => flags),
  };
  const found = (s: number) => {
    const one = nearestReading(series, at(s), null, at(2));
    return one && [(series.timesMs[one.row] ?? 0) / 1000, one.isStandIn ? 'stand-in' : 'probe'];
  };

  test('the probe is told where it read, though a stand-in is nearer', () => {
    expect(found(19)).toEqual([15, 'probe']);
  });

  test('where it did not, the stand-in is told as one', () => {
    expect(found(1801)).toEqual([1800, 'stand-in']);
  });

  test('readings of stand-ins alone are not told apart from anything', () => {
    const alone = { ...series, flags: series.flags.map(() => simulated) };
    expect(nearestReading(alone, at(1801), null, at(2))).toEqual({
      row: rows.findIndex(({ s }) => s === 1800),
      isStandIn: false,
    });
  });
});
