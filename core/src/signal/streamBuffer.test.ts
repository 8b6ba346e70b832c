import fc from 'fast-check';
import { expect, test } from 'vitest';
import { StreamBuffer } from './streamBuffer.ts';

const filled = (capacity: number, count: number) => {
  const buffer = new StreamBuffer(capacity);
  for (let at = 1; at <= count; at += 1) buffer.push(at * 1000, at);
  return buffer;
};

test('an empty buffer has no last reading and no stretch', () => {
  const buffer = new StreamBuffer(3);
  expect(buffer.last()).toBeNull();
  expect(buffer.since(0).values).toHaveLength(0);
});

test('past its size it forgets the oldest and keeps the order', () => {
  const buffer = filled(3, 5);
  expect(buffer.length).toBe(3);
  expect([...buffer.since(0).values]).toEqual([3, 4, 5]);
  expect(buffer.last()).toEqual({ timeMs: 5000, value: 5 });
});

test('since takes readings from a time on, that time included', () => {
  expect([...filled(10, 5).since(4000).values]).toEqual([4, 5]);
});

test('since reaches further back for a least count, but no further than it holds', () => {
  expect([...filled(10, 5).since(5000, 3).values]).toEqual([3, 4, 5]);
  expect([...filled(10, 2).since(9000, 5).values]).toEqual([1, 2]);
});

test('whatever was pushed and asked for, the stretch is the end of the plain list', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 0, max: 30 }),
      fc.integer({ min: 0, max: 32 }),
      fc.nat(12),
      (capacity, count, from, atLeast) => {
        const list = Array.from({ length: count }, (_, at) => at + 1).slice(-capacity);
        const wanted = Math.max(list.filter((value) => value >= from).length, Math.min(atLeast, list.length));
        expect([...filled(capacity, count).since(from * 1000, atLeast).values]).toEqual(
          wanted === 0 ? [] : list.slice(-wanted),
        );
      },
    ),
  );
});
