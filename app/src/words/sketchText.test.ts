import { expect, test } from 'vitest';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { doesText } from './sketchText.ts';

const planOf = (boardId: string, change: Partial<WaterLine> = {}): BoardPlan => {
  const garden = setWaterLine(marigoldHare(Date.UTC(2026, 4, 1)), 'line-roof', { tankId: null, ...change });
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  return planned.plan;
};
test('a board with nothing but a display is not said to switch nothing', () => {
  const display = { name: 'Stern display' } as BoardPlan['displays'][number];
  const plan = { ...planOf('roof'), lines: [], contacts: [], lamps: [], displays: [display] };
  expect(doesText(plan)).toBe('It reads each second, and shows with Stern display how its plot is doing.');
});

const says = (change: Partial<WaterLine>): string => doesText({ ...planOf('roof', change), lamps: [] });

test('only a line that is armed, and has a program that runs, is said to water by itself', () => {
  expect(says({})).toBe('It reads each second, and waters by itself with Roof pump.');
  const byHand = /^Roof pump runs only when ordered at the console/;
  expect(says({ automatic: false })).toMatch(byHand);
  expect(says({ program: { kind: 'alert-only' } })).toMatch(byHand);
});

test('what waters, what switches and what shows is named', () => {
  expect(doesText(planOf('roof'))).toBe(
    'It reads each second, and waters by itself with Roof pump and shows with Dry lamp how its plot is doing.',
  );
  expect(doesText({ ...planOf('roof'), lamps: [], sleep: { everyS: 300, awakeS: 4, usualS: 6 } })).toBe(
    'It reads at each waking, and waters by itself with Roof pump.',
  );
  expect(doesText(planOf('stern'))).toBe('It reads each second, and switches Galley light.');
});

test('a board with nothing but a lamp is not said to switch nothing', () => {
  const roof = planOf('roof');
  expect(doesText({ ...roof, lines: [] })).toBe(
    'It reads each second, and shows with Dry lamp how its plot is doing.',
  );
  expect(doesText({ ...roof, lines: [], lamps: [] })).toBe('It reads and prints, and switches nothing.');
});
