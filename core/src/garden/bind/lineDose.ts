/** What a water line's trials come to, read on the jug that they were read on. */
import { fitDose, suspectTrial, USUAL_JUG_STEP_ML } from '../../dosing/doseFit.ts';
import type { WaterLine } from '../document/schema.ts';

const stepOf = ({ jugStepMl }: WaterLine): number => jugStepMl ?? USUAL_JUG_STEP_ML;

export const usedTrials = ({ trials }: WaterLine) => trials.filter((trial) => trial.used);

/** The fit of the trials that count. */
export const doseFitOf = (line: WaterLine) => fitDose(usedTrials(line), stepOf(line));

/** Of the trials that count the one that goes least with the others; null when all go together. */
export const suspectOf = (line: WaterLine) => suspectTrial(usedTrials(line), stepOf(line));
