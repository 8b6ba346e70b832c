/**
 * The first hour with a real pump: what must have been seen of a line before it waters by itself. A measured dose, a guard that refuses when it should, and one
 * run watched from its start to its end; who knows better says why.
 */
import { usesProbe } from '../../control/programs/programs.ts';
import { doseFitOf } from './lineDose.ts';
import type { WaterLine } from '../document/schema.ts';
import type { FirstHour } from '../document/waterSchema.ts';

export type FirstStep = {
  readonly id: 'jug' | Exclude<keyof FirstHour, 'overruled'>;
  readonly isDone: boolean;
};

/** The steps that this line needs, in the order in which they are done. */
export function firstSteps(line: WaterLine): readonly FirstStep[] {
  const { tankId, program, firstHour } = line;
  const step = (id: Exclude<FirstStep['id'], 'jug'>): FirstStep => ({ id, isDone: firstHour[id] !== null });
  return [
    { id: 'jug', isDone: doseFitOf(line).ok },
    ...(usesProbe(program.kind) ? [step('probeOutAt')] : []),
    ...(tankId === null ? [] : [step('tankLowAt')]),
    step('watchedAt'),
  ];
}

/** Whether a line may be let to water by itself: everything seen, or a reason why not. */
export const mayArm = (line: WaterLine): boolean =>
  line.firstHour.overruled.trim() !== '' || firstSteps(line).every((step) => step.isDone);
