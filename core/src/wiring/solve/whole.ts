/** A wiring with every wire by itself: what any one of them carries, and what happens without it. */
import type { Circuit, Spot } from '../circuit.ts';
import type { Wire } from '../netlist.ts';
import type { Device } from './law.ts';
import { meshOf, type CircuitMesh } from './mesh.ts';
import type { Situation } from './situation.ts';
import { situationsOf, type Situations } from './situations.ts';
import { groundOf } from './solved.ts';
import { solve, type Solution } from './solve.ts';

/** Solved in every situation that is asked for. */
export class Whole {
  readonly mesh: CircuitMesh;
  readonly situations: Situations;
  private readonly found = new Map<Situation, Solution>();
  private readonly byNode = new Map<number, Device[]>();

  constructor(readonly circuit: Circuit) {
    this.mesh = meshOf(circuit, true);
    this.situations = situationsOf(circuit);
  }

  of(situation: Situation): Solution {
    const held = this.found.get(situation) ?? solve(this.mesh, situation);
    this.found.set(situation, held);
    return held;
  }

  without(situation: Situation, wire: Wire): Solution {
    return solve(this.mesh, { ...situation, without: wire.id }, this.of(situation));
  }

  /** Devices with an end at a node. */
  touching(node: number): readonly Device[] {
    if (this.byNode.size === 0)
      for (const device of this.mesh.devices)
        for (const end of new Set([device.a, device.b]))
          this.byNode.set(end, [...(this.byNode.get(end) ?? []), device]);
    return this.byNode.get(node) ?? [];
  }

  node(spot: Spot): number {
    return this.mesh.nodeOf(spot.end);
  }

  /** Voltage of a spot against its own part's ground, V. */
  volts(at: Solution, spot: Spot): number | null {
    const ground = groundOf(spot.placed);
    return ground ? at.across(this.node(spot), this.node(ground)) : null;
  }
}
