import { expect, test } from 'vitest';
import { captureOf, CONTEXT, making, MINT } from './gardenForTests.ts';
import { addPlot, emptyGarden } from './plots.ts';
import { foreseePair, keepPairs, type Pair } from './pairs.ts';

const { garden } = addPlot(emptyGarden('Shed', 'UTC', making()), MINT, making().random);
const channelId = garden.channels[0]?.id ?? '';
const boardId = garden.boards[0]?.id ?? '';
const at = (rawCounts: number, minute: number) => captureOf(rawCounts, { boardId }, minute);
const pair = (air: number, water: number): Pair => ({
  channelId,
  air: at(air, 0),
  water: at(water, 2),
  temperatureC: null,
});
const keep = (...pairs: Pair[]) => keepPairs(garden, pairs, () => CONTEXT, making());

test('a pair becomes first test, references and calibration at once', () => {
  const { garden: kept, made, refused } = keep(pair(3000, 1250));
  expect(refused).toEqual([]);
  expect(made).toHaveLength(1);
  expect(kept.channels[0]?.calibrationId).toBe(made[0]?.id);
  expect(kept.probes[0]?.firstTest).toMatchObject({ air: { rawCounts: 3000 }, water: { rawCounts: 1250 } });
  expect(made[0]?.points.map((one) => [one.condition, one.captures[0]?.rawCounts])).toEqual([
    ['air', 3000],
    ['water', 1250],
  ]);
  expect(kept.runs).toEqual([]);
});
test('one that the checks refuse stays as a run, so that it can be seen why', () => {
  const { garden: kept, made, refused } = keep(pair(3000, 2999));
  expect([made, refused]).toEqual([[], [channelId]]);
  expect(kept.runs).toHaveLength(1);
  expect(kept.channels[0]?.calibrationId).toBe(null);
});
test('what it would come to is told before, and changes nothing', () => {
  const foreseen = foreseePair(garden, pair(3000, 1250), CONTEXT);
  expect(foreseen?.findings.some((one) => one.level === 'refuse')).toBe(false);
  expect(foreseen?.plusMinus).toBeGreaterThan(0.5);
  expect(foreseen?.plusMinus).toBeLessThan(6);
  expect(foreseePair(garden, pair(3000, 2999), CONTEXT)?.findings[0]?.level).toBe('refuse');
});
test('a number that the probe works out by itself has no rails: 0.5 % in air and 99 % in water are references', () => {
  const own = { ...CONTEXT, fullScaleCounts: null };
  const small = (rawCounts: number, minute: number) =>
    captureOf(rawCounts, { boardId, noiseCounts: 0.2, spreadCounts: 0.2 }, minute);
  const foreseen = foreseePair(
    garden,
    { channelId, air: small(0.5, 0), water: small(99, 2), temperatureC: null },
    { ...own, probeKind: 'steel-rod bus probe' },
  );
  expect(foreseen?.findings.filter((one) => one.level === 'refuse')).toEqual([]);
  // Of a converter with 4095 counts the first would be its rail.
  expect(
    foreseePair(garden, { channelId, air: small(0.5, 0), water: small(99, 2), temperatureC: null }, CONTEXT)
      ?.findings[0]?.kind,
  ).toBe('at-the-rail');
});
