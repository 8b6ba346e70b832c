/** One part by itself: every wire that ends at it, by the part at the other end. What is looked at while that one part is wired. */
import { wireKind, type WireKind } from './buildOrder.ts';
import type { Circuit, Placed } from './circuit.ts';
import { endKey, type Cable, type End } from './netlist.ts';

export type NeighbourWire = {
  readonly id: string;
  /** As in the table, from 1. */
  readonly number: number;
  readonly kind: WireKind;
  readonly own: End;
  readonly other: End;
  readonly cable: Cable | null;
  /** Whether other wires end at the same terminal, at this part and at the other. */
  readonly isJoin: { readonly own: boolean; readonly other: boolean };
};

export type Neighbour = { readonly placed: Placed; readonly wires: readonly NeighbourWire[] };

/**
 * The parts that a part is wired to, in the order of its own terminals, and the wires to each in the same order. A wire from the part to itself makes it its own neighbour; wires that
 * end at no part of the circuit are left out.
 */
export function neighboursOf(circuit: Circuit, partId: string): readonly Neighbour[] {
  const part = circuit.parts.get(partId);
  if (!part) return [];
  const order = new Map(part.entry.terminals.map(({ id }, at) => [id, at]));
  const rank = ({ own }: NeighbourWire) => order.get(own.terminal) ?? order.size;
  const isJoin = joinsIn(circuit);
  const wires = circuit.netlist.wires.flatMap((wire, at): NeighbourWire[] => {
    const ends = wire.from.part === partId ? [wire.from, wire.to] : [wire.to, wire.from];
    const [own, other] = ends;
    if (own?.part !== partId || !other || !circuit.parts.has(other.part)) return [];
    const cable = wire.cableId === null ? null : (circuit.cables.get(wire.cableId) ?? null);
    return [
      {
        id: wire.id,
        number: at + 1,
        kind: wireKind(circuit, wire),
        own,
        other,
        cable,
        isJoin: { own: isJoin(own), other: isJoin(other) },
      },
    ];
  });
  const byPart = new Map<string, NeighbourWire[]>();
  for (const wire of wires.toSorted((one, next) => rank(one) - rank(next))) {
    const there = byPart.get(wire.other.part);
    if (there) there.push(wire);
    else byPart.set(wire.other.part, [wire]);
  }
  return [...byPart].flatMap(([id, own]) => {
    const placed = circuit.parts.get(id);
    return placed ? [{ placed, wires: own }] : [];
  });
}

/** Whether several wires end at a terminal. */
function joinsIn({ netlist }: Circuit): (end: End) => boolean {
  const counts = new Map<string, number>();
  for (const { from, to } of netlist.wires)
    for (const end of [from, to]) counts.set(endKey(end), (counts.get(endKey(end)) ?? 0) + 1);
  return (end) => (counts.get(endKey(end)) ?? 0) > 1;
}

/** A part in the middle of a drawing, with the wires that are drawn there. */
export type Hub = { readonly placed: Placed; readonly neighbours: readonly Neighbour[] };

/**
 * A whole wiring as drawings of one part each, every wire in one of them: first the part with the most wires, then the one with the most of those that are left.
 * Of two with as many the one that comes first in the wiring.
 */
export function hubsOf(circuit: Circuit): readonly Hub[] {
  const all = [...circuit.parts.keys()].map((id) => ({ id, neighbours: neighboursOf(circuit, id) }));
  const drawn = new Set<string>();
  const hubs: Hub[] = [];
  for (;;) {
    const left = all.map(({ id, neighbours }) => ({
      id,
      neighbours: neighbours.flatMap(({ placed, wires }): Neighbour[] => {
        const rest = wires.filter((wire) => !drawn.has(wire.id));
        return rest.length > 0 ? [{ placed, wires: rest }] : [];
      }),
    }));
    const count = ({ neighbours }: { readonly neighbours: readonly Neighbour[] }) =>
      neighbours.reduce((sum, { wires }) => sum + wires.length, 0);
    const [most] = left.toSorted((one, other) => count(other) - count(one));
    const placed = most && circuit.parts.get(most.id);
    if (!most || !placed || count(most) === 0) return hubs;
    for (const { wires } of most.neighbours) for (const wire of wires) drawn.add(wire.id);
    hubs.push({ placed, neighbours: most.neighbours });
  }
}

/**
 * Two halves of about the same height, without changing the order: what comes first stands on the first side.
 * @param heightOf of one of them, any unit
 */
export function inHalves<Item>(
  items: readonly Item[],
  heightOf: (item: Item) => number,
): readonly [readonly Item[], readonly Item[]] {
  const heights = items.map(heightOf);
  const all = heights.reduce((sum, one) => sum + one, 0);
  let [best, before, at] = [Infinity, 0, 0];
  for (let cut = 0; cut <= items.length; cut += 1) {
    const higher = Math.max(before, all - before);
    if (higher < best) [best, at] = [higher, cut];
    before += heights[cut] ?? 0;
  }
  return [items.slice(0, at), items.slice(at)];
}
