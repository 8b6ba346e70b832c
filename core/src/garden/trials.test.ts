import { expect, test } from 'vitest';
import { fitDose } from '../dosing/doseFit.ts';
import { dice, NOW, onePlot } from './gardenForTests.ts';
import { gardenSchema } from './schema.ts';
import { addTrial, removeTrial, setTrialNote, setTrialUsed, useMeasuredFlow as takeFlow } from './trials.ts';

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
  expect(takeFlow(measured, lineId, fit.value).waterLines[0]?.flowMlPerS).toBe(10);
});
