import { describe, expect, test } from 'vitest';
import { outcomeOf } from '../../calibration/run.ts';
import { runOf } from '../bind/plotParts.ts';
import { addCapture, startRun } from './calibrations.ts';
import { applyCure, curesOf } from './cures.ts';
import { captured, captureOf, CONTEXT, dice, firstChannel, making, onePlot } from './gardenForTests.ts';
import type { Garden } from '../document/schema.ts';

const garden = onePlot();
const { id: channelId } = firstChannel(garden);
const begun = startRun(garden, channelId, 'air-water', making());
const again = (of: Garden, rawCounts: number, minute: number) => {
  const point = runOf(of, channelId)?.points.at(-1);
  if (!point) throw new Error('no point');
  return addCapture(
    of,
    channelId,
    {
      condition: point.condition,
      typed: null,
      felt: null,
      temperatureC: null,
      capture: captureOf(rawCounts, {}, minute),
    },
    point.id,
    dice(),
  );
};
const worst = (of: Garden) => {
  const run = runOf(of, channelId);
  if (!run) throw new Error('no run');
  const [first] = outcomeOf(run, CONTEXT).findings;
  if (!first) throw new Error('nothing stands against it');
  return { finding: first, cures: curesOf(run, first) };
};
const raws = (of: Garden) =>
  runOf(of, channelId)?.points.map((one) => [one.condition, ...one.captures.map((two) => two.rawCounts)]);

describe('what can be done at once', () => {
  const air = captured(begun, 'air', captureOf(3000, {}, 0));
  test('of two repeats far apart either may be the wrong one: both are offered', () => {
    const mistaken = captured(again(air, 1200, 1), 'water', captureOf(1204, {}, 20));
    const { finding, cures } = worst(mistaken);
    expect(finding.kind).toBe('repeats-apart');
    expect(cures.map((one) => one.kind === 'take-back' && one.rawCounts)).toEqual([3000, 1200]);
    const [, second] = cures;
    if (!second) throw new Error('no cure');
    expect(raws(applyCure(mistaken, channelId, second))).toEqual([
      ['air', 3000],
      ['water', 1204],
    ]);
  });
  test('of three it is the one furthest from the middle', () => {
    const three = captured(again(again(air, 1200, 1), 3004, 2), 'water', captureOf(1204, {}, 20));
    expect(worst(three).cures.map((one) => one.kind === 'take-back' && one.rawCounts)).toEqual([1200]);
  });
  test('dry and wet the wrong way round are exchanged, with every capture kept', () => {
    const turned = captured(captured(begun, 'air', captureOf(1200, {}, 0)), 'water', captureOf(3000, {}, 9));
    const { finding, cures } = worst(turned);
    expect(finding.kind).toBe('runs-the-other-way');
    const [exchange] = cures;
    if (!exchange) throw new Error('no cure');
    expect(raws(applyCure(turned, channelId, exchange))).toEqual([
      ['water', 1200],
      ['air', 3000],
    ]);
  });
  test('the newest capture is offered where the references are one and the same', () => {
    const same = captured(air, 'water', captureOf(3001, {}, 9));
    expect(worst(same).cures).toMatchObject([{ kind: 'take-back', condition: 'water', rawCounts: 3001 }]);
  });
  test('a capture at the rail is taken back, and only that', () => {
    const railed = captured(again(air, 4095, 1), 'water', captureOf(1200, {}, 9));
    const run = runOf(railed, channelId);
    const found = run && outcomeOf(run, CONTEXT).findings.find((one) => one.kind === 'at-the-rail');
    expect(run && found && curesOf(run, found)).toMatchObject([{ at: 1, rawCounts: 4095 }]);
  });
  test('what only a person can tell has none', () => {
    const once = captured(air, 'water', captureOf(1200, {}, 9));
    const run = runOf(once, channelId);
    const findings = run ? outcomeOf(run, CONTEXT).findings : [];
    expect(findings.length).toBeGreaterThan(0);
    expect(run && findings.flatMap((one) => curesOf(run, one))).toEqual([]);
  });
});
