import { bootEngine, stepEngine } from '../control/engine/engine.ts';
import type { BoardPlan } from './boardPlan.ts';

/** A made-up day of one stick: dry, then wet, slowly and with noise; a plug pulled for a while now and then. */
export const rawAt = (second: number): number =>
  second % 9000 > 8500
    ? 4095
    : Math.round(2500 - 600 * Math.abs(Math.sin(second / 9000)) + ((second * 7919) % 13));

/** Seconds at which the engine of the page switches the only line, with the level: what a board must do as well. */
export function switchesOfPage(plan: BoardPlan, toS: number): readonly string[] {
  let state = bootEngine(plan.engine);
  const switches: string[] = [];
  for (let nowS = 1; nowS <= toS; nowS += 1) {
    const sensors = [{ raw: rawAt(nowS), atS: nowS }];
    const told = { nowS, sensors, tanks: [], clock: null, around: [], batteryMv: null, orders: [] };
    const step = stepEngine(state, told, plan.engine);
    const wasOn = (state.lines[0]?.run ?? null) !== null;
    state = step.state;
    if (wasOn !== step.on[0]) switches.push(`${nowS} ${step.on[0] ? 1 : 0}`);
  }
  return switches;
}
