import type { Circuit, Placed } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';

/** A terminal of a part as it is printed there. */
export const terminalName = (placed: Placed | undefined, { terminal }: End): string =>
  placed?.entry.terminals.find(({ id }) => id === terminal)?.name ?? terminal;

/** "Roof board P34". */
export function endName(circuit: Circuit, end: End): string {
  const placed = circuit.parts.get(end.part);
  return `${placed?.part.label ?? end.part} ${terminalName(placed, end)}`;
}

/** An end as the value of a choice, and back. */
export const endValue = (end: End): string => `${end.part} ${end.terminal}`;
export function endOfValue(value: string): End {
  const [part = '', terminal = ''] = value.split(' ');
  return { part, terminal };
}
