import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from 'vitest';
import { readDay } from '@plain-trowel/core/records/packDay';
import { DAY_MS, type DayBlock } from '@plain-trowel/core/records/series';
import { DAY_STORES } from './days.ts';
import { allOrNothing, writeTo } from './db.ts';
import { putReadings } from './putReadings.ts';
import { database } from './services.ts';

const DAY0 = Date.UTC(2025, 4, 1);
/** A day of two readings, at its first and second minute. */
const day = (number: number, first: number, second: number, minutes = [0, 1]): DayBlock => ({
  channelId: 'a',
  dayMs: DAY0 + number * DAY_MS,
  offsetsMs: Uint32Array.from(minutes, (minute) => minute * 60_000),
  raw: Float64Array.of(first, second),
  flags: new Uint8Array(2),
});

const put = async (days: readonly DayBlock[]) => {
  const tx = writeTo(await database(), ...DAY_STORES, 'aside');
  return allOrNothing(tx, async () => putReadings(tx, 'g', days, 'beside'));
};

const stored = async () =>
  (await (await database()).getAll('blocks')).flatMap((one) => {
    const block = readDay(one);
    return block ? [[...block.raw]] : [];
  });

beforeEach(async () => {
  const db = await database();
  for (const store of DAY_STORES) await db.clear(store);
});

test('a year of days is kept, each with its thinned form', async () => {
  const { added, writtenDays } = await put(Array.from({ length: 365 }, (_, at) => day(at, at, at + 0.5)));
  expect(added).toBe(730);
  expect(writtenDays.get('a')).toHaveLength(365);
  expect(await stored()).toEqual(Array.from({ length: 365 }, (_, at) => [at, at + 0.5]));
  expect(await (await database()).count('thins')).toBe(365);
});

test('a day that comes twice in one file keeps the readings of both', async () => {
  const { added } = await put([day(0, 1, 2), day(1, 5, 6), day(0, 3, 4, [2, 3])]);
  expect(added).toBe(6);
  expect(await stored()).toEqual([
    [1, 2, 3, 4],
    [5, 6],
  ]);
});

test('what is recorded stays where a file of days meets it', async () => {
  await put([day(0, 1, 2)]);
  const { added, beside, same } = await put([day(0, 1, 7), day(1, 5, 6)]);
  expect([added, beside, same]).toEqual([3, 1, 1]);
  expect(await stored()).toEqual([
    [1, 2, 7],
    [5, 6],
  ]);
});

test('where one day of many cannot be written, none is', async () => {
  await put([day(0, 1, 2)]);
  const days = Array.from({ length: 30 }, (_, at) => day(at + 1, 3, 4));
  const unwritable = { ...day(21, 3, 4), dayMs: Number.NaN };
  await expect(put(days.with(20, unwritable))).rejects.toThrow();
  expect(await stored()).toEqual([[1, 2]]);
});
