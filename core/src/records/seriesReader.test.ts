import { describe, expect, test } from 'vitest';
import { mergeDay } from './mergeDay.ts';
import { DAY_MS, FLAGS, type Reading } from './series.ts';
import { SeriesReader, type DayStore } from './seriesReader.ts';

const DAY0 = Date.UTC(2026, 4, 1);
const HOUR = 3_600_000;

/** A shelf of days that writes down what is read from it. */
function shelf() {
  const stored = new Map<string, unknown>();
  const reads: number[] = [];
  const store: DayStore = {
    days: (channelId, from, to) =>
      Promise.resolve(
        [...stored.keys()]
          .filter((key) => key.startsWith(`${channelId} `))
          .map((key) => Number(key.split(' ')[1]))
          .filter((dayMs) => dayMs >= from && dayMs <= to)
          .sort((a, b) => a - b),
      ),
    read: (channelId, daysMs) => {
      reads.push(...daysMs.map((dayMs) => (dayMs - DAY0) / DAY_MS));
      return Promise.resolve(daysMs.map((dayMs) => stored.get(`${channelId} ${dayMs}`)));
    },
  };
  const put = (channelId: string, day: number, readings: readonly Reading[]) => {
    const dayMs = DAY0 + day * DAY_MS;
    stored.set(`${channelId} ${dayMs}`, mergeDay(null, channelId, dayMs, readings, 'beside').block);
  };
  return { stored, reads, store, put };
}

const at = (day: number, hour: number, raw: number, flags = 0): Reading => ({
  timeMs: DAY0 + day * DAY_MS + hour * HOUR,
  raw,
  flags,
});
const ALL = { channelId: 'a', fromMs: -Infinity, toMs: Infinity };

/** Hours 0 and 12 of each day, with the number of the day and a half as values. */
function season(days: number) {
  const made = shelf();
  for (let day = 0; day < days; day += 1) made.put('a', day, [at(day, 0, day), at(day, 12, day + 0.5)]);
  return made;
}

describe('thinned for a season', () => {
  const span = { channelId: 'a', fromMs: DAY0, toMs: DAY0 + 40 * DAY_MS };
  test('says how many readings there are, cuts its ends, and tells damaged days', async () => {
    const { store, stored } = season(40);
    stored.set(`a ${DAY0 + 7 * DAY_MS}`, { channelId: 'a', raw: 'nonsense' });
    const thin = await new SeriesReader(store, 1000).thin({ ...span, fromMs: at(0, 1, 0).timeMs });
    expect([thin.readings, thin.raw[0], thin.raw.at(-1)]).toEqual([77, 0.5, 39.5]);
    expect(thin.damagedDays).toEqual([DAY0 + 7 * DAY_MS]);
  });
  test('days stay thinned, whatever moves, until they are written; parts of days are read each time', async () => {
    const made = season(40);
    const reader = new SeriesReader(made.store, 1);
    await reader.thin(span);
    made.reads.length = 0;
    await reader.thin({ ...span, fromMs: at(5, 12, 0).timeMs, toMs: at(39, 6, 0).timeMs });
    expect(made.reads).toEqual([5, 39]);
    made.put('a', 20, [at(20, 3, 99)]);
    reader.written('a', [DAY0 + 20 * DAY_MS]);
    expect(Math.max(...(await reader.thin(span)).raw)).toBe(99);
  });
});

describe('a span', () => {
  test('is cut at both ends, both included, and joined over midnight', async () => {
    const { store } = season(3);
    const read = await new SeriesReader(store).read({
      channelId: 'a',
      fromMs: at(0, 12, 0).timeMs,
      toMs: at(2, 0, 0).timeMs,
    });
    expect([...read.raw]).toEqual([0.5, 1, 1.5, 2]);
    expect(read.timesMs[0]).toBe(DAY0 + 12 * HOUR);
  });

  test('that touches no day is empty, and one of another channel is not taken', async () => {
    const { store } = season(3);
    const reader = new SeriesReader(store);
    expect((await reader.read({ ...ALL, channelId: 'b' })).raw).toHaveLength(0);
    expect((await reader.read({ ...ALL, fromMs: at(9, 0, 0).timeMs })).raw).toHaveLength(0);
  });

  test('names the days that cannot be read and gives the others', async () => {
    const { store, stored } = season(3);
    stored.set(`a ${DAY0 + DAY_MS}`, { channelId: 'a', dayMs: DAY0 + DAY_MS, raw: 'worms' });
    const read = await new SeriesReader(store).read(ALL);
    expect([...read.raw]).toEqual([0, 0.5, 2, 2.5]);
    expect(read.damagedDays).toEqual([DAY0 + DAY_MS]);
  });

  test('leaves out what stands beside another reading unless asked for', async () => {
    const { store, put } = shelf();
    put('a', 0, [at(0, 1, 5), at(0, 1, 6, FLAGS.beside)]);
    const reader = new SeriesReader(store, 100);
    expect([...(await reader.read(ALL)).raw]).toEqual([5]);
    expect([...(await reader.read({ ...ALL, withBeside: true })).raw]).toEqual([5, 6]);
  });
});

