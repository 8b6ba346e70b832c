import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { Finding } from '@plain-trowel/core/wiring/finding';
import { endKey, isSameEnd } from '@plain-trowel/core/wiring/netlist';
import type { Lit } from './picture/selection.ts';

/** Terminals of a finding, and the wires that touch them; where they share a net that is no ground, the wires of the whole net. */
export function lightsOf(circuit: Circuit, finding: Finding): Lit {
  const ends = new Set(finding.ends.map(endKey));
  const wires = new Set<string>();
  for (const end of finding.ends) {
    const net = circuit.netOf(end);
    const isGround = net.spots.some((spot) => spot.terminal.type === 'ground');
    const shared = finding.ends.filter((other) => circuit.netOf(other) === net).length > 1;
    for (const wire of net.wires)
      if ((shared && !isGround) || isSameEnd(wire.from, end) || isSameEnd(wire.to, end)) wires.add(wire.id);
  }
  return { ends, wires, about: null, says: new Map() };
}
