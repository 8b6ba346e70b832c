/**
 * A netlist read as a circuit: which terminals are one net, and the highest voltage each net can see.
 *
 * Voltages spread from supplies and outputs over whatever lets them pass (resistors, fuses, motors, closed contacts), scaled by dividers,
 * until nothing changes. The worst case is kept: a motor that stands hands its supply on, a resistor without current drops nothing.
 * A source whose voltage is not known makes its nets "not known" and never quietly zero.
 */
import type { Catalogue } from '../catalogue/catalogue.ts';
import type { FactKey } from '../catalogue/facts.ts';
import type { Entry, Role, Terminal, TerminalOf, TerminalType } from '../catalogue/schema.ts';
import { dividerShare } from '../electrics/divider.ts';
import { LOOP } from '../electrics/shunt.ts';
import { endKey, type Cable, type End, type Netlist, type Part, type Wire } from './netlist.ts';

/** A part with its catalogue entry; parts whose entry is not in the catalogue are listed apart. */
export type Placed = { readonly part: Part; readonly entry: Entry; readonly spots: readonly Spot[] };
export type Spot = { readonly placed: Placed; readonly terminal: Terminal; readonly end: End };

export type Level = {
  /** Highest voltage this net can see, V; null when a source on it is not known. */
  readonly volts: number | null;
  /** Where it comes from. */
  readonly from: Spot;
};

export type Net = {
  readonly spots: readonly Spot[];
  readonly wires: readonly Wire[];
  /** Null: nothing on it gives a voltage. */
  level: Level | null;
};

export type Circuit = {
  readonly netlist: Netlist;
  readonly parts: ReadonlyMap<string, Placed>;
  readonly unknownEntries: readonly Part[];
  /** Wires that end at a terminal their part does not have. */
  readonly danglingWires: readonly Wire[];
  readonly nets: readonly Net[];
  readonly netOf: (end: End) => Net;
  readonly cables: ReadonlyMap<string, Cable>;
};

/** A fact of a part: its own setting, else its entry's; null when unknown. */
export function fact({ part, entry }: Placed, key: FactKey): number | null {
  const own = part.settings[key];
  return own !== undefined ? own : (entry.facts[key] ?? null);
}

export const hasRole = (placed: Placed, ...roles: readonly Role[]): boolean =>
  roles.includes(placed.entry.role);

export const isType = <Type extends TerminalType>(
  spot: Spot,
  type: Type,
): spot is Spot & { terminal: TerminalOf<Type> } => spot.terminal.type === type;

export const spotsOf = (placed: Placed): readonly Spot[] => placed.spots;

/** A sensor that is a resistance and nothing else: two leads, and a fixed resistor beside it makes a voltage of it. */
export const isBareSensor = (placed: Placed): boolean =>
  hasRole(placed, 'probe', 'thermometer', 'light sensor') &&
  placed.spots.length === 2 &&
  placed.spots.every((spot) => isType(spot, 'lead'));

/** The other lead of a bare sensor, resistor or fuse. */
export const otherLead = ({ placed, terminal }: Spot): Spot | null =>
  placed.spots.find((spot) => isType(spot, 'lead') && spot.terminal.id !== terminal.id) ?? null;

function place(part: Part, entry: Entry): Placed {
  const spots: Spot[] = [];
  const placed: Placed = { part, entry, spots };
  for (const terminal of entry.terminals)
    spots.push({ placed, terminal, end: { part: part.id, terminal: terminal.id } });
  return placed;
}

export const spotAt = (placed: Placed, terminalId: string): Spot | null =>
  spotsOf(placed).find((spot) => spot.terminal.id === terminalId) ?? null;

export function readCircuit(netlist: Netlist, catalogue: Catalogue): Circuit {
  const parts = new Map<string, Placed>();
  const unknownEntries: Part[] = [];
  for (const part of netlist.parts) {
    const entry = catalogue.get(part.entryId);
    if (entry) parts.set(part.id, place(part, entry));
    else unknownEntries.push(part);
  }
  const { nets, byEnd, danglingWires } = joinNets(netlist, parts);
  spreadVoltages(parts, byEnd);
  // The ends of its own spots are looked up by the thousand.
  const held = new Map<End, Net>();
  for (const { spots } of parts.values())
    for (const { end } of spots) {
      const net = byEnd.get(endKey(end));
      if (net) held.set(end, net);
    }
  return {
    netlist,
    parts,
    unknownEntries,
    danglingWires,
    nets,
    netOf: (end) => held.get(end) ?? byEnd.get(endKey(end)) ?? { spots: [], wires: [], level: null },
    cables: new Map(netlist.cables.map((cable) => [cable.id, cable])),
  };
}

function joinNets(netlist: Netlist, parts: ReadonlyMap<string, Placed>) {
  const spots = new Map<string, Spot>();
  for (const placed of parts.values()) for (const spot of spotsOf(placed)) spots.set(endKey(spot.end), spot);
  const parent = new Map<string, string>([...spots.keys()].map((key) => [key, key]));
  const root = (key: string): string => {
    let at = key;
    for (let up = parent.get(at); up !== undefined && up !== at; up = parent.get(at)) at = up;
    parent.set(key, at);
    return at;
  };
  const danglingWires: Wire[] = [];
  for (const wire of netlist.wires) {
    const [from, to] = [endKey(wire.from), endKey(wire.to)];
    if (spots.has(from) && spots.has(to)) parent.set(root(from), root(to));
    else danglingWires.push(wire);
  }
  const byRoot = new Map<string, { spots: Spot[]; wires: Wire[]; level: Level | null }>();
  const byEnd = new Map<string, Net>();
  for (const [key, spot] of spots) {
    const top = root(key);
    const net = byRoot.get(top) ?? { spots: [], wires: [], level: null };
    net.spots.push(spot);
    byRoot.set(top, net);
    byEnd.set(key, net);
  }
  for (const wire of netlist.wires)
    if (spots.has(endKey(wire.from)) && spots.has(endKey(wire.to)))
      byRoot.get(root(endKey(wire.from)))?.wires.push(wire);
  return { nets: [...byRoot.values()] as Net[], byEnd, danglingWires };
}

