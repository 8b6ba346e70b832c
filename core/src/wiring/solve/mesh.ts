/** A circuit made ready for solving: terminals joined by short wires are one node, cables are resistors, parts are what `models` says they are. */
import { COPPER_OHM_MM2_PER_M } from '../../electrics/cable.ts';
import type { FactKey } from '../../catalogue/facts.ts';
import { type Circuit, type Placed, fact, hasRole } from '../circuit.ts';
import { endKey, type End } from '../netlist.ts';
import type { Build } from './build.ts';
import type { Device } from './law.ts';
import { MODELS } from './models.ts';
import type { Mesh } from './solve.ts';

/** A figure that a model wanted and did not get; a usual one stands in for it, and what rests on it cannot be told. */
export type Missing = { readonly placed: Placed; readonly key: FactKey };

export type CircuitMesh = Mesh & {
  readonly nodeOf: (end: End) => number;
  /** What the models made of a part, by the names they give: "coil", "contact". */
  readonly deviceOf: (partId: string, name: string) => Device | null;
  readonly devicesOf: (partId: string) => readonly Device[];
  /** The cable's wire as a resistor; null for a short wire. */
  readonly wireDevice: (wireId: string) => Device | null;
  readonly missing: readonly Missing[];
};

/** @param apart every wire stands for itself, so that any of them can come off; else short wires join their terminals to one node */
export function meshOf(circuit: Circuit, apart = false): CircuitMesh {
  const nodes = numberNodes(circuit, apart);
  // The ends of a circuit's own spots are looked up by the thousand.
  const held = new Map<End, number>();
  for (const { spots } of circuit.parts.values())
    for (const { end } of spots) held.set(end, nodes.of.get(endKey(end)) ?? -1);
  const nodeOf = (end: End) => held.get(end) ?? nodes.of.get(endKey(end)) ?? -1;
  const devices: Device[] = [];
  const byPart = new Map<string, Device[]>();
  const byWire = new Map<string, Device>();
  const missing: Missing[] = [];
  for (const placed of circuit.parts.values()) {
    const own: Device[] = [];
    byPart.set(placed.part.id, own);
    const knownOf: Build['knownOf'] = (value, key, usual) => {
      if (value != null) return value;
      missing.push({ placed, key });
      return usual;
    };
    const node = (terminalId: string) =>
      placed.spots.some((one) => one.terminal.id === terminalId)
        ? nodeOf({ part: placed.part.id, terminal: terminalId })
        : null;
    const ground = placed.spots.find((one) => one.terminal.type === 'ground');
    MODELS[placed.entry.role]({
      placed,
      node,
      nodeAt: (spot) => nodeOf(spot.end),
      ground: ground ? nodeOf(ground.end) : null,
      add: (name, a, b, law) => {
        if (a === null || b === null) return null;
        const device: Device = { partId: placed.part.id, name, a, b, law };
        own.push(device);
        devices.push(device);
        return device;
      },
      known: (key, usual) => knownOf(fact(placed, key), key, usual),
      knownOf,
    });
  }
  for (const wire of circuit.netlist.wires) {
    const ohm = Math.max(ohmOfWire(circuit, wire.cableId), apart ? SHORT_OHM : 0);
    const [a, b] = [nodes.of.get(endKey(wire.from)), nodes.of.get(endKey(wire.to))];
    if (ohm === 0 || a === undefined || b === undefined) continue;
    const device: Device = {
      partId: null,
      name: wire.id,
      a,
      b,
      law: { kind: 'resistor', ohm: ({ without }) => (without === wire.id ? Infinity : ohm) },
    };
    devices.push(device);
    byWire.set(wire.id, device);
  }
  return {
    nodes: nodes.count,
    ...islands(circuit, nodes.count, devices, nodeOf),
    devices,
    nodeOf,
    deviceOf: (partId, name) => byPart.get(partId)?.find((one) => one.name === name) ?? null,
    devicesOf: (partId) => byPart.get(partId) ?? [],
    wireDevice: (wireId) => byWire.get(wireId) ?? null,
    missing,
  };
}

/** One wire of a cable, ohm; 0 for a wire in the box, and for a cable that was not measured. */
function ohmOfWire(circuit: Circuit, cableId: string | null): number {
  const cable = cableId === null ? undefined : circuit.cables.get(cableId);
  return cable?.lengthM == null || cable.areaMm2 == null
    ? 0
    : (cable.lengthM * COPPER_OHM_MM2_PER_M) / cable.areaMm2;
}

/** A short wire where it cannot be taken for none. */
const SHORT_OHM = 1e-3;

function numberNodes(
  circuit: Circuit,
  apart: boolean,
): { readonly of: ReadonlyMap<string, number>; readonly count: number } {
  const keys = [...circuit.parts.values()].flatMap((placed) => placed.spots.map((spot) => endKey(spot.end)));
  const sets = new Joined(keys.length);
  const at = new Map(keys.map((key, index) => [key, index]));
  for (const wire of circuit.netlist.wires) {
    const [from, to] = [at.get(endKey(wire.from)), at.get(endKey(wire.to))];
    if (!apart && from !== undefined && to !== undefined && ohmOfWire(circuit, wire.cableId) === 0)
      sets.join(from, to);
  }
  const numbers = new Map<number, number>();
  const of = new Map<string, number>();
  for (const [key, index] of at) {
    const root = sets.root(index);
    const node = numbers.get(root) ?? numbers.size;
    numbers.set(root, node);
    of.set(key, node);
  }
  return { of, count: numbers.size };
}

/** What hangs together through anything that may conduct; zero is the minus of a supply where there is one, else some ground. */
function islands(
  circuit: Circuit,
  count: number,
  devices: readonly Device[],
  nodeOf: (end: End) => number,
): Pick<Mesh, 'islandOf' | 'zeroOf'> {
  const sets = new Joined(count);
  for (const { a, b } of devices) sets.join(a, b);
  const zero = new Map<number, { node: number; rank: number }>();
  for (const placed of circuit.parts.values())
    for (const spot of placed.spots) {
      const node = nodeOf(spot.end);
      const isGround = spot.terminal.type === 'ground';
      const rank = isGround && hasRole(placed, 'battery', 'supply') ? 0 : isGround ? 1 : 2;
      const island = sets.root(node);
      if (rank < (zero.get(island)?.rank ?? 9)) zero.set(island, { node, rank });
    }
  return {
    islandOf: Array.from({ length: count }, (_, node) => sets.root(node)),
    zeroOf: [...zero.values()].map((one) => one.node),
  };
}

/** Sets of numbers that grow together. */
class Joined {
  private readonly up: number[];
  constructor(count: number) {
    this.up = Array.from({ length: count }, (_, at) => at);
  }
  root(of: number): number {
    let at = of;
    for (let next = this.up[at]; next !== undefined && next !== at; next = this.up[at]) at = next;
    this.up[of] = at;
    return at;
  }
  join(one: number, other: number): void {
    this.up[this.root(one)] = this.root(other);
  }
}
