/** A circuit with its solutions, worked out once for as long as the circuit is there. */
import { remembered } from '../../quantity/remembered.ts';
import { type Circuit, type Placed, type Spot, isType } from '../circuit.ts';
import type { Device } from './law.ts';
import { meshOf, type CircuitMesh } from './mesh.ts';
import { situationsOf, type Situations } from './situations.ts';
import type { Situation } from './situation.ts';
import { solve, type Solution } from './solve.ts';

export type Solved = {
  readonly mesh: CircuitMesh;
  readonly situations: Situations;
  readonly all: readonly Solution[];
  readonly boot: Solution;
  readonly idle: Solution;
  readonly of: (situation: Situation) => Solution;
  /** False: in some situation no consistent state was found, and nothing may be called proved. */
  readonly settled: boolean;
  /** Voltage of a spot against the ground of its own part, V; null where that has none. */
  readonly voltsAt: (solution: Solution, spot: Spot) => number | null;
  readonly deviceOf: (placed: Placed, name: string) => Device | null;
};

export const groundOf = (placed: Placed): Spot | null =>
  placed.spots.find((spot) => isType(spot, 'ground')) ?? null;

export const solvedOf = remembered((circuit: Circuit): Solved => {
  const mesh = meshOf(circuit);
  const situations = situationsOf(circuit);
  const found = new Map<Situation, Solution>();
  const of = (situation: Situation, near: Solution | null = null): Solution => {
    const held = found.get(situation) ?? solve(mesh, situation, near);
    found.set(situation, held);
    return held;
  };
  const boot = of(situations.boot);
  const idle = of(situations.idle);
  const all = situations.all.map((situation) => of(situation, idle));
  const grounds = new Map([...circuit.parts.values()].map((placed) => [placed, groundOf(placed)]));
  return {
    mesh,
    situations,
    all,
    boot,
    idle,
    of,
    settled: all.every((one) => one.settled),
    voltsAt: (solution, spot) => {
      const ground = grounds.get(spot.placed);
      return ground ? solution.across(mesh.nodeOf(spot.end), mesh.nodeOf(ground.end)) : null;
    },
    deviceOf: (placed, name) => mesh.deviceOf(placed.part.id, name),
  };
});

/** Of what is the same but for rounding the first counts: it is the plainest situation. */
const TIE = 2e-3;

/** The solution in which something is largest, with the value; null where it is nowhere a number. */
export function most(
  solutions: Iterable<Solution>,
  of: (solution: Solution) => number | null,
): { readonly value: number; readonly at: Solution } | null {
  let best: { value: number; at: Solution } | null = null;
  for (const at of solutions) {
    const value = of(at);
    if (
      value !== null &&
      Number.isFinite(value) &&
      (best === null || value > best.value + TIE * Math.abs(best.value))
    )
      best = { value, at };
  }
  return best;
}
