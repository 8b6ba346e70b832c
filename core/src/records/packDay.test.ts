import { describe, expect, test } from 'vitest';
import { bytesOf, packDay, unpackDay } from './packDay.ts';
import { DAY_MS, type DayBlock } from './series.ts';

const DAY = Date.UTC(2026, 4, 3);

const day = (rows: readonly (readonly [offset: number, raw: number, flags?: number])[]): DayBlock => ({
  channelId: 'c1',
  dayMs: DAY,
  offsetsMs: Uint32Array.from(rows, ([offset]) => offset),
  raw: Float64Array.from(rows, ([, raw]) => raw),
  flags: Uint8Array.from(rows, ([, , flags = 0]) => flags),
});
const minutes = (raw: (at: number) => number, jitter: (at: number) => number = () => 0) =>
  day(Array.from({ length: 1440 }, (_, at) => [at * 60_000 + jitter(at), raw(at)] as const));

/** A plain linear congruential generator: worlds that the packing does not know. */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
}

test('what is unpacked is what was packed, for any readings', () => {
  const odd = [0, -0, 1e9, -1e9, 0.1, 1 / 3, Math.fround(0.3), 5e-324, 17.0625, -3.999999, 2 ** 31, 0.000001];
  for (let seed = 1; seed <= 400; seed += 1) {
    const dice = seeded(seed);
    const kind = seed % 5;
    const value = () =>
      kind === 0
        ? Math.floor(dice() * 4096)
        : kind === 1
          ? Math.round(dice() * 4000) / 100 - 20
          : kind === 2
            ? dice() * 1e9 - 5e8
            : kind === 3
              ? (odd[Math.floor(dice() * odd.length)] ?? 0)
              : Math.fround(dice() * 40);
    const rows = Math.floor(dice() * 60);
    const whole = dice() < 0.5 ? 1000 : 1;
    const offsets = Array.from(
      { length: rows },
      () => Math.floor((dice() * DAY_MS) / whole) * whole,
    ).toSorted((a, b) => a - b);
    const block = day(offsets.map((offset) => [offset, value(), dice() < 0.5 ? 2 : 6] as const));
    const back = unpackDay(structuredClone(packDay(block)));
    expect(back).toEqual(block);
    // toEqual takes 0 for -0 in typed arrays.
    expect(block.raw.every((one, at) => Object.is(one, back?.raw[at]))).toBe(true);
  }
});

describe('a reading takes at most six bytes on average', () => {
  const perReading = (block: DayBlock) => bytesOf(packDay(block)) / block.raw.length;
  const dice = seeded(7);

  test('counts each minute, to the second: two bytes of value and none of time', () => {
    expect(perReading(minutes((at) => 1500 + (at % 900)))).toBeLessThan(2.1);
  });
  test('a clock that wavers by milliseconds', () => {
    expect(
      perReading(
        minutes(
          (at) => 1500 + (at % 900),
          () => Math.floor(dice() * 400),
        ),
      ),
    ).toBeLessThan(4.1);
  });
  test('a day with an hour’s gap and wavering times', () => {
    const block = minutes(
      () => 1500 + Math.floor(dice() * 900),
      () => Math.floor(dice() * 400),
    );
    const gap = day(
      Array.from(block.offsetsMs, (offset, at) => [offset, block.raw[at] ?? 0] as const).filter(
        (_, at) => at < 700 || at > 760,
      ),
    );
    expect(perReading(gap)).toBeLessThanOrEqual(6.1);
  });
  test('degrees in sixteenths, volts in millivolts', () => {
    expect(perReading(minutes((at) => 17 + (at % 160) / 16))).toBeLessThan(4.1);
    expect(perReading(minutes((at) => (3700 + (at % 50)) / 1000))).toBeLessThan(2.1);
  });
});

test('anything else is no packed day', () => {
  const sound = packDay(
    day([
      [0, 1],
      [1000, 2.5],
      [5000, 3],
    ]),
  );
  expect(unpackDay(sound)).not.toBeNull();
  const spoilt: unknown[] = [
    null,
    5,
    {},
    { ...sound, packed: 2 },
    { ...sound, rows: 2 },
    { ...sound, rows: 1e12 },
    { ...sound, dayMs: DAY + 1 },
    { ...sound, first: -1 },
    { ...sound, first: DAY_MS },
    { ...sound, unitMs: 7 },
    { ...sound, steps: new Uint8Array(9) },
    { ...sound, steps: DAY_MS },
    { ...sound, values: {} },
    { ...sound, values: { decimals: 400, base: 0, whole: new Uint8Array(3) } },
    { ...sound, values: { plain: Float64Array.of(1, Number.NaN, 2) } },
    { ...sound, flags: 300 },
    { ...sound, flags: new Uint8Array(1) },
  ];
  expect(spoilt.map((one) => unpackDay(one))).toEqual(spoilt.map(() => null));
});
