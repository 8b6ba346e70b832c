import { describe, expect, test } from 'vitest';
import { StreamBuffer } from '../signal/streamBuffer.ts';
import { silenceOf } from './silence.ts';

const streamOf = (timesS: readonly number[]): StreamBuffer => {
  const buffer = new StreamBuffer(100);
  for (const timeS of timesS) buffer.push(timeS * 1000, 2600);
  return buffer;
};
const every = (gapS: number, count: number) => Array.from({ length: count }, (_, at) => at * gapS);
const silentFrom = (buffer: StreamBuffer, lastS: number): number => {
  for (let s = 0; s < 10_000; s += 1) if (silenceOf(buffer, (lastS + s) * 1000)) return s;
  return Infinity;
};

describe('a stream is silent', () => {
  test.each([
    ['five lines a second', every(0.2, 30), 6],
    ['a line a second', every(1, 30), 6],
    ['a line every four seconds', every(4, 10), 13],
    ['a board that sleeps ten minutes', every(600, 6), 1801],
    ['a first line, of which nobody knows what will follow', [0], 16],
  ])('%s', (_, timesS, fromS) => {
    expect(silentFrom(streamOf(timesS), timesS.at(-1) ?? 0)).toBe(fromS);
  });
  test('one long pause in between is not its usual distance', () => {
    expect(silentFrom(streamOf([...every(1, 12), 400, 401, 402]), 402)).toBe(6);
  });
  test('only after two bundles are missing, where its board delivers them a bundle at a time', () => {
    // Five readings two seconds apart come every ten seconds: the newest is ten seconds old before the next ones come.
    const buffer = streamOf(every(2, 30));
    buffer.bundleMs = 10_000;
    expect(silentFrom(buffer, 58)).toBe(31);
    const first = streamOf([0]);
    first.bundleMs = 600_000;
    expect(silentFrom(first, 0)).toBe(1801);
  });
  test('with what came last, and how long ago', () => {
    expect(silenceOf(streamOf(every(1, 5)), 12_000)).toEqual({ rawCounts: 2600, atMs: 4000, ageS: 8 });
    expect(silenceOf(new StreamBuffer(5), 1e12)).toBeNull();
  });
});
