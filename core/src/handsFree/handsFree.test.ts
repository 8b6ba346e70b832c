import { describe, expect, test } from 'vitest';
import type { SettlingVerdict } from '../settling/settlingWatch.ts';
import {
  againHandsFree,
  allowHandsFree,
  beginHandsFree,
  confirmHandsFree,
  judgeSeen,
  leaveOutHandsFree,
  lookHandsFree,
  type HandsFree,
  type Seen,
} from './handsFree.ts';
import { settlingOf, valueOf } from './seenForTests.ts';

const seen = (counts: number, verdict: SettlingVerdict = 'stopped', change: Partial<Seen> = {}): Seen => ({
  channelId: 'c1',
  now: valueOf(counts),
  capture: valueOf(counts),
  settling: settlingOf(verdict, counts),
  isSpoilt: false,
  spanCounts: 1800,
  lowCounts: 20,
  highCounts: 4075,
  expects: 'falling',
  ...change,
});
const through = (state: HandsFree, ...looks: readonly (readonly Seen[])[]): HandsFree =>
  looks.reduce(lookHandsFree, state);
const inWater = through(beginHandsFree(['c1']), [seen(3000)]);

describe('a hands-free run', () => {
  test('takes air at rest and asks for water; water at rest waits for one word, then it is done', () => {
    expect(inWater).toMatchObject({ step: 'water', taken: { c1: { air: { value: { rawCounts: 3000 } } } } });
    expect(judgeSeen(inWater, seen(1250))).toEqual({ kind: 'confirm' });
    const done = through(confirmHandsFree(inWater), [seen(1250)]);
    expect(done).toMatchObject({ step: 'done', taken: { c1: { water: { value: { rawCounts: 1250 } } } } });
  });
  test('confirmed before it rests, it takes water as soon as it does', () => {
    const said = confirmHandsFree(inWater);
    expect(through(said, [seen(1400, 'settling')]).step).toBe('water');
    expect(through(said, [seen(1400, 'settling')], [seen(1250)]).step).toBe('done');
  });
  test.each([
    [
      'the number moves',
      seen(3000, 'settling', { settling: settlingOf('settling', 2900, 40) }),
      'wait-for-rest',
    ],
    ['it drifts', seen(3000, 'drifting'), 'wait-for-rest'],
    ['nothing comes', seen(3000, 'stopped', { now: null }), 'no-reading'],
    ['too little has come since the change', seen(3000, 'stopped', { capture: null }), 'wait-for-rest'],
    ['it sits at the top', seen(4090), 'at-rail'],
    ['it sits at the bottom', seen(3), 'at-rail'],
    ['its stream is not sound', seen(3000, 'stopped', { isSpoilt: true }), 'spoilt'],
    // The median still holds readings from before: 3000 where the end is 2600.
    [
      'the median is a mix',
      seen(3000, 'stopped', { settling: settlingOf('stopped', 2600) }),
      'wait-for-rest',
    ],
  ] as const)('takes nothing while %s', (_, one, kind) => {
    const state = beginHandsFree(['c1']);
    expect(judgeSeen(state, one).kind).toBe(kind);
    expect(through(state, [one])).toBe(state);
  });
  test.each([
    // 30 % of 1800 counts are 540.
    ['hardly moved', 2461, 'wait-for-change'],
    ['moved enough', 2459, 'confirm'],
    ['moved the other way', 3600, 'wrong-way'],
  ] as const)('in water, %s: %s', (_, counts, kind) =>
    expect(judgeSeen(inWater, seen(counts)).kind).toBe(kind),
  );
  test('a probe whose direction nobody knows may go either way, and an odd one when the person says so', () => {
    expect(judgeSeen(inWater, seen(3600, 'stopped', { expects: null })).kind).toBe('confirm');
    expect(judgeSeen(allowHandsFree(inWater, 'c1'), seen(3600)).kind).toBe('confirm');
  });
  test('air twice by mistake never makes a pair: the second is no water', () =>
    expect(through(confirmHandsFree(inWater), [seen(3010)], [seen(3005)]).step).toBe('water'));

  const both = beginHandsFree(['c1', 'c2']);
  const other = (counts: number, verdict: SettlingVerdict = 'stopped') =>
    seen(counts, verdict, { channelId: 'c2' });
  test('of several each is taken when it rests, and the step waits for the last', () => {
    const first = through(both, [seen(3000), other(2900, 'settling')]);
    expect(first.step).toBe('air');
    expect(judgeSeen(first, seen(3000))).toEqual({ kind: 'taken', counts: 3000 });
    expect(through(first, [seen(1250), other(2890)])).toMatchObject({
      step: 'water',
      taken: { c1: { air: { value: { rawCounts: 3000 } } }, c2: { air: { value: { rawCounts: 2890 } } } },
    });
  });
  test('one that does not answer can be left out; the last cannot', () => {
    const first = through(both, [seen(3000)]);
    const alone = leaveOutHandsFree(first, 'c2');
    expect(alone).toMatchObject({ step: 'water', channelIds: ['c1'] });
    expect(leaveOutHandsFree(alone, 'c1')).toBe(alone);
  });
  test('done again, the water goes first, then the air', () => {
    const done = through(confirmHandsFree(inWater), [seen(1250)]);
    const water = againHandsFree(done);
    expect(water).toMatchObject({ step: 'water', isConfirmed: false });
    expect(water.taken.c1).toEqual(inWater.taken.c1);
    expect(againHandsFree(water)).toMatchObject({ step: 'air', taken: { c1: {} } });
  });
});
