/**
 * A wiring as a picture: each part is a strip with its terminals on two sides, set out in columns from the supply to the plants. This file says
 * what is drawn and how large; where it stands is the layout's work.
 */
import type { FactKey } from '@plain-trowel/core/catalogue/facts';
import type { Role, Terminal } from '@plain-trowel/core/catalogue/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { inOhm } from '@plain-trowel/core/wiring/look';
import { endName } from '../ends.ts';
import { fact, type Circuit, type Placed } from '@plain-trowel/core/wiring/circuit';
import { endKey, type Cable, type ColourTag, type End, type Wire } from '@plain-trowel/core/wiring/netlist';
import { wireKind, type WireKind } from '@plain-trowel/core/wiring/buildOrder';
import { marksOf, padOf, symbolWires, type Mark } from './marks.ts';

export type Side = 'left' | 'right';
type StripTerminal = {
  readonly id: string;
  readonly name: string;
  readonly side: Side;
  readonly row: number;
  /** What stands outside beside it: the numbers of its wires, and the symbol of a supply or ground that is not drawn as lines. */
  readonly mark: Mark | null;
};
export type Strip = {
  readonly id: string;
  readonly label: string;
  readonly name: string;
  readonly colour: ColourTag;
  readonly isBoard: boolean;
  /** A small part, drawn as a chip: its value instead of what it is. */
  readonly isChip: boolean;
  readonly column: number;
  readonly terminals: readonly StripTerminal[];
  /** Pins with nothing on them that are not drawn. */
  readonly hidden: number;
  readonly width: number;
  readonly height: number;
  /** Room that the marks take on either side, px. */
  readonly pad: Readonly<Record<Side, number>>;
  readonly at: { readonly x: number; readonly y: number } | null;
};
export type Strand = {
  readonly id: string;
  /** As in the table, in the steps of building and on paper, from 1. */
  readonly number: number;
  /** Number, both ends, and the cable: "Wire 12: Roof board P34 – L1 signal, cable L1, yellow". */
  readonly name: string;
  readonly from: End;
  readonly to: End;
  readonly kind: WireKind;
  readonly colour: ColourTag;
  /** Name and colour of its cable, on one wire of each: "L1 yellow". */
  readonly tag: string | null;
  /** A short symbol at both ends stands for it, unless it is lit: supplies and grounds run everywhere, and lines of them hide the others. */
  readonly isSymbol: boolean;
};
export type Picture = { readonly strips: readonly Strip[]; readonly strands: readonly Strand[] };
export type Shown = 'all' | 'signals' | 'supply';

export const STRIP = {
  width: 158,
  boardWidth: 190,
  chipWidth: 104,
  wideChip: 148,
  head: 36,
  chipHead: 22,
  row: 18,
  foot: 6,
} as const;

/** From the supply at the left to the plants at the right. */
const COLUMNS: readonly (readonly Role[])[] = [
  ['battery', 'supply'],
  ['fuse', 'regulator', 'solar'],
  ['board'],
  [
    'resistor',
    'divider',
    'pull-ups',
    'shunt',
    'level shifter',
    'transceiver',
    'MOSFET',
    'transistor',
    'relay',
    'driver module',
    'converter',
    'expander',
    'battery monitor',
    'diode',
  ],
];
const columnOf = (role: Role): number => {
  const found = COLUMNS.findIndex((roles) => roles.includes(role));
  return found < 0 ? COLUMNS.length : found;
};

/** Terminals that look towards the plants; all others look back to the supply. */
function sideOf(role: Role, terminal: Terminal): Side {
  if (terminal.type === 'pin' || terminal.type === 'supply out' || terminal.type === 'analog in')
    return 'right';
  if (role === 'fuse' || role === 'resistor') return terminal.id === 'a' ? 'left' : 'right';
  if (role === 'divider' || role === 'battery monitor') return terminal.id === 'in' ? 'right' : 'left';
  if (role === 'pull-ups') return terminal.id === 'up' ? 'left' : 'right';
  if (role === 'level shifter') return terminal.id.startsWith('hv') ? 'right' : 'left';
  if (role === 'battery' || role === 'supply') return 'right';
  if (terminal.type === 'switched' || terminal.type === 'loop')
    return terminal.type === 'switched' ? 'right' : 'left';
  if (role === 'transceiver' && terminal.type === 'rs485') return 'right';
  if (role === 'diode') return 'right';
  return 'left';
}