test('in stretches a season gives the same as in one piece, a month at most at once', async () => {
  const { store } = season(100);
  const reader = new SeriesReader(store);
  const raw: number[] = [];
  const lengths: number[] = [];
  for await (const chunk of reader.chunks(ALL)) {
    raw.push(...chunk.raw);
    lengths.push(chunk.raw.length);
  }
  expect(raw).toEqual([...(await reader.read(ALL)).raw]);
  expect(lengths).toEqual([62, 62, 62, 14]);
});

describe('days that were read', () => {
  test('are not read again', async () => {
    const { store, reads } = season(3);
    const reader = new SeriesReader(store, 1000);
    await reader.read(ALL);
    await reader.read({ ...ALL, fromMs: at(1, 0, 0).timeMs });
    expect(reads).toEqual([0, 1, 2]);
  });

  test('are read again when they were written, they alone', async () => {
    const { store, reads, put } = season(3);
    const reader = new SeriesReader(store, 1000);
    await reader.read(ALL);
    put('a', 2, [at(2, 0, 2), at(2, 12, 2.5), at(2, 13, 99)]);
    reader.written('a', [DAY0 + 2 * DAY_MS]);
    expect([...(await reader.read(ALL)).raw]).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 99]);
    expect(reads).toEqual([0, 1, 2, 2]);
  });

  test('are all read again when anything may have been written', async () => {
    const { store, stored, reads } = season(2);
    const reader = new SeriesReader(store, 1000);
    await reader.read(ALL);
    stored.delete(`a ${DAY0}`);
    reader.forget();
    expect([...(await reader.read(ALL)).raw]).toEqual([1, 1.5]);
    expect(reads).toEqual([0, 1, 1]);
  });

  test('do not stay when they were written while they were being read', async () => {
    const { store, put } = season(1);
    let release = () => undefined as unknown;
    const slow: DayStore = {
      ...store,
      read: async (channelId, daysMs) => {
        const found = await store.read(channelId, daysMs);
        await new Promise<void>((resolve) => (release = resolve));
        return found;
      },
    };
    const reader = new SeriesReader(slow, 1000);
    const first = reader.read(ALL);
    await new Promise((resolve) => setTimeout(resolve, 5));
    put('a', 0, [at(0, 0, 0), at(0, 1, 77)]);
    reader.written('a', [DAY0]);
    release();
    await first;
    const second = reader.read(ALL);
    await new Promise((resolve) => setTimeout(resolve, 5));
    release();
    expect([...(await second).raw]).toEqual([0, 77]);
  });

  test('stay up to a number of rows; the day used longest ago goes first', async () => {
    const { store, reads } = season(3);
    const reader = new SeriesReader(store, 4);
    const day = (number: number) =>
      reader.read({ channelId: 'a', fromMs: at(number, 0, 0).timeMs, toMs: at(number, 23, 0).timeMs });
    for (const number of [0, 1, 0, 2, 0, 1]) await day(number);
    expect(reads).toEqual([0, 1, 2, 1]);
  });

  test('longer than may stay are read each time', async () => {
    const { store, reads } = season(1);
    const reader = new SeriesReader(store, 1);
    await reader.read(ALL);
    await reader.read(ALL);
    expect(reads).toEqual([0, 0]);
  });
});

test('a day that goes while it is read is neither there nor damaged', async () => {
  const { store, stored } = season(2);
  const vanishing: DayStore = {
    ...store,
    read: (channelId, daysMs) => {
      stored.delete(`a ${DAY0}`);
      return store.read(channelId, daysMs);
    },
  };
  const read = await new SeriesReader(vanishing).read(ALL);
  expect([...read.raw]).toEqual([1, 1.5]);
  expect(read.damagedDays).toEqual([]);
});
