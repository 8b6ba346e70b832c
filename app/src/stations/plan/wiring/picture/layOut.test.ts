import { describe, expect, test } from 'vitest';
import { partingOf, type Point } from './layOut.ts';

const line = (...corners: readonly (readonly [number, number])[]): Point[] =>
  corners.map(([x, y]) => ({ x, y }));

describe('where two lines from one terminal part', () => {
  test('is the last point of the way that they share, also in the middle of a stretch', () => {
    expect(partingOf(line([0, 0], [50, 0], [50, 30]), line([0, 0], [80, 0]))).toEqual({ x: 50, y: 0 });
    expect(partingOf(line([0, 0], [50, 0], [50, 30], [90, 30]), line([0, 0], [50, 0], [50, 70]))).toEqual({
      x: 50,
      y: 30,
    });
    expect(partingOf(line([0, 0], [50, 0], [50, -30]), line([0, 0], [50, 0], [50, 70]))).toEqual({
      x: 50,
      y: 0,
    });
  });
  test('is nowhere when they leave the terminal in two directions, or one runs within the other', () => {
    expect(partingOf(line([0, 0], [50, 0]), line([0, 0], [0, 50]))).toBeNull();
    expect(partingOf(line([0, 0], [50, 0]), line([0, 0], [50, 0], [50, 20]))).toBeNull();
    expect(partingOf(line([0, 0]), line([0, 0], [50, 0]))).toBeNull();
    expect(partingOf([], line([0, 0], [50, 0]))).toBeNull();
  });
  test('points that are said twice, as at the end of a mark, change nothing', () =>
    expect(
      partingOf(line([0, 0], [0, 0], [20, 0], [50, 0], [50, 30]), line([0, 0], [20, 0], [20, 0], [80, 0])),
    ).toEqual({ x: 50, y: 0 }));
});
