/** Storage against a list of rows that knows nothing of days, packing or transactions: the same random steps, and after each the same readings. */
import 'fake-indexeddb/auto';
import { expect, test } from 'vitest';
import { newHistory } from '@plain-trowel/core/garden/document/history';
import { DAY_MS, FLAGS, type Reading } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { openDb } from './db.ts';
import { saveGarden } from './gardenStore.ts';
import { addRecords, dayStore } from './recordStore.ts';
import { importRecords, removeRecords, stepBack, stepForward } from './recordsImport.ts';

const DAY0 = Date.UTC(2026, 9, 24);
const garden = marigoldHare(DAY0);
const CHANNELS = ['channel-c2', 'channel-m1'] as const;

const diceOf = (seed: number) => {
  let state = seed;
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
};

/** What a channel holds, in the order in which it came. */
class NaiveChannel {
  rows: readonly Reading[] = [];

  /** What is recorded stays; another value of its time stands beside it; the same value is nothing new. */
  put(given: readonly Reading[]): readonly Reading[] {
    const added: Reading[] = [];
    for (const one of given) {
      const there = this.rows.filter(({ timeMs }) => timeMs === one.timeMs);
      if (there.some(({ raw }) => raw === one.raw)) continue;
      const isBeside = there.some(({ flags }) => (flags & FLAGS.beside) === 0);
      const row = { ...one, flags: isBeside ? one.flags | FLAGS.beside : one.flags };
      this.rows = [...this.rows, row];
      added.push(row);
    }
    return added;
  }

  cut(fromMs: number, toMs: number): readonly Reading[] {
    const inside = this.rows.filter(({ timeMs }) => timeMs >= fromMs && timeMs <= toMs);
    this.rows = this.rows.filter((row) => !inside.includes(row));
    return inside;
  }

  take(gone: readonly Reading[]): void {
    this.rows = this.rows.filter(
      (row) =>
        !gone.some((one) => one.timeMs === row.timeMs && one.raw === row.raw && one.flags === row.flags),
    );
  }
}

/** Rows by time; of one time the recorded one first, the others by value, for their order says nothing. */
const sorted = (rows: readonly Reading[]) =>
  rows
    .map(({ timeMs, raw, flags }) => [timeMs, flags & FLAGS.beside, raw, flags] as const)
    .toSorted((one, other) => one[0] - other[0] || one[1] - other[1] || one[2] - other[2]);

test.each([1, 2, 3, 4, 5, 6])(
  'random steps, seed %d: any span reads as the list says, also undone and done again',
  async (seed) => {
    const dice = diceOf(seed);
    const below = (count: number) => Math.floor(dice() * count);
    const db = await openDb(`naive-${seed}`);
    let stored = await saveGarden(db, newHistory(garden), null);
    const naive = new Map(CHANNELS.map((id) => [id, new NaiveChannel()]));
    const of = (id: (typeof CHANNELS)[number]) => naive.get(id) ?? new NaiveChannel();
    type Step = {
      readonly isRemoval: boolean;
      readonly rows: ReadonlyMap<(typeof CHANNELS)[number], readonly Reading[]>;
    };
    const past: Step[] = [];
    const future: Step[] = [];
    /** Around the night of a change of clocks, over several midnights of UTC; whole seconds meet again, so that values clash. */
    const some = (flags: number, parity: number): Reading[] =>
      Array.from({ length: 1 + below(40) }, () => ({
        timeMs: DAY0 + below(4 * 24 * 60) * 60_000 + parity,
        raw: dice() < 0.1 ? dice() * 4095 : 1500 + below(3),
        flags,
      }));
    const batch = (flags: number, parity: number) =>
      new Map(CHANNELS.filter(() => dice() < 0.7).map((id) => [id, some(flags, parity)]));
    const reader = () => new SeriesReader(dayStore(() => Promise.resolve(db), garden.id));
    for (let turn = 0; turn < 24; turn += 1) {
      const what = below(6);
      if (what <= 1) {
        // What boards report lies at times of its own: meanwhile undone readings come back as they were.
        const given = batch(below(2), 0);
        await addRecords(db, garden.id, given);
        for (const [id, rows] of given) of(id).put(rows);
      } else if (what === 2) {
        const given = batch(FLAGS.imported, 1);
        const taken = await importRecords(db, stored, 'take in', {
          garden: stored.history.present,
          readings: given,
          events: [],
          what: 'a file',
          nowMs: DAY0,
          onClash: 'beside',
        });
        stored = taken.stored;
        past.push({
          isRemoval: false,
          rows: new Map([...given].map(([id, rows]) => [id, of(id).put(rows)])),
        });
        future.length = 0;
      } else if (what === 3) {
        const fromMs = DAY0 + below(4 * 24) * 3_600_000;
        const toMs = fromMs + below(DAY_MS);
        const channelIds = CHANNELS.filter(() => dice() < 0.7);
        const gone = await removeRecords(db, stored, 'delete', {
          channelIds,
          fromMs,
          toMs,
          what: 'some',
          nowMs: DAY0,
        });
        stored = gone.stored;
        const rows = new Map(channelIds.map((id) => [id, of(id).cut(fromMs, toMs)]));
        expect(gone.removed).toBe([...rows.values()].reduce((sum, list) => sum + list.length, 0));
        past.push({ isRemoval: true, rows });
        future.length = 0;
      } else {
        const isBack = what === 4;
        const step = (isBack ? past : future).pop();
        stored = await (isBack ? stepBack : stepForward)(db, stored);
        if (!step) continue;
        (isBack ? future : past).push(step);
        for (const [id, rows] of step.rows)
          if (step.isRemoval === isBack) of(id).put(rows);
          else of(id).take(rows);
      }
      for (const id of CHANNELS) {
        const fromMs = turn % 3 === 0 ? -Infinity : DAY0 + below(5 * 24 * 60) * 60_000;
        const toMs = turn % 3 === 0 ? Infinity : fromMs + below(2 * DAY_MS);
        const read = await reader().read({ channelId: id, fromMs, toMs, withBeside: true });
        const rows = [...read.timesMs].map((timeMs, at) => ({
          timeMs,
          raw: read.raw[at] ?? NaN,
          flags: read.flags[at] ?? NaN,
        }));
        expect(read.damagedDays).toEqual([]);
        expect(sorted(rows)).toEqual(
          sorted(of(id).rows.filter(({ timeMs }) => timeMs >= fromMs && timeMs <= toMs)),
        );
        expect([...read.timesMs]).toEqual([...read.timesMs].toSorted((one, other) => one - other));
      }
    }
  },
);
