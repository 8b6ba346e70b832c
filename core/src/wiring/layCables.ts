/** Bundles wires into cables: one for each part that sits away from the box, with the part's label and tag; from one such part to the next, as along a bus, one for each stretch. */
import type { Catalogue } from '../catalogue/catalogue.ts';
import { hasRole, readCircuit, type Placed } from './circuit.ts';
import { addCable } from './edit.ts';
import { partsWith } from './look.ts';
import type { Cable, Netlist, Part, Wire } from './netlist.ts';

/** Length that a cable gets until it is measured, m; null leaves it unknown. */
export type CableHabits = {
  readonly lengthM: number | null;
  /** The way to a part where it is known, m. */
  readonly lengthOf?: (part: Part) => number | null;
};

/** Roles that sit away from the box, at the end of a cable of their own. */
const FAR = [
  'probe',
  'humidity probe',
  'thermometer',
  'light sensor',
  'level sensor',
  'contact',
  'pump',
  'valve',
  'servo',
  'latching valve',
  'solar',
] as const;

/** Small parts that sit in the box or at the other part itself, so that no cable runs between. */
const BESIDE = ['diode', 'resistor', 'pull-ups', 'shunt', 'divider', 'level shifter'] as const;

/** Gives each part that sits away from the box a cable with its label and colour; the fuse's wires are one thick cable, so that it can be judged. */
export function layCables(netlist: Netlist, catalogue: Catalogue, habits: CableHabits): Netlist {
  const circuit = readCircuit(netlist, catalogue);
  const beside = new Set(partsWith(circuit, ...BESIDE).map((placed) => placed.part.id));
  // A fuse sits within a hand's breadth of its battery: no cable runs between the two.
  const atBattery = new Set(partsWith(circuit, 'battery', 'fuse').map((placed) => placed.part.id));
  const isHolder = (wire: Wire) => atBattery.has(wire.from.part) && atBattery.has(wire.to.part);
  let next: Netlist = {
    ...netlist,
    wires: netlist.wires.map((wire) =>
      isHolder(wire) && wire.cableId !== null ? { ...wire, cableId: null } : wire,
    ),
  };
  const lay = (partIds: readonly string[], belongs: (wire: Wire) => boolean, of: Omit<Cable, 'id'>) => {
    const touches = (wire: Wire) => partIds.includes(wire.from.part) || partIds.includes(wire.to.part);
    const bare = next.wires.filter(
      (wire) =>
        wire.cableId === null &&
        touches(wire) &&
        belongs(wire) &&
        !isHolder(wire) &&
        !beside.has(wire.from.part) &&
        !beside.has(wire.to.part),
    );
    if (bare.length === 0) return;
    const held = next.cables.find((cable) => cable.label === of.label);
    const cable = held ? { netlist: next, id: held.id } : addCable(next, of);
    const ids = new Set(bare.map((wire) => wire.id));
    next = {
      ...cable.netlist,
      wires: cable.netlist.wires.map((wire) => (ids.has(wire.id) ? { ...wire, cableId: cable.id } : wire)),
    };
  };
  const far = partsWith(circuit, ...FAR);
  const isFar = new Set(far.map((placed) => placed.part.id));
  const joinsFar = (wire: Wire) => isFar.has(wire.from.part) && isFar.has(wire.to.part);
  const habitual = (placed: Placed): Pick<Cable, 'lengthM' | 'areaMm2'> => ({
    lengthM: habits.lengthOf?.(placed.part) ?? habits.lengthM,
    areaMm2: hasRole(placed, 'pump', 'valve', 'solar') ? 1 : 0.22,
  });
  // From one to the next, as along a bus: each stretch by itself, called by its two ends.
  for (const [at, placed] of far.entries())
    for (const before of far.slice(0, at)) {
      const isBetween = (wire: Wire) =>
        joinsFar(wire) && [wire.from.part, wire.to.part].includes(before.part.id);
      lay([placed.part.id], isBetween, {
        label: `${before.part.label}–${placed.part.label}`.slice(0, 60),
        colour: placed.part.colour,
        ...habitual(placed),
      });
    }
  for (const placed of far)
    lay([placed.part.id], (wire) => !joinsFar(wire), {
      label: placed.part.label,
      colour: placed.part.colour,
      ...habitual(placed),
    });
  const fuses = partsWith(circuit, 'fuse').map((placed) => placed.part.id);
  lay(fuses, () => true, { label: 'Supply', colour: 'red', lengthM: 1, areaMm2: 1.5 });
  return next;
}
