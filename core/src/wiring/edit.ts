/** Changes of a wiring: each takes a netlist and gives a new one. Ids are made from the role and a number, so a plan is the same each time. */
import { byId } from '../quantity/byId.ts';
import type { Catalogue } from '../catalogue/catalogue.ts';
import type { Facts } from '../catalogue/facts.ts';
import type { Role } from '../catalogue/schema.ts';
import type { Remedy } from './finding.ts';
import { isSameEnd, type Cable, type End, type Netlist, type Part, type Wire } from './netlist.ts';

/** Letters that parts of a role are labelled with on the bench: R1, D1, F1. */
const SHORT: Readonly<Partial<Record<Role, string>>> = {
  resistor: 'R',
  diode: 'D',
  divider: 'DIV',
  'pull-ups': 'PU',
  shunt: 'SH',
  fuse: 'F',
  'level shifter': 'LS',
  MOSFET: 'Q',
  transistor: 'Q',
  relay: 'K',
  'driver module': 'DRV',
  transceiver: 'RS',
  converter: 'ADC',
  expander: 'EXP',
  LED: 'LED',
  pump: 'PUMP',
  valve: 'VALVE',
};

const freshId = (prefix: string, taken: ReadonlySet<string>): string => {
  for (let n = 1; ; n += 1) if (!taken.has(`${prefix}-${n}`)) return `${prefix}-${n}`;
};
const idsOf = (list: readonly { id: string }[]): ReadonlySet<string> => new Set(list.map((one) => one.id));

export type NewPart = {
  readonly entryId: string;
  readonly label?: string;
  readonly boardId?: string | null;
  readonly colour?: Part['colour'];
  readonly stands?: Part['stands'];
  readonly address?: number | null;
  readonly settings?: Facts;
  readonly perReading?: boolean;
};

/** Adds a part; without a label it gets the next one of its role, such as R3. @throws RangeError for an entry that is not in the catalogue */
export function addPart(
  netlist: Netlist,
  catalogue: Catalogue,
  of: NewPart,
): { netlist: Netlist; id: string } {
  const entry = catalogue.get(of.entryId);
  if (!entry) throw new RangeError(`addPart: no entry ${of.entryId}`);
  const id = freshId(entry.role.toLowerCase().replace(/[^a-z0-9]+/g, '-'), idsOf(netlist.parts));
  const labels = new Set(netlist.parts.map((one) => one.label));
  const short = SHORT[entry.role] ?? `${entry.role.charAt(0).toUpperCase()}${entry.role.slice(1)} `;
  let label = of.label ?? '';
  for (let n = 1; label === ''; n += 1) if (!labels.has(`${short}${n}`)) label = `${short}${n}`;
  const part: Part = {
    id,
    entryId: of.entryId,
    label,
    colour: of.colour ?? 'none',
    boardId: of.boardId ?? null,
    stands: of.stands ?? null,
    address:
      of.address ??
      (entry.addresses.length > 0 && entry.role !== 'probe' ? (entry.addresses[0] ?? null) : null),
    settings: { ...of.settings },
    perReading: of.perReading ?? false,
    at: null,
  };
  return { netlist: { ...netlist, parts: [...netlist.parts, part] }, id };
}

/** Removes a part with its wires and the cables that carry nothing any more. */
export function removePart(netlist: Netlist, partId: string): Netlist {
  const wires = netlist.wires.filter((wire) => wire.from.part !== partId && wire.to.part !== partId);
  return dropEmptyCables({
    ...netlist,
    wires,
    parts: netlist.parts
      .filter((part) => part.id !== partId)
      .map((part) => (part.boardId === partId ? { ...part, boardId: null } : part)),
  });
}

/** Adds a wire; one that is there already, or that joins a terminal to itself, changes nothing. */
export function connect(netlist: Netlist, from: End, to: End, cableId: string | null = null): Netlist {
  const there = netlist.wires.some(
    (wire) =>
      (isSameEnd(wire.from, from) && isSameEnd(wire.to, to)) ||
      (isSameEnd(wire.from, to) && isSameEnd(wire.to, from)),
  );
  if (there || isSameEnd(from, to)) return netlist;
  const wire: Wire = { id: freshId('wire', idsOf(netlist.wires)), from, to, cableId };
  return { ...netlist, wires: [...netlist.wires, wire] };
}

