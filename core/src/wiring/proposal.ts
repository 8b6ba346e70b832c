/** A proposal as a list of single changes with their reasons, any of which may be left out. */
import type { Catalogue } from '../catalogue/catalogue.ts';
import { FACTS, type FactKey } from '../catalogue/facts.ts';
import { formatNumber } from '../quantity/format.ts';
import { type Circuit, type Spot, hasRole, isType, readCircuit } from './circuit.ts';
import { inV, nameOf } from './look.ts';
import { isSameEnd, type Netlist, type Part, type Wire } from './netlist.ts';

export type Change = {
  /** Stays the same while others are left out. */
  readonly id: string;
  readonly what: string;
  readonly why: string;
} & (
  | { readonly kind: 'part added'; readonly part: Part }
  | { readonly kind: 'part changed'; readonly part: Part }
  | { readonly kind: 'wire added'; readonly wire: Wire }
  | { readonly kind: 'wire moved'; readonly wire: Wire }
  | { readonly kind: 'wire removed'; readonly wire: Wire }
);

/** @param why what the checks said of a part that was added or changed, by part id */
export function changesOf(
  before: Netlist,
  after: Netlist,
  catalogue: Catalogue,
  why: ReadonlyMap<string, string>,
): Change[] {
  const [was, is] = [readCircuit(before, catalogue), readCircuit(after, catalogue)];
  const held = new Map(before.parts.map((part) => [part.id, part]));
  const parts = after.parts.flatMap((part): Change[] => {
    const old = held.get(part.id);
    const reason = why.get(part.id) ?? 'The checks ask for it.';
    if (!old)
      return [
        {
          kind: 'part added',
          id: `part ${part.id}`,
          part,
          what: `${part.label}: ${entryText(is, part)}`,
          why: reason,
        },
      ];
    const facts = changedFacts(old, part);
    return facts.length === 0 && old.address === part.address
      ? []
      : [
          {
            kind: 'part changed',
            id: `part ${part.id}`,
            part,
            what: `${part.label}: ${facts.join(', ') || `address ${part.address ?? '–'}`}`,
            why: reason,
          },
        ];
  });
  const wires = new Map(before.wires.map((wire) => [wire.id, wire]));
  const drawn = after.wires.flatMap((wire): Change[] => {
    const old = wires.get(wire.id);
    const of = { wire, id: `wire ${wire.id}`, what: wireText(is, wire), why: reasonOf(is, wire) };
    if (!old) return [{ kind: 'wire added', ...of }];
    return isSameEnd(old.from, wire.from) && isSameEnd(old.to, wire.to)
      ? []
      : [{ kind: 'wire moved', ...of, what: `${wireText(was, old)} goes to ${wireText(is, wire)}` }];
  });
  const gone = before.wires
    .filter((wire) => !after.wires.some((one) => one.id === wire.id))
    .map((wire): Change => ({
      kind: 'wire removed',
      wire,
      id: `wire ${wire.id}`,
      what: wireText(was, wire),
      why: 'Something else goes between.',
    }));
  return [...parts, ...drawn, ...gone];
}

/** The wiring with those of the changes that are taken; a wire to a part that was left out is left out with it. */
export function withChanges(
  before: Netlist,
  after: Netlist,
  changes: readonly Change[],
  taken: ReadonlySet<string>,
): Netlist {
  const left = changes.filter((change) => !taken.has(change.id));
  if (left.length === 0) return after;
  const ids = (kind: Change['kind']) =>
    new Set(left.filter((change) => change.kind === kind).map((change) => change.id));
  const [noParts, noWires] = [ids('part added'), ids('wire added')];
  const old = <Item extends { id: string }>(list: readonly Item[], id: string) =>
    list.find((one) => one.id === id);
  const parts = after.parts
    .filter((part) => !noParts.has(`part ${part.id}`))
    .map((part) =>
      ids('part changed').has(`part ${part.id}`) ? (old(before.parts, part.id) ?? part) : part,
    );
  const there = new Set(parts.map((part) => part.id));
  const wires = [
    ...after.wires
      .filter((wire) => !noWires.has(`wire ${wire.id}`))
      .map((wire) =>
        ids('wire moved').has(`wire ${wire.id}`) ? (old(before.wires, wire.id) ?? wire) : wire,
      ),
    ...left.flatMap((change) => (change.kind === 'wire removed' ? [change.wire] : [])),
  ].filter((wire) => there.has(wire.from.part) && there.has(wire.to.part));
  const used = new Set(wires.map((wire) => wire.cableId));
  return {
    parts,
    wires,
    cables: after.cables.filter(
      (cable) => used.has(cable.id) || before.cables.some((one) => one.id === cable.id),
    ),
  };
}

