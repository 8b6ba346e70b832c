import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';

/** "Roof board P34". */
export function endName(circuit: Circuit, end: End): string {
  const placed = circuit.parts.get(end.part);
  const terminal = placed?.entry.terminals.find((one) => one.id === end.terminal);
  return `${placed?.part.label ?? end.part} ${terminal?.name ?? end.terminal}`;
}

/** An end as the value of a choice, and back. */
export const endValue = (end: End): string => `${end.part} ${end.terminal}`;
export function endOfValue(value: string): End {
  const [part = '', terminal = ''] = value.split(' ');
  return { part, terminal };
}
