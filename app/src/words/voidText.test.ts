import { expect, test } from 'vitest';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { voidMeans } from './voidText.ts';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const line = garden.waterLines.find((one) => one.plotId === 'chilli');
if (!line) throw new Error('no line');
const means = (change: Partial<typeof line>) =>
  voidMeans(setWaterLine(garden, line.id, { automatic: true, fallbackMl: 0, ...change }), 'chilli');

test('a program that goes by the probe starts nothing; its fallback stands in', () => {
  expect(means({})).toEqual([`${line.name} starts nothing until then.`]);
  expect(means({ fallbackMl: 60 })[0]).toMatch(/its fallback stands in, 60 ml once a day/);
});

test('a timer runs on; what does not water by itself is not spoken of', () => {
  expect(means({ program: { kind: 'timer', slots: [{ minute: 360, days: 127 }], doseMl: 50 } })).toEqual([
    `${line.name} goes by the clock and runs on.`,
  ]);
  expect(means({ automatic: false })).toEqual([]);
});
