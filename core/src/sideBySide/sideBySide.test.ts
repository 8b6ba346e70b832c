import { describe, expect, test } from 'vitest';
import { compareSideBySide, misplaced, type SideBySideProbe } from './compare.ts';
import { judgeDip, type DipChannel } from './dip.ts';

const probe = (id: string, air: number | null, jar: number | null, full = 4095): SideBySideProbe => ({
  id,
  fullScaleCounts: full,
  air: air === null ? null : { counts: air, noiseCounts: 4 },
  jar: jar === null ? null : { counts: jar, noiseCounts: 4 },
});

/** Free of rounding's last digit. */
const round = (value: number | null) => (value === null ? null : Math.round(value * 1e6) / 1e6);

describe('side by side', () => {
  const four = [
    probe('a', 3000, 1200),
    probe('b', 3020, 1210),
    probe('c', 2980, 1195),
    probe('d', 3010, 1700),
  ];
  const compared = compareSideBySide(four);
  test('offsets are against the middle of all, spans beside the middle span', () => {
    // Middle of air 3005, of jar 1205; spans 1800, 1810, 1785, 1310, middle 1792.5.
    expect(compared.rows.map((row) => round(row.airOffset))).toEqual([-5, 15, -25, 5]);
    expect(compared.rows.map((row) => round(row.jarOffset))).toEqual([-5, 5, -10, 495]);
    expect(compared.rows.map((row) => row.span)).toEqual([-1800, -1810, -1785, -1310]);
    expect(compared.rows[3]?.spanRatio).toBeCloseTo(1310 / 1792.5, 6);
  });
  test('the odd one is named, the others are not', () => {
    expect(compared.rows.map((row) => row.odd)).toEqual([null, null, null, 'span']);
    expect(compared.canName).toBe(true);
    // Half of 1700 − 1195 beside the middle span.
    expect(compared.spreadFrac).toBeCloseTo(252.5 / 1792.5, 6);
  });
  test('a plug the wrong way round shows in its direction', () => {
    const turned = compareSideBySide([...four.slice(0, 3), probe('e', 1200, 3000)]);
    expect(turned.rows.at(-1)?.odd).toBe('direction');
  });
  test('ordinary spread is no oddity', () => {
    const usual = compareSideBySide([probe('a', 3000, 1200), probe('b', 3001, 1201), probe('c', 3050, 1250)]);
    expect(usual.rows.every((row) => row.odd === null)).toBe(true);
  });
  test('of two nobody can say which is wrong', () => {
    const two = compareSideBySide([probe('a', 3000, 1200), probe('b', 3000, 1800)]);
    expect(two.canName).toBe(false);
    expect(two.rows.every((row) => row.odd === null)).toBe(true);
    expect(two.rows.map((row) => round(row.jarOffset))).toEqual([-300, 300]);
  });
  test('boards with other converters are compared as shares of full scale', () => {
    const mixed = compareSideBySide([
      probe('a', 3000, 1200),
      probe('b', 3000, 1200),
      probe('c', 750, 300, 1023.75),
    ]);
    expect(mixed.rows[2]?.airOffset).toBeCloseTo(0, 9);
    expect(mixed.rows[2]?.spanRatio).toBeCloseTo(1, 9);
  });
  test('what was not taken yet is missing, not zero', () => {
    const half = compareSideBySide([probe('a', 3000, null), probe('b', 3010, null)]);
    expect(half.rows[0]).toEqual({
      id: 'a',
      airOffset: expect.closeTo(-5, 9) as number,
      jarOffset: null,
      span: null,
      spanRatio: null,
      odd: null,
    });
    expect(half.spreadFrac).toBeNull();
    expect(compareSideBySide([]).rows).toEqual([]);
  });
});

describe('probes that are plainly not where they should be', () => {
  const inAir = [probe('a', 3000, null), probe('b', 3020, null), probe('c', 2990, null)];
  test('one that reads in the jar almost what it read in air is not in the jar', () => {
    const now = new Map([
      ['a', 1200],
      ['b', 2950],
      ['c', 1190],
    ]);
    expect(misplaced(inAir, 'jar', now)).toEqual(['b']);
    expect(misplaced(inAir, 'jar', new Map(inAir.map(({ id }) => [id, 1200])))).toEqual([]);
  });
  test('if none of them has moved, none is in the jar', () => {
    expect(
      misplaced(
        inAir,
        'jar',
        new Map([
          ['a', 2996],
          ['b', 3021],
          ['c', 2980],
        ]),
      ),
    ).toEqual(['a', 'b', 'c']);
  });
  test('back in air it must read far from what it read in the jar; without another side it is believed', () => {
    const both = [probe('a', 3000, 1200), probe('b', null, null)];
    expect(
      misplaced(
        both,
        'air',
        new Map([
          ['a', 1230],
          ['b', 1230],
        ]),
      ),
    ).toEqual(['a']);
    expect(
      misplaced(
        both,
        'air',
        new Map([
          ['a', 2990],
          ['b', 1230],
        ]),
      ),
    ).toEqual([]);
  });
});

describe('dip the one you call deep', () => {
  const channel = (id: string, now: number, noise = 4): DipChannel => ({
    id,
    beforeCounts: 3000,
    nowCounts: now,
    noiseCounts: noise,
    spanCounts: 1800,
  });
  test('the one that moves is the one in the hand', () => {
    expect(judgeDip([channel('deep', 1300), channel('shallow', 2990)], 'deep')).toEqual({ kind: 'right' });
    expect(judgeDip([channel('deep', 2990), channel('shallow', 1300)], 'deep')).toEqual({
      kind: 'swapped',
      movedId: 'shallow',
    });
  });
  test('a touch, and noise as high as a dip, are waited out', () => {
    // 300 counts are a sixth of the span.
    expect(judgeDip([channel('deep', 2700), channel('shallow', 3000)], 'deep')).toEqual({ kind: 'waiting' });
    expect(judgeDip([channel('deep', 2500, 80), channel('shallow', 3000)], 'deep')).toEqual({
      kind: 'waiting',
    });
  });
  test('two in the jar say nothing about either', () => {
    expect(judgeDip([channel('deep', 1300), channel('shallow', 1900)], 'deep')).toEqual({
      kind: 'several',
      movedIds: ['deep', 'shallow'],
    });
  });
});
