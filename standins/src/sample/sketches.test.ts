/** The programs of the sample garden, as they were read line by line. What changes in them changes here, on purpose. */
import { describe, expect, test } from 'vitest';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { cppSize, cppSketch } from '@plain-trowel/core/sketch/cpp';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { marigoldHare } from './marigoldHare.ts';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const WRITTEN = '2026-05-01';

describe.each(['roof', 'stern'])('%s', (boardId) => {
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  const { plan } = planned;
  test.each([
    ['settings.py', () => pythonSettings(plan, WRITTEN)],
    ['ino', () => cppSketch(plan, WRITTEN)],
    ['engine_size.h', () => cppSize(plan)],
  ] as const)('%s', async (name, write) => {
    await expect(write()).toMatchFileSnapshot(`sketches/${boardId}.${name}`);
  });
});
