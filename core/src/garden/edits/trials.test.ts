import { expect, test } from 'vitest';
import { fitDose } from '../../dosing/doseFit.ts';
import { dice, firstLine, NOW, onePlot } from './gardenForTests.ts';
import { gardenSchema } from '../document/schema.ts';
import {
  addTrial,
  refitReasons,
  removeTrial,
  setTrialNote,
  setTrialUsed,
  useMeasuredFlow as takeFlow,
} from './trials.ts';
import { setWaterLine } from './plots.ts';

const garden = onePlot({ pump: { flowMlPerS: 9 } });
const lineId = garden.waterLines[0]?.id ?? '';
const random = dice();
const measured = [
  [5, 30],
  [10, 80],
  [20, 180],
].reduce(
  (now, [runS = 0, volumeMl = 0]) =>
    addTrial(now, lineId, { runS, volumeMl, takenAt: NOW, simulated: false }, random),
  garden,
);
const trialsOf = (of: typeof garden) => of.waterLines[0]?.trials ?? [];

test('trials are gathered, left out, taken away, and the garden stays sound', () => {
  expect(trialsOf(measured).map((one) => one.volumeMl)).toEqual([30, 80, 180]);
  expect(new Set(trialsOf(measured).map((one) => one.id)).size).toBe(3);
  const [first] = trialsOf(measured);
  if (!first) throw new Error('no trial');
  expect(trialsOf(setTrialUsed(measured, lineId, first.id, false))[0]?.used).toBe(false);
  expect(trialsOf(removeTrial(measured, lineId, first.id))).toHaveLength(2);
  expect(setTrialNote(measured, lineId, '2 m of tube').waterLines[0]?.trialNote).toBe('2 m of tube');
  expect(gardenSchema.safeParse(measured).success).toBe(true);
});

test('the measured flow takes the place of the guess', () => {
  const fit = fitDose(trialsOf(measured));
  if (!fit.ok) throw new Error(fit.issue.kind);
  expect(takeFlow(measured, lineId, fit.value).waterLines[0]).toMatchObject({
    flowMlPerS: 10,
    tubeS: 2,
  });
});

test('trials remember with what they were made, and another tube, lift, tank or supply is a reason to measure again', () => {
  const rig = { tubeM: 2, liftCm: 40, tankPercent: 50, supplyV: 12.6 };
  const rigged = setWaterLine(garden, lineId, { rig });
  const trial = { runS: 5, volumeMl: 30, takenAt: NOW, simulated: false };
  const made = addTrial(rigged, lineId, trial, random);
  expect(trialsOf(made)[0]?.rig).toEqual(rig);
  const now = (change: Partial<typeof rig>) =>
    refitReasons(firstLine(setWaterLine(made, lineId, { rig: { ...rig, ...change } })));
  expect(now({})).toEqual([]);
  expect(now({ tubeM: 2.2, liftCm: 50, tankPercent: 75, supplyV: 12.9 })).toEqual([]);
  expect(now({ tubeM: 2.3 })).toEqual([{ what: 'tubeM', trial: 2, now: 2.3 }]);
  expect(now({ liftCm: 51 }).map((one) => one.what)).toEqual(['liftCm']);
  expect(now({ tankPercent: 20 }).map((one) => one.what)).toEqual(['tankPercent']);
  // 3 % of 12.6 V are 0.378 V.
  expect(now({ supplyV: 12.2 }).map((one) => one.what)).toEqual(['supplyV']);
  expect(refitReasons(firstLine(measured))).toEqual([]);
  const id = trialsOf(made)[0]?.id ?? '';
  const left = setTrialUsed(setWaterLine(made, lineId, { rig: { ...rig, tubeM: 9 } }), lineId, id, false);
  expect(refitReasons(firstLine(left))).toEqual([]);
});