export const removeWire = (netlist: Netlist, wireId: string): Netlist =>
  dropEmptyCables({ ...netlist, wires: netlist.wires.filter((wire) => wire.id !== wireId) });

/** Moves both ends of a wire; the wire keeps its id and cable. */
export const rerouteWire = (netlist: Netlist, wireId: string, from: End, to: End): Netlist => ({
  ...netlist,
  wires: netlist.wires.map((wire) => (wire.id === wireId ? { ...wire, from, to } : wire)),
});

export const changePart = (netlist: Netlist, partId: string, change: Partial<Omit<Part, 'id'>>): Netlist => ({
  ...netlist,
  parts: netlist.parts.map((part) => (part.id === partId ? { ...part, ...change } : part)),
});

export const changeCable = (
  netlist: Netlist,
  cableId: string,
  change: Partial<Omit<Cable, 'id'>>,
): Netlist => ({
  ...netlist,
  cables: netlist.cables.map((cable) => (cable.id === cableId ? { ...cable, ...change } : cable)),
});

export function addCable(netlist: Netlist, of: Omit<Cable, 'id'>): { netlist: Netlist; id: string } {
  const id = freshId('cable', idsOf(netlist.cables));
  return { netlist: { ...netlist, cables: [...netlist.cables, { id, ...of }] }, id };
}

function dropEmptyCables(netlist: Netlist): Netlist {
  const used = new Set(netlist.wires.map((wire) => wire.cableId));
  return { ...netlist, cables: netlist.cables.filter((cable) => used.has(cable.id)) };
}

/** Everything wired to `from` goes to `to`, except a wire between the two, which goes. */
function moveEnd(netlist: Netlist, from: End, to: End): Netlist {
  const moved = (end: End) => (isSameEnd(end, from) ? to : end);
  return {
    ...netlist,
    wires: netlist.wires
      .map((wire) => ({ ...wire, from: moved(wire.from), to: moved(wire.to) }))
      .filter((wire) => !isSameEnd(wire.from, wire.to)),
  };
}

/** Takes everything off an end and wires it to another; the cable stays its own. */
function rewired(netlist: Netlist, at: End, to: End): Netlist {
  const isAt = (wire: Wire) => isSameEnd(wire.from, at) || isSameEnd(wire.to, at);
  const old = netlist.wires.find(isAt);
  return connect(
    { ...netlist, wires: netlist.wires.filter((wire) => !isAt(wire)) },
    to,
    at,
    old?.cableId ?? null,
  );
}

/** Applies a remedy; one whose parts are gone by now changes nothing. */
export function applyRemedy(netlist: Netlist, catalogue: Catalogue, remedy: Remedy): Netlist {
  switch (remedy.kind) {
    case 'insert': {
      const added = addPart(netlist, catalogue, { entryId: remedy.entryId, settings: remedy.settings });
      const inEnd = { part: added.id, terminal: remedy.inTerminal };
      const outEnd = { part: added.id, terminal: remedy.outTerminal };
      const moved = connect(moveEnd(added.netlist, remedy.at, inEnd), outEnd, remedy.at);
      return remedy.ground ? connect(moved, { part: added.id, terminal: 'gnd' }, remedy.ground) : moved;
    }
    case 'bridge': {
      const added = addPart(netlist, catalogue, { entryId: remedy.entryId, settings: remedy.settings });
      return Object.entries(remedy.ends).reduce(
        (next, [terminal, end]) => connect(next, { part: added.id, terminal }, end),
        added.netlist,
      );
    }
    case 'shift':
      return insertShifter(netlist, catalogue, remedy);
    case 'set-fact': {
      const part = byId(netlist.parts, remedy.part);
      return part
        ? changePart(netlist, part.id, { settings: { ...part.settings, [remedy.key]: remedy.value } })
        : netlist;
    }
    case 'set-address':
      return changePart(netlist, remedy.part, { address: remedy.address });
    case 'set-area':
      return changeCable(netlist, remedy.cable, { areaMm2: remedy.areaMm2 });
    case 'add-wire':
      return connect(netlist, remedy.from, remedy.to);
    case 'move':
      return moveEnd(netlist, remedy.from, remedy.to);
    case 'feed':
      return rewired(netlist, remedy.at, remedy.from);
    case 'rewire':
      return Object.entries(remedy.ends).reduce(
        (next, [terminal, end]) => rewired(next, { part: remedy.part, terminal }, end),
        netlist,
      );
    case 'swap': {
      const swapped = (end: End) =>
        isSameEnd(end, remedy.one) ? remedy.other : isSameEnd(end, remedy.other) ? remedy.one : end;
      return {
        ...netlist,
        wires: netlist.wires.map((wire) => ({ ...wire, from: swapped(wire.from), to: swapped(wire.to) })),
      };
    }
    case 'replace':
      return replacePart(netlist, catalogue, remedy.part, remedy.entryId);
    case 'add-part':
      return addPart(netlist, catalogue, { entryId: remedy.entryId, boardId: remedy.boardId }).netlist;
  }
}

