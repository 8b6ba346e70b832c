/** The programs of the sample garden, as they were read line by line. What changes in them changes here, on purpose. */
import { expect, test } from 'vitest';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { cppSize, cppSketch } from '@plain-trowel/core/sketch/cpp';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { marigoldHare } from './marigoldHare.ts';

const planned = planBoard(marigoldHare(Date.UTC(2026, 4, 1)), 'roof');
const plan = planned.ok ? planned.plan : null;

test.each([
  ['roof.settings.py', () => plan && pythonSettings(plan, '2026-05-01')],
  ['roof.ino', () => plan && cppSketch(plan, '2026-05-01')],
  ['roof.engine_size.h', () => plan && cppSize(plan)],
] as const)('%s', async (name, write) => {
  await expect(write()).toMatchFileSnapshot(`sketches/${name}`);
});