const entryText = (circuit: Circuit, part: Part): string => {
  const placed = circuit.parts.get(part.id);
  const facts = Object.entries(part.settings).flatMap(([key, value]) =>
    value === null || value === undefined ? [] : [factText(key as FactKey, value)],
  );
  return [placed?.entry.name ?? part.entryId, ...facts].join(', ');
};

const factText = (key: FactKey, value: number): string => {
  const { unit, decimals } = FACTS[key];
  return `${formatNumber(value, value % 1 === 0 ? 0 : decimals)}${unit === '' ? '' : ` ${unit}`}`;
};

const changedFacts = (old: Part, part: Part): string[] =>
  (Object.keys(part.settings) as FactKey[]).flatMap((key) => {
    const value = part.settings[key];
    return value === old.settings[key] || value === null || value === undefined
      ? []
      : [`${FACTS[key].name} ${factText(key, value)}`];
  });

const spotOf = (circuit: Circuit, end: Wire['from']): Spot | null =>
  circuit.parts.get(end.part)?.spots.find((spot) => spot.terminal.id === end.terminal) ?? null;

function wireText(circuit: Circuit, wire: Wire): string {
  const [from, to] = [spotOf(circuit, wire.from), spotOf(circuit, wire.to)];
  return `${from ? nameOf(from) : wire.from.part} – ${to ? nameOf(to) : wire.to.part}`;
}

/** Why a wire is there, told from its two ends. */
function reasonOf(circuit: Circuit, wire: Wire): string {
  const ends = [spotOf(circuit, wire.from), spotOf(circuit, wire.to)].flatMap((spot) => spot ?? []);
  const has = (of: (spot: Spot) => boolean) => ends.find(of);
  const fed = has(
    (spot) => isType(spot, 'supply in') || (isType(spot, 'loop') && spot.terminal.side === 'plus'),
  );
  if (fed) {
    const volts = circuit.netOf(fed.end).level?.volts ?? null;
    return `Feeds ${fed.placed.part.label}${volts === null ? '' : ` with ${inV(volts)}`}.`;
  }
  if (has((spot) => hasRole(spot.placed, 'fuse'))) return 'The way from the battery goes through its fuse.';
  const load = has((spot) => isType(spot, 'load'));
  if (load)
    return isType(load, 'load') && load.terminal.side === 'plus'
      ? `Plus of ${load.placed.part.label}.`
      : `${load.placed.part.label} is switched here.`;
  const ground = ends.filter((spot) => isType(spot, 'ground'));
  if (ground.length > 0) {
    const part = ground.find((spot) => !hasRole(spot.placed, 'board', 'battery', 'supply')) ?? ground[0];
    return `The way back for the current of ${part?.placed.part.label ?? 'it'}.`;
  }
  const pin = has((spot) => isType(spot, 'pin') || isType(spot, 'analog in'));
  const other = ends.find((spot) => spot !== pin);
  if (pin && other)
    return ['digital in', 'control', 'uart in'].includes(other.terminal.type)
      ? `${nameOf(pin)} drives ${other.placed.part.label}.`
      : ['i2c', 'one-wire'].includes(other.terminal.type)
        ? `${other.placed.part.label} talks over this line.`
        : `${other.placed.part.label} is read at ${nameOf(pin)}.`;
  return `Joins ${ends.map((spot) => spot.placed.part.label).join(' and ')}.`;
}
