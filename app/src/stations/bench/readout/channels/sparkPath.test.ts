import { expect, test } from 'vitest';
import { sparkPath } from './sparkPath.ts';

const box = { fromMs: 0, toMs: 100, width: 200, height: 46 };

test('times run from edge to edge, values fill the height but for some room, gaps stay open', () => {
  // Range 20 with a fifth of room: 24 counts on 40 px, the middle at 23 px.
  const path = sparkPath(
    [
      { x: 0, y: 10 },
      { x: 50, y: 30 },
      { x: 60, y: null },
      { x: 100, y: 20 },
    ],
    box,
  );
  expect(path).toBe('M0.0 39.7L100.0 6.3M200.0 23.0');
});
test('a calm line is drawn calm, nothing draws nothing', () => {
  expect(
    sparkPath(
      [
        { x: 0, y: 1000 },
        { x: 100, y: 1001 },
      ],
      box,
    ),
  ).toBe('M0.0 24.7L200.0 21.3');
  expect(sparkPath([], box)).toBe('');
});
