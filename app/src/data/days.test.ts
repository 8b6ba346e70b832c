import 'fake-indexeddb/auto';
import { expect, test } from 'vitest';
import { readDay } from '@plain-trowel/core/records/packDay';
import { DAY_MS, type DayBlock, type Reading } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { thinDay, unpackThin } from '@plain-trowel/core/records/thinDay';
import { tidyDays } from './days.ts';
import { openDb, type Db } from './db.ts';
import { addRecords, dayStore } from './recordStore.ts';

const DAY0 = Date.UTC(2026, 4, 1);
let databases = 0;

async function opened(): Promise<Db> {
  const db = await openDb(`days-${++databases}`);
  await db.put('gardens', { id: 'g', revision: 1, doc: {} });
  return db;
}

const minutes = (day: number, count = 1440): Reading[] =>
  Array.from({ length: count }, (_, at) => ({
    timeMs: DAY0 + day * DAY_MS + at * 60_000,
    raw: 1500 + ((at * 7 + day) % 300),
    flags: 0,
  }));

/** What stands in storage beside what it must be: the thinned form of the very day. */
async function thinsAgree(db: Db): Promise<void> {
  const days = (await db.getAll('blocks')).map((one) => readDay(one));
  const thins = (await db.getAll('thins')).map((one) => unpackThin(one));
  expect(thins).toEqual(days.map((day) => day && thinDay(day)));
}

test('beside every day that is over stands its thinned form, whatever is put in, in whatever order', async () => {
  const db = await opened();
  let state = 5;
  const dice = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  for (let turn = 0; turn < 12; turn += 1) {
    const some = minutes(Math.floor(dice() * 3)).filter(() => dice() < 0.2);
    const spoilt = some.map((one) => (dice() < 0.1 ? { ...one, raw: one.raw + 1 } : one));
    await addRecords(db, 'g', new Map([['c', spoilt]]));
    await thinsAgree(db);
  }
  expect(await db.count('thins')).toBe(3);
});

test('today is not thinned before it is over', async () => {
  const db = await opened();
  await addRecords(db, 'g', new Map([['c', [{ timeMs: Date.now(), raw: 7, flags: 0 }]]]));
  expect([await db.count('blocks'), await db.count('thins')]).toEqual([1, 0]);
  expect(await tidyDays(db, 'g', () => undefined)).toBe(0);
});

/** As the first versions stored a day: three full columns. */
const unpacked = (day: number): DayBlock => {
  const rows = minutes(day, 200);
  return {
    channelId: 'c',
    dayMs: DAY0 + day * DAY_MS,
    offsetsMs: Uint32Array.from(rows, ({ timeMs }) => timeMs - DAY0 - day * DAY_MS),
    raw: Float64Array.from(rows, ({ raw }) => raw),
    flags: new Uint8Array(rows.length).fill(3),
  };
};

test('days of earlier versions are read as they are, and packed without loss; one that cannot be read stays', async () => {
  const db = await opened();
  const old = Array.from({ length: 70 }, (_, day) => unpacked(day));
  for (const block of old) await db.put('blocks', { gardenId: 'g', ...block });
  const damaged = { gardenId: 'g', ...unpacked(80), raw: new Float64Array(3) };
  await db.put('blocks', damaged);
  const whole = { channelId: 'c', fromMs: -Infinity, toMs: Infinity };
  const read = () => new SeriesReader(dayStore(() => Promise.resolve(db), 'g')).read(whole);
  const before = await read();
  expect(before.raw).toHaveLength(70 * 200);
  const told: (readonly [number, number])[] = [];
  expect(await tidyDays(db, 'g', (...of) => told.push(of))).toBe(70);
  expect(told).toEqual([
    [31, 71],
    [62, 71],
    [71, 71],
  ]);
  expect(await read()).toEqual(before);
  expect(before.damagedDays).toEqual([DAY0 + 80 * DAY_MS]);
  expect(await db.get('blocks', ['g', 'c', DAY0 + 80 * DAY_MS])).toEqual(damaged);
  // A second time there is nothing left to do but the damaged one.
  expect(await tidyDays(db, 'g', () => undefined)).toBe(0);
});

test('a chart of a season draws the same from what is stored thinned as from the days themselves', async () => {
  const db = await opened();
  for (const day of [0, 1, 2, 5]) await addRecords(db, 'g', new Map([['c', minutes(day)]]));
  const span = { channelId: 'c', fromMs: DAY0 + 3_600_000, toMs: DAY0 + 9 * DAY_MS };
  const { isGap, ...stored } = await new SeriesReader(
    dayStore(() => Promise.resolve(db), 'g'),
    1e6,
  ).thin(span);
  const { readThin: _none, ...bare } = dayStore(() => Promise.resolve(db), 'g');
  const { isGap: isGapOf, ...computed } = await new SeriesReader(bare, 1e6).thin(span);
  expect(stored).toEqual(computed);
  const places = [...stored.timesMs.keys()];
  expect(places.map(isGap)).toEqual(places.map(isGapOf));
  // Two days are missing behind the third.
  expect(places.filter(isGap)).toHaveLength(1);
});

test('read ahead, a season is drawn without asking storage again, until one of its days is written', async () => {
  const db = await opened();
  for (const day of [0, 1, 2]) await addRecords(db, 'g', new Map([['c', minutes(day)]]));
  const asked: string[] = [];
  const { days, read, readThin } = dayStore(() => Promise.resolve(db), 'g');
  const reader = new SeriesReader(
    {
      days,
      read: (...of) => (asked.push('days'), read(...of)),
      readThin: async (...of) => (asked.push('thinned'), (await readThin?.(...of)) ?? []),
    },
    1e6,
  );
  const span = { channelId: 'c', fromMs: DAY0, toMs: DAY0 + 3 * DAY_MS - 1 };
  await reader.readAhead('c');
  expect(asked).toEqual(['thinned']);
  expect((await reader.thin(span)).readings).toBe(3 * 1440);
  await reader.readAhead('c');
  expect(asked).toEqual(['thinned']);
  await addRecords(db, 'g', new Map([['c', [{ timeMs: DAY0 + 30_000, raw: 7, flags: 0 }]]]));
  reader.written('c', [DAY0]);
  expect((await reader.thin(span)).readings).toBe(3 * 1440 + 1);
});

test('a thinned day that is damaged is thinned again from its day', async () => {
  const db = await opened();
  await addRecords(db, 'g', new Map([['c', minutes(0)]]));
  const [thin] = await db.getAll('thins');
  await db.put('thins', { ...thin, rows: 99_999 } as never);
  const span = { channelId: 'c', fromMs: DAY0, toMs: DAY0 + DAY_MS - 1 };
  const read = await new SeriesReader(
    dayStore(() => Promise.resolve(db), 'g'),
    1e6,
  ).thin(span);
  expect([read.readings, read.damagedDays]).toEqual([1440, []]);
});
