/** Changes that dosing makes to a garden: measured runs of a water line, and the flow that they show. Each gives a new garden. */
import type { DoseFit } from '../../dosing/doseFit.ts';
import { setWaterLine } from './plots.ts';
import { makeId } from '../document/ids.ts';
import type { Garden, WaterLine } from '../document/schema.ts';
import type { Rig } from '../document/waterSchema.ts';

export type TrialOf = WaterLine['trials'][number];

const changeTrials = (
  garden: Garden,
  lineId: string,
  change: (trials: readonly TrialOf[], rig: Rig) => TrialOf[],
): Garden => ({
  ...garden,
  waterLines: garden.waterLines.map((line) =>
    line.id === lineId ? { ...line, trials: change(line.trials, line.rig) } : line,
  ),
});

export const addTrial = (
  garden: Garden,
  lineId: string,
  trial: Omit<TrialOf, 'id' | 'used' | 'rig'>,
  random: () => number,
): Garden =>
  changeTrials(garden, lineId, (trials, rig) => [
    ...trials,
    { ...trial, id: makeId('trial', new Set(trials.map((one) => one.id)), random), used: true, rig },
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

/** The flow that the rules reckon with becomes the measured one, with its tube: ml/s to two decimals, s to one, within what the garden allows. */
export const useMeasuredFlow = (garden: Garden, lineId: string, fit: DoseFit): Garden =>
  setWaterLine(garden, lineId, {
    flowMlPerS: Math.min(1000, Math.max(0.1, Math.round(100 / fit.secondsPerMl) / 100)),
    tubeS: Math.min(600, Math.max(0, Math.round(10 * fit.tubeS) / 10)),
  });

/** What may differ before a pump gives something else: a tenth of the tube, ten centimetres of lift, a quarter of the tank, three parts in a hundred of the supply. */
const MAY_DIFFER: Readonly<Record<keyof Rig, (trial: number, now: number) => boolean>> = {
  tubeM: (trial, now) => Math.abs(trial - now) <= 0.1001 * trial,
  liftCm: (trial, now) => Math.abs(trial - now) <= 10,
  tankPercent: (trial, now) => Math.abs(trial - now) <= 25,
  supplyV: (trial, now) => Math.abs(trial - now) <= 0.0301 * trial,
};
const RIG_KEYS = Object.keys(MAY_DIFFER) as (keyof Rig)[];

export type RefitReason = { readonly what: keyof Rig; readonly trial: number; readonly now: number };

/** Why a line should be measured again: what is not any more as it was for the trials that count. What nobody has said changes nothing. */
export const refitReasons = (line: WaterLine): readonly RefitReason[] =>
  RIG_KEYS.flatMap((what): RefitReason[] => {
    const now = line.rig[what];
    const off = line.trials.find((one) => {
      const trial = one.rig[what];
      return one.used && now !== null && trial !== null && !MAY_DIFFER[what](trial, now);
    });
    const trial = off?.rig[what];
    return now === null || trial == null ? [] : [{ what, trial, now }];
  });
