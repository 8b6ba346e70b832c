import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import { inV, nameOf } from '@plain-trowel/core/wiring/look';
import type { End } from '@plain-trowel/core/wiring/netlist';

/** The highest voltage of a net in words. */
export function levelText(circuit: Circuit, end: End): string {
  const { level, spots } = circuit.netOf(end);
  if (spots.some((spot) => spot.terminal.type === 'ground')) return 'Ground.';
  if (level === null) return 'Nothing on it gives a voltage.';
  return level.volts === null
    ? `Its voltage is not known: ${nameOf(level.from)} does not say.`
    : `At most ${inV(level.volts)}, from ${nameOf(level.from)}.`;
}
