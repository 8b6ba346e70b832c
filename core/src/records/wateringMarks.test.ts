import { expect, test } from 'vitest';
import { identified, type GardenEvent } from './event.ts';
import { wateringMarks } from './wateringMarks.ts';

const HOUR = 3_600_000;
const MAY = Date.UTC(2026, 4, 1);
const poured = (hour: number, volumeMl: number): GardenEvent =>
  identified(
    { kind: 'poured', atMs: MAY + hour * HOUR, plotId: 'p', simulated: false, volumeMl },
    `at ${hour}`,
    'person',
  );
/** Over a chart of a hundred hours: words need fourteen of them. */
const marks = (...events: GardenEvent[]) =>
  wateringMarks(events, 100 * HOUR).map(({ atMs, label }) => [(atMs - MAY) / HOUR, label]);

test('waterings far enough apart each say what was given, whatever their order', () => {
  expect(marks(poured(50, 200), poured(90, 124), poured(10, 80))).toEqual([
    [90, '124 ml'],
    [50, '200 ml'],
    [10, '80 ml'],
  ]);
});

test('four doses of one evening say together what they gave', () => {
  expect(
    marks(poured(60, 124), poured(60.25, 124), poured(60.5, 124), poured(60.75, 124), poured(20, 50)),
  ).toEqual([
    [60.75, '496 ml in 4'],
    [60.5, ''],
    [60.25, ''],
    [60, ''],
    [20, '50 ml'],
  ]);
});

test('a watering every 66 minutes is gathered by the room of the words, none left out', () => {
  const all = marks(...Array.from({ length: 30 }, (_, at) => poured(at * 1.1, 10)));
  expect(all.filter(([, label]) => label !== '').map(([, label]) => label)).toEqual([
    '130 ml in 13',
    '130 ml in 13',
    '40 ml in 4',
  ]);
  expect(all).toHaveLength(30);
});

test('what is no watering has no mark', () => {
  expect(
    marks(identified({ kind: 'note', atMs: MAY, plotId: 'p', simulated: false, text: 'fed' }, 'n', 'person')),
  ).toEqual([]);
});
