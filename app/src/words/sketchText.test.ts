import { expect, test } from 'vitest';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { doesText } from './sketchText.ts';

const says = (change: Partial<WaterLine>): string => {
  const garden = setWaterLine(marigoldHare(Date.UTC(2026, 4, 1)), 'line-roof', { tankId: null, ...change });
  const planned = planBoard(garden, 'roof');
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  return doesText(planned.plan);
};

test('only a line that is armed, and has a program that runs, is said to water by itself', () => {
  expect(says({})).toBe('It reads each second and waters by itself with Roof pump.');
  const byHand = /^Roof pump runs only when ordered at the console/;
  expect(says({ automatic: false })).toMatch(byHand);
  expect(says({ program: { kind: 'alert-only' } })).toMatch(byHand);
});
