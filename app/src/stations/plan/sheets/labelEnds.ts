import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { Cable } from '@plain-trowel/core/wiring/netlist';

export type LabelEnds = { readonly here: string; readonly there: string };

/** What stands on the two labels of a cable: the part at this end with its terminals, and the part at the other. */
export function labelEnds(circuit: Circuit, cable: Cable): readonly [LabelEnds, LabelEnds] {
  const wires = circuit.netlist.wires.filter((wire) => wire.cableId === cable.id);
  const far =
    wires
      .flatMap((wire) => [wire.from.part, wire.to.part])
      .find((id) => circuit.parts.get(id)?.part.label === cable.label) ??
    wires[0]?.to.part ??
    '';
  const name = (partId: string, terminals: readonly string[]) => {
    const placed = circuit.parts.get(partId);
    const names = terminals.map((id) => placed?.entry.terminals.find((one) => one.id === id)?.name ?? id);
    return `${placed?.part.label ?? partId}: ${[...new Set(names)].join(', ')}`;
  };
  const side = (isFar: boolean): string => {
    const byPart = new Map<string, string[]>();
    for (const wire of wires)
      for (const end of [wire.from, wire.to])
        if ((end.part === far) === isFar)
          byPart.set(end.part, [...(byPart.get(end.part) ?? []), end.terminal]);
    return [...byPart].map(([partId, terminals]) => name(partId, terminals)).join('; ');
  };
  const [box, plant] = [side(false), side(true)];
  return [
    { here: box, there: plant },
    { here: plant, there: box },
  ];
}
