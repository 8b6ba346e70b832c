import { expect, test } from 'vitest';
import { captureOf, CONTEXT, making, MINT } from './gardenForTests.ts';
import { keepPairs } from './pairs.ts';
import { copyRules } from './copyRules.ts';
import { addPlot, emptyGarden, setLimits, setWaterLine } from './plots.ts';
import type { Garden } from '../document/schema.ts';

const { random } = making();
const add = (garden: Garden, plotName: string, flowMlPerS: number | null) =>
  addPlot(
    garden,
    { ...MINT, plotName, streamName: plotName, pump: flowMlPerS === null ? null : { flowMlPerS } },
    random,
  ).garden;
const three = add(add(add(emptyGarden('Shed', 'UTC', making()), 'a', 10), 'b', 20), 'c', null);
const [a, b, c] = three.plots.map((one) => one.id) as [string, string, string];
const boardId = three.boards[0]?.id ?? '';
const { garden: calibrated } = keepPairs(
  three,
  three.channels.map((one) => ({
    channelId: one.id,
    air: captureOf(3000, { boardId: one.boardId || boardId }),
    water: captureOf(1250, { boardId: one.boardId || boardId }, 2),
    temperatureC: null,
  })),
  () => CONTEXT,
  making(),
);
const lineOf = (garden: Garden, plotId: string) => garden.waterLines.find((one) => one.plotId === plotId);
const from = setWaterLine(
  setLimits(calibrated, a, { startTenths: 310, stopTenths: 540 }),
  lineOf(calibrated, a)?.id ?? '',
  { minIntervalS: 700, maxRunS: 15, automatic: true },
);

test('limits and program go over; flow stays, and nothing is switched on', () => {
  const armed = setWaterLine(from, lineOf(from, b)?.id ?? '', { automatic: true });
  const { garden: after, left } = copyRules(armed, a, [b, c]);
  expect(left).toEqual([]);
  for (const id of [b, c])
    expect(after.plots.find((one) => one.id === id)).toMatchObject({
      limits: { startTenths: 310, stopTenths: 540 },
      // Somebody set them: they are not taken for those that stood at first.
      limitsSet: true,
      words: 'five',
      bandEdges: [155, 310, 540, 770],
    });
  expect(lineOf(after, b)).toMatchObject({
    minIntervalS: 700,
    maxRunS: 15,
    flowMlPerS: 20,
    automatic: false,
  });
  expect(lineOf(after, a)?.automatic).toBe(true);
});
test('a plot whose probe has no percent is left, and told', () => {
  const bare = add(from, 'd', 5);
  const d = bare.plots[3]?.id ?? '';
  expect(copyRules(bare, a, [b, d]).left).toEqual([{ plotId: d, why: { kind: 'no-percent' } }]);
});
test('a plot whose own flow contradicts the dose is left as it was, and told by what', () => {
  // 100 ml take 15 s at 10 ml/s and two minutes at 0.8.
  const slow = setWaterLine(from, lineOf(from, b)?.id ?? '', {
    flowMlPerS: 0.8,
    maxRunS: 300,
    minIntervalS: 600,
  });
  const { garden, left } = copyRules(slow, a, [b]);
  expect(left).toMatchObject([
    { plotId: b, why: { kind: 'contradicts', contradiction: { kind: 'dose-over-run' } } },
  ]);
  expect(garden).toBe(slow);
});
