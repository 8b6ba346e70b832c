/** What the boards' own programs make of the plan's sleep: the supply is reckoned with what they do, not with what was wished. */
import type { Garden } from '../garden/document/schema.ts';
import { planBoard } from './boardPlan.ts';
import type { SketchProblem, SketchSleep } from './plan.ts';

const AWAKE = ['awake-holds', 'awake-short'] as const satisfies readonly SketchProblem['kind'][];
const isAwake = ({ kind }: SketchProblem): boolean => (AWAKE as readonly string[]).includes(kind);

export type BoardSleep = {
  readonly name: string;
  /** What stands for it in the wiring; null: nothing. */
  readonly partId: string | null;
  /** Null: its program stays awake, and why. */
  readonly sleep: SketchSleep | null;
  readonly why: readonly SketchProblem[];
};

/** Of every board whose program can be written, in MicroPython; none where the plan does not want them to sleep. */
export function boardSleeps(garden: Garden): readonly BoardSleep[] {
  if (!garden.plan.supply.sleeps) return [];
  return garden.boards.flatMap(({ id, name }): BoardSleep[] => {
    const planned = planBoard(garden, id);
    if (!planned.ok) return [];
    const part = garden.wiring.parts.find(({ stands }) => stands?.list === 'boards' && stands.id === id);
    const { sleep, leftOut } = planned.plan;
    return [{ name, partId: part?.id ?? null, sleep, why: leftOut.filter(isAwake) }];
  });
}
