/** Changes that dosing makes to a garden: measured runs of a water line, and the flow that they show. Each gives a new garden. */
import type { DoseFit } from '../dosing/doseFit.ts';
import { setWaterLine } from './edit.ts';
import { makeId } from './ids.ts';
import type { Garden, WaterLine } from './schema.ts';

export type TrialOf = WaterLine['trials'][number];

const changeTrials = (
  garden: Garden,
  lineId: string,
  change: (trials: readonly TrialOf[]) => TrialOf[],
): Garden => ({
  ...garden,
  waterLines: garden.waterLines.map((line) =>
    line.id === lineId ? { ...line, trials: change(line.trials) } : line,
  ),
});

export const addTrial = (
  garden: Garden,
  lineId: string,
  trial: Omit<TrialOf, 'id' | 'used'>,
  random: () => number,
): Garden =>
  changeTrials(garden, lineId, (trials) => [
    ...trials,
    { ...trial, id: makeId('trial', new Set(trials.map((one) => one.id)), random), used: true },
  ]);

export const removeTrial = (garden: Garden, lineId: string, trialId: string): Garden =>
  changeTrials(garden, lineId, (trials) => trials.filter((one) => one.id !== trialId));

/** Leaves a trial out of the fit, or takes it in again. */
export const setTrialUsed = (garden: Garden, lineId: string, trialId: string, used: boolean): Garden =>
  changeTrials(garden, lineId, (trials) =>
    trials.map((one) => (one.id === trialId ? { ...one, used } : one)),
  );

export const setTrialNote = (garden: Garden, lineId: string, trialNote: string): Garden => ({
  ...garden,
  waterLines: garden.waterLines.map((line) => (line.id === lineId ? { ...line, trialNote } : line)),
});

/** The flow that the rules reckon with becomes the measured one, ml/s to two decimals, within what the garden allows. */
export const useMeasuredFlow = (garden: Garden, lineId: string, fit: DoseFit): Garden =>
  setWaterLine(garden, lineId, {
    flowMlPerS: Math.min(1000, Math.max(0.1, Math.round(100 / fit.secondsPerMl) / 100)),
  });