/** @param allPins boards show the pins that nothing uses as well */
export function pictureOf(circuit: Circuit, shown: Shown, allPins: boolean): Picture {
  const used = new Set(circuit.netlist.wires.flatMap(({ from, to }) => [endKey(from), endKey(to)]));
  const there = new Set(
    [...circuit.parts.values()].flatMap(({ spots }) => spots.map(({ end }) => endKey(end))),
  );
  const symbols = shown === 'all' ? symbolWires(circuit) : new Set<string>();
  const tagged = new Set<string>();
  const strands = circuit.netlist.wires.flatMap((wire, at): Strand[] => {
    const kind = wireKind(circuit, wire);
    if ((shown === 'signals' && kind !== 'signal') || (shown === 'supply' && kind === 'signal')) return [];
    if (!there.has(endKey(wire.from)) || !there.has(endKey(wire.to))) return [];
    const isSymbol = symbols.has(wire.id);
    const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
    // Once for each cable, on the first of its wires that is a line.
    const tag = cable && !isSymbol && !tagged.has(cable.id) ? tagOf(cable) : null;
    if (tag !== null && cable) tagged.add(cable.id);
    return [
      {
        id: wire.id,
        number: at + 1,
        name: `Wire ${at + 1}: ${nameOfWire(circuit, wire)}`,
        from: wire.from,
        to: wire.to,
        kind,
        colour: cable?.colour ?? 'none',
        tag,
        isSymbol,
      },
    ];
  });
  const marks = marksOf(circuit, strands);
  const strips = [...circuit.parts.values()].map((placed) => stripOf(placed, used, marks, allPins));
  return { strips, strands };
}

const tagOf = ({ label, colour }: Cable): string => (colour === 'none' ? label : `${label} ${colour}`);

function nameOfWire(circuit: Circuit, wire: Wire): string {
  const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
  const tag = cable && cable.colour !== 'none' ? `, ${cable.colour}` : '';
  return `${endName(circuit, wire.from)} – ${endName(circuit, wire.to)}${cable ? `, cable ${cable.label}${tag}` : ''}`;
}

const CHIPS = new Set<Role>(['resistor', 'diode', 'fuse', 'divider', 'pull-ups', 'shunt']);
/** Drawn as a chip. */
export const isSmall = (role: Role): boolean => CHIPS.has(role);
const headOf = (isChip: boolean): number => (isChip ? STRIP.chipHead : STRIP.head);

/** The value a small part is taken by: "180 Ω", "5 A". */
export function valueOf(placed: Placed): string {
  const known = (key: FactKey, write: (value: number) => string) => {
    const value = fact(placed, key);
    return value === null ? [] : [write(value)];
  };
  const told = [
    ...known('ohm', inOhm),
    ...known('upperOhm', inOhm),
    ...known('lowerOhm', inOhm),
    ...known('fuseA', (amps) => `${formatNumber(amps, amps % 1 === 0 ? 0 : 1)} A`),
  ];
  return told.join(' / ');
}

function stripOf(
  placed: Placed,
  used: ReadonlySet<string>,
  marks: ReadonlyMap<string, Mark>,
  allPins: boolean,
): Strip {
  const { part, entry } = placed;
  const drawn = entry.terminals.filter(
    (terminal) => allPins || terminal.type !== 'pin' || used.has(`${part.id}.${terminal.id}`),
  );
  const rows = { left: 0, right: 0 };
  const terminals = drawn.map((terminal): StripTerminal => {
    const side = sideOf(entry.role, terminal);
    const row = rows[side];
    rows[side] += 1;
    const mark = marks.get(`${part.id}.${terminal.id}`) ?? null;
    return { id: terminal.id, name: terminal.name, side, row, mark };
  });
  const isBoard = entry.role === 'board';
  const isChip = isSmall(entry.role);
  const hidden = entry.terminals.length - drawn.length;
  const name = isChip ? valueOf(placed) : entry.name;
  return {
    id: part.id,
    label: part.label,
    name,
    colour: part.colour,
    isBoard,
    isChip,
    column: columnOf(entry.role),
    terminals,
    hidden,
    width: isBoard
      ? STRIP.boardWidth
      : isChip
        ? name.length > 8
          ? STRIP.wideChip
          : STRIP.chipWidth
        : STRIP.width,
    height:
      headOf(isChip) +
      Math.max(1, rows.left, rows.right) * STRIP.row +
      (hidden > 0 ? STRIP.row : 0) +
      STRIP.foot,
    pad: { left: padOf(terminals, 'left'), right: padOf(terminals, 'right') },
    at: part.at,
  };
}

/** Height of a terminal's middle below its strip's upper edge. */
export const terminalY = (strip: { readonly isChip: boolean }, row: number): number =>
  headOf(strip.isChip) + row * STRIP.row + STRIP.row / 2;
