/** A slice of what `npm run bench -- settling` prints; the whole of it in `npm run test:long`. */
import { expect, test } from 'vitest';
import { hardStream } from '../standins/src/settling/hardStreams.ts';
import { judge, settlingRows } from './settling.ts';
import { endRows } from './settlingEnd.ts';

const IS_LONG = Boolean(process.env.TROWEL_LONG);

test('at the bench "stopped moving" comes in time and is true', () => {
  const judged = [3, 5, 9, 14, 21, 26, 33, 41].map((seed) => judge(hardStream('bench', seed), 2));
  expect(judged.filter((one) => one.falseStopped || one.falseSteady)).toEqual([]);
  const waits = judged.flatMap((one) => one.waits).sort((a, b) => a - b);
  expect(waits.length).toBeGreaterThan(10);
  expect(waits[Math.floor(waits.length / 2)]).toBeLessThan(2.5);
});

test('under a slow wave and a drift it is not called steady', () => {
  const judged = (['wave', 'drift'] as const).flatMap((family) =>
    [2, 4, 6].map((seed) => judge(hardStream(family, seed), 20)),
  );
  expect(judged.filter((one) => one.falseSteady)).toEqual([]);
});

test('the interval of the end holds it, whatever the curve', () => {
  for (const row of endRows(5, ['bench', 'stretched', 'drying']))
    expect([row.name, row.holds >= 0.8]).toEqual([row.name, true]);
});

test.runIf(IS_LONG)(
  'of every family but the creep without an end at least 85 of 100 intervals hold the end',
  () => {
    for (const row of endRows(60).filter(({ name }) => !['creep', 'wave'].includes(name)))
      expect([row.name, row.holds >= 0.85]).toEqual([row.name, true]);
  },
  3_600_000,
);

test.runIf(IS_LONG)(
  'of every family at most two streams in a hundred are called steady falsely, none set aside, and the median wait is at most 2.5',
  () => {
    for (const row of settlingRows(100)) {
      expect([row.name, row.falseSteady <= 0.02]).toEqual([row.name, true]);
      // Under a wave, a drift and a creep the true curve hardly ever rests; noise that carries over takes its time.
      if (!['wave', 'drift', 'creep', 'noise 0.6', 'noise 0.9'].includes(row.name))
        expect([row.name, row.medianWait <= 2.5]).toEqual([row.name, true]);
    }
  },
  7_200_000,
);