/** Another entry for a part; wires go to the terminal of the same id, else of the same type, else they fall off. */
export function replacePart(
  netlist: Netlist,
  catalogue: Catalogue,
  partId: string,
  entryId: string,
): Netlist {
  const part = byId(netlist.parts, partId);
  const before = part && catalogue.get(part.entryId);
  const after = catalogue.get(entryId);
  if (!part || !after) return netlist;
  const goes = new Map<string, string>();
  for (const terminal of before?.terminals ?? []) {
    const to =
      byId(after.terminals, terminal.id) ??
      after.terminals.find((one) => one.type === terminal.type && ![...goes.values()].includes(one.id));
    if (to) goes.set(terminal.id, to.id);
  }
  const moved = (end: End): End | null =>
    end.part !== partId
      ? end
      : goes.has(end.terminal)
        ? { part: partId, terminal: goes.get(end.terminal) ?? '' }
        : null;
  const wires = netlist.wires.flatMap((wire) => {
    const from = moved(wire.from);
    const to = moved(wire.to);
    return from && to ? [{ ...wire, from, to }] : [];
  });
  return changePart({ ...netlist, wires }, partId, {
    entryId,
    settings: {},
    address:
      part.address !== null && after.addresses.includes(part.address)
        ? part.address
        : (after.addresses[0] ?? null),
  });
}

function insertShifter(
  netlist: Netlist,
  catalogue: Catalogue,
  of: Extract<Remedy, { kind: 'shift' }>,
): Netlist {
  const wired = (end: End) =>
    netlist.wires.some((wire) => isSameEnd(wire.from, end) || isSameEnd(wire.to, end));
  const joined = (one: End, other: End) =>
    netlist.wires.some(
      (wire) =>
        (isSameEnd(wire.from, one) && isSameEnd(wire.to, other)) ||
        (isSameEnd(wire.from, other) && isSameEnd(wire.to, one)),
    );
  const lineOf = (part: string) =>
    [1, 2, 3, 4].find((n) => !wired({ part, terminal: `lv${n}` }) && !wired({ part, terminal: `hv${n}` }));
  // A shifter between the same two supplies with a line to spare is used before a new one is added.
  const spare = netlist.parts.find(
    (part) =>
      catalogue.get(part.entryId)?.role === 'level shifter' &&
      joined({ part: part.id, terminal: 'lv' }, of.low) &&
      joined({ part: part.id, terminal: 'hv' }, of.high) &&
      lineOf(part.id) !== undefined,
  );
  const start = spare ? { netlist, id: spare.id } : addPart(netlist, catalogue, { entryId: 'level-shifter' });
  const line = spare ? (lineOf(spare.id) ?? 1) : 1;
  const end = (terminal: string): End => ({ part: start.id, terminal });
  let next = moveEnd(start.netlist, of.at, end(`hv${line}`));
  next = connect(next, of.at, end(`lv${line}`));
  next = connect(next, end('lv'), of.low);
  next = connect(next, end('hv'), of.high);
  return connect(next, end('gnd'), of.ground);
}
