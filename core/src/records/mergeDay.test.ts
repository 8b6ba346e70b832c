import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mergeDay, withoutReadings, type OnClash } from './mergeDay.ts';
import { DAY_MS, FLAGS, readingsOfDay, type DayBlock, type Reading } from './series.ts';

const day = 20_000 * DAY_MS;
const at = (offset: number, raw: number, flags = 0): Reading => ({ timeMs: day + offset, raw, flags });
const into = (block: DayBlock | null, readings: readonly Reading[], onClash: OnClash = 'keep') =>
  mergeDay(block, 'c', day, readings, onClash);
const rows = (block: DayBlock) => readingsOfDay(block).map((one) => [one.timeMs - day, one.raw, one.flags]);

test('what comes out of order is sorted', () => {
  const { block, added, same } = into(null, [at(200, 2), at(1000, 3), at(30, 1)]);
  expect(rows(block)).toEqual([
    [30, 1, 0],
    [200, 2, 0],
    [1000, 3, 0],
  ]);
  expect([added.length, same]).toEqual([3, 0]);
});

describe('another value at a recorded time', () => {
  const recorded = into(null, [at(30, 1), at(40, 2)]).block;
  const given = [at(40, 9, FLAGS.imported), at(50, 3)];
  const clash = { channelId: 'c', timeMs: day + 40, recorded: 2, given: 9 };

  test('is left out when the recorded one is to be kept, and told', () => {
    const { block, clashes, added } = into(recorded, given, 'keep');
    expect(rows(block)).toEqual([
      [30, 1, 0],
      [40, 2, 0],
      [50, 3, 0],
    ]);
    expect(clashes).toEqual([clash]);
    expect(added).toEqual([at(50, 3)]);
  });

  test('stands behind it with a flag when both are to be kept', () => {
    const { block, clashes, added } = into(recorded, given, 'beside');
    expect(rows(block)).toEqual([
      [30, 1, 0],
      [40, 2, 0],
      [40, 9, FLAGS.imported | FLAGS.beside],
      [50, 3, 0],
    ]);
    expect(clashes).toEqual([clash]);
    expect(added).toEqual([at(40, 9, FLAGS.imported | FLAGS.beside), at(50, 3)]);
  });

  test('is nothing new the second time, whatever is asked', () => {
    const { block } = into(recorded, given, 'beside');
    for (const onClash of ['keep', 'beside'] as const)
      expect(into(block, given, onClash)).toMatchObject({ added: [], clashes: [], same: 2, block });
  });

  test('within one batch the first is the record', () => {
    const { block, clashes } = into(null, [at(5, 1), at(5, 2)], 'beside');
    expect(rows(block)).toEqual([
      [5, 1, 0],
      [5, 2, FLAGS.beside],
    ]);
    expect(clashes).toHaveLength(1);
  });

  test('that was flagged before takes its place beside and is no clash', () => {
    const { block, clashes } = into(recorded, [at(40, 7, FLAGS.beside)], 'keep');
    expect(rows(block)).toContainEqual([40, 7, FLAGS.beside]);
    expect(clashes).toEqual([]);
  });
});

test('the same value keeps the origin it was first recorded with', () => {
  const measured = into(null, [at(40, 2, 0)]).block;
  const { block, same } = into(measured, [at(40, 2, FLAGS.imported)]);
  expect(rows(block)).toEqual([[40, 2, 0]]);
  expect(same).toBe(1);
});

const someReadings = fc.array(
  fc.record({ offset: fc.integer({ min: 0, max: 60 }), raw: fc.integer({ min: 0, max: 3 }) }),
  { maxLength: 40 },
);
const made = (list: readonly { offset: number; raw: number }[]) => list.map((one) => at(one.offset, one.raw));
const policy = fc.constantFrom<OnClash>('keep', 'beside');

test('no recorded reading ever changes or goes, whatever comes in', () => {
  fc.assert(
    fc.property(someReadings, someReadings, policy, (first, second, onClash) => {
      const before = into(null, made(first), 'beside').block;
      const kept = rows(before);
      const after = rows(into(before, made(second), onClash).block);
      for (const row of kept) expect(after).toContainEqual(row);
      expect(rows(before)).toEqual(kept);
    }),
  );
});

test('the same readings again change nothing, in whatever portions', () => {
  fc.assert(
    fc.property(someReadings, policy, fc.nat(40), (list, onClash, cut) => {
      const all = made(list);
      const once = into(null, all, onClash).block;
      const twice = into(into(once, all.slice(cut), onClash).block, all.slice(0, cut), onClash).block;
      expect(twice).toEqual(once);
    }),
  );
});

test('what was added can be taken out again, and leaves the record as it was', () => {
  fc.assert(
    fc.property(someReadings, someReadings, policy, (first, second, onClash) => {
      const before = into(null, [...made(first), at(70, 1)], 'beside').block;
      const { block, added } = into(before, made(second), onClash);
      expect(withoutReadings(block, added)).toEqual(before);
    }),
  );
});

test('a day from which all is taken is no day', () => {
  const { block, added } = into(null, [at(5, 1), at(6, 2)]);
  expect(withoutReadings(block, added)).toBeNull();
  expect(withoutReadings(block, [at(5, 9)])).toEqual(block);
});
