import { describe, expect, test } from 'vitest';
import { besideTrace, tracesBySource } from './paleTrace.ts';
import { FLAGS, type Series } from './series.ts';

const MINUTE = 60_000;
const series = (flags: readonly number[], raw = flags.map((_, at) => at)): Series => ({
  timesMs: Float64Array.from(flags, (_, at) => at * MINUTE),
  raw: Float64Array.from(raw),
  flags: Uint8Array.from(flags),
});
const values = (points: readonly { y: number | null }[]) => points.map(({ y }) => y);
const { simulated, imported, beside } = FLAGS;

describe('readings of stand-ins among real ones', () => {
  test('are a trace of their own beside the real ones, also where both lie in one stretch of time', () => {
    const of = series([simulated, 0, simulated, imported, simulated, 0]);
    const { own, standIn } = tracesBySource(of, of.raw, 400);
    expect(values(standIn)).toEqual([0, 2, 4]);
    expect(values(own)).toEqual([1, 3, 5]);
  });
  test('where a probe took the place of a stand-in, each ends where it ended', () => {
    const of = series([simulated, simulated, simulated, 0, 0, 0]);
    const { own, standIn } = tracesBySource(of, of.raw, 400);
    expect([values(standIn), values(own)]).toEqual([
      [0, 1, 2],
      [3, 4, 5],
    ]);
  });
  test('hours of a stand-in between two stretches of a probe are a gap of the probe', () => {
    const of = series([0, 0, 0, 0, ...new Array<number>(60).fill(simulated), 0, 0, 0, 0]);
    expect(values(tracesBySource(of, of.raw, 400).own)).toEqual([0, 1, 2, 3, null, 64, 65, 66, 67]);
  });
  test('a spike among them is kept, however few the buckets', () => {
    const flags = Array.from({ length: 1000 }, (_, at) => (at < 500 ? simulated : 0));
    const raw = flags.map((_, at) => (at === 700 ? 4000 : at === 250 ? 3000 : 1000));
    const of = series(flags, raw);
    const { own, standIn } = tracesBySource(of, of.raw, 3);
    expect(Math.max(...values(own).map(Number))).toBe(4000);
    expect(Math.max(...values(standIn).map(Number))).toBe(3000);
    expect(own.length + standIn.length).toBeLessThan(60);
  });
  test('a gap that is known breaks the trace of its own kind, a change that of either, also where it falls on a row of the other', () => {
    const of = series([simulated, 0, simulated, 0, simulated, 0]);
    const known = tracesBySource(of, of.raw, 400, (at) => at === 3);
    expect([values(known.standIn), values(known.own)]).toEqual([
      [0, 2, 4],
      [1, null, 3, 5],
    ]);
    const changed = tracesBySource(of, of.raw, 400, null, (at) => at === 2);
    expect([values(changed.standIn), values(changed.own)]).toEqual([
      [0, null, 2, 4],
      [1, null, 3, 5],
    ]);
  });
  test.each([[[simulated, simulated, simulated]], [[0, imported, 0]]])(
    'where all are of one kind, it is one trace: %j',
    (flags) => {
      const of = series(flags);
      const { own, standIn } = tracesBySource(of, of.raw, 400);
      expect(values(own)).toEqual([0, 1, 2]);
      expect(standIn).toEqual([]);
    },
  );
});

test('readings beside recorded ones are points by themselves, on the scale that is shown', () => {
  const all = series([0, beside, 0, beside | imported, 0]);
  expect(besideTrace(all, (raw) => raw.map((one) => one * 10), 400)).toEqual([
    { x: MINUTE, y: 10 },
    { x: 3 * MINUTE, y: 30 },
  ]);
  expect(besideTrace(series([0, simulated]), (raw) => raw, 400)).toEqual([]);
});
test('of a hundred thousand of them the chart gets a few hundred, with the lowest and the highest', () => {
  const flags = new Array<number>(100_000).fill(beside);
  const raw = flags.map((_, at) => (at === 77_777 ? 4095 : at === 5 ? 0 : 2000));
  const points = besideTrace(series(flags, raw), (of) => of, 100);
  expect(points.length).toBeLessThanOrEqual(400);
  expect(values(points)).toContain(4095);
  expect(values(points)).toContain(0);
});