/** Spreading ends after this many rounds even if a wiring is nonsense; each round crosses one part everywhere. */
const MOST_ROUNDS = 64;

const isGround = (net: Net | undefined): boolean =>
  net?.spots.some((spot) => isType(spot, 'ground') && !hasRole(spot.placed, 'contact')) ?? false;

function spreadVoltages(parts: ReadonlyMap<string, Placed>, byEnd: ReadonlyMap<string, Net>): void {
  const netAt = (placed: Placed, terminalId: string) => byEnd.get(`${placed.part.id}.${terminalId}`);
  const raise = (net: Net | undefined, volts: number | null, from: Spot): boolean => {
    if (!net) return false;
    const held = net.level;
    const raises =
      held === null ? true : held.volts === null ? false : volts === null || volts > held.volts + 1e-9;
    if (raises) net.level = { volts, from };
    return raises;
  };
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    let changed = false;
    for (const placed of parts.values()) {
      for (const spot of spotsOf(placed)) {
        const volts = drivenVolts(spot, (id) => netAt(placed, id)?.level ?? null, byEnd);
        if (volts !== undefined) changed = raise(netAt(placed, spot.terminal.id), volts, spot) || changed;
      }
      for (const [from, to, share] of passages(placed)) {
        const level = netAt(placed, from)?.level;
        // What reaches a ground through a part ends there: it lifts nothing that hangs on the ground as well.
        if (level && !isGround(netAt(placed, to)))
          changed =
            raise(
              netAt(placed, to),
              level.volts === null || share === null ? null : level.volts * share,
              level.from,
            ) || changed;
      }
    }
    if (!changed) return;
  }
}

/** What a terminal itself puts on its net: a voltage, null for one that is not known, undefined for nothing. */
function drivenVolts(
  { terminal, placed, end }: Spot,
  levelAt: (terminalId: string) => Level | null,
  byEnd: ReadonlyMap<string, Net>,
): number | null | undefined {
  const following = (follows: string | undefined, fixedV: number | null): number | null | undefined => {
    if (follows === undefined) return fixedV;
    const supply = levelAt(follows);
    // Without a supply it gives nothing; that it has none is a finding of its own.
    return supply === null ? undefined : supply.volts;
  };
  switch (terminal.type) {
    case 'supply out':
      return terminal.volts;
    case 'analog out':
    case 'digital out':
    case 'uart out':
      return following(terminal.follows, terminal.highV);
    case 'i2c': {
      // Pull-ups of a module pull to that module's own supply.
      const supply = placed.entry.terminals.find((one) => one.type === 'supply in');
      return (placed.part.settings.ownPullUpOhm ?? placed.entry.facts.ownPullUpOhm) == null || !supply
        ? undefined
        : levelAt(supply.id)?.volts;
    }
    case 'loop': {
      if (terminal.side === 'plus') return undefined;
      const shunt = byEnd.get(endKey(end))?.spots.find((one) => one.placed.entry.role === 'shunt');
      if (!shunt) return levelAt('plus')?.volts;
      const ohm = fact(shunt.placed, 'ohm');
      return ohm === null ? null : (LOOP.overMa / 1000) * ohm;
    }
    case 'pin': {
      const net = byEnd.get(endKey(end));
      const drives = net?.spots.some(
        (one) => one.placed !== placed && takesAPin(one) && terminal.caps.includes('out'),
      );
      return drives ? fact(placed, 'logicV') : undefined;
    }
    default:
      return undefined;
  }
}

const TAKES_A_PIN = new Set<TerminalType>(['digital in', 'uart in', 'control', 'load', 'supply in']);
const LEADS_TAKE_A_PIN = new Set<Role>(['LED', 'resistor']);

/** What a pin must drive, so that it is an output. */
export const takesAPin = (spot: Spot): boolean =>
  TAKES_A_PIN.has(spot.terminal.type) ||
  (spot.terminal.type === 'lead' && LEADS_TAKE_A_PIN.has(spot.placed.entry.role));

/** Ways through a part: from, to, and the share of the voltage that arrives (null: not known). */
function passages(placed: Placed): (readonly [from: string, to: string, share: number | null])[] {
  const both = (one: string, other: string) => [[one, other, 1] as const, [other, one, 1] as const];
  if (isBareSensor(placed)) return both('a', 'b');
  switch (placed.entry.role) {
    case 'resistor':
    case 'fuse':
      return both('a', 'b');
    case 'pump':
    case 'valve':
      return both('plus', 'minus');
    case 'relay':
      return both('common', 'open');
    case 'LED':
      return [['anode', 'cathode', 1]];
    case 'pull-ups':
      return [
        ['up', 'sda', 1],
        ['up', 'scl', 1],
      ];
    case 'divider':
    case 'battery monitor': {
      const upperOhm = fact(placed, 'upperOhm');
      const lowerOhm = fact(placed, 'lowerOhm');
      const share = upperOhm === null || lowerOhm === null ? null : dividerShare({ upperOhm, lowerOhm });
      return [['in', 'out', share]];
    }
    case 'level shifter':
      // Each side is pulled to its own supply.
      return [1, 2, 3, 4].flatMap((n) => [['lv', `lv${n}`, 1] as const, ['hv', `hv${n}`, 1] as const]);
    default:
      return [];
  }
}
