/** What stands beside the terminals of the picture: numbers of wires, and short symbols where a supply or a ground is not drawn as lines. */
import { wireKind, type WireKind } from '@plain-trowel/core/wiring/buildOrder';
import type { Circuit, Net } from '@plain-trowel/core/wiring/circuit';
import { feederOf } from '@plain-trowel/core/wiring/look';
import { endKey, isSameEnd, type End } from '@plain-trowel/core/wiring/netlist';

export type Mark = {
  /** Null: lines go on from here, and the numbers stand above them. */
  readonly symbol: Exclude<WireKind, 'signal'> | null;
  /** "5 V 3 7": the supply, where it is one, and the numbers of the wires. */
  readonly text: string;
  /** Several wires meet here. */
  readonly isJoin: boolean;
};

/** Of more wires the first are named; the part by itself names all. */
const MOST_NUMBERS = 3;

/** A supply of so few wires is drawn as lines: the way from the battery to the boards. */
const MOST_LINES = 3;

/** The wires that a symbol stands for: every ground, and supplies that go to many places. */
export function symbolWires(circuit: Circuit): ReadonlySet<string> {
  return new Set(
    circuit.netlist.wires.flatMap((wire) => {
      const kind = wireKind(circuit, wire);
      const isSymbol =
        kind === 'ground' || (kind === 'supply' && circuit.netOf(wire.from).wires.length > MOST_LINES);
      return isSymbol ? [wire.id] : [];
    }),
  );
}

/** A supply by the output that it comes from, "5 V", "Battery +"; behind a fuse by the fuse: it is another wire there. */
function netName(net: Net): string {
  const feeder = feederOf(net);
  if (feeder && net.spots.some(({ end }) => isSameEnd(end, feeder.end))) {
    const { name } = feeder.terminal;
    return name === '+' ? `${feeder.placed.part.label} +` : name.replace(/ out$/, '');
  }
  const fuse = net.spots.find(({ placed }) => placed.entry.role === 'fuse');
  return fuse ? `after ${fuse.placed.part.label}` : '';
}

type Numbered = {
  readonly number: number;
  readonly from: End;
  readonly to: End;
  readonly kind: WireKind;
  readonly isSymbol: boolean;
};

/** By terminal. */
export function marksOf(circuit: Circuit, strands: readonly Numbered[]): ReadonlyMap<string, Mark> {
  const at = new Map<string, { readonly end: End; readonly strands: Numbered[] }>();
  for (const strand of strands)
    for (const end of [strand.from, strand.to]) {
      const there = at.get(endKey(end));
      if (there) there.strands.push(strand);
      else at.set(endKey(end), { end, strands: [strand] });
    }
  return new Map(
    [...at].map(([key, { end, strands: here }]) => {
      const numbers = here.map(({ number }) => number);
      const told = numbers.slice(0, MOST_NUMBERS).join(' ');
      const rest = numbers.length - MOST_NUMBERS;
      const kind = here.find(({ isSymbol }) => isSymbol)?.kind ?? 'signal';
      const supply = kind === 'supply' ? netName(circuit.netOf(end)) : '';
      return [
        key,
        {
          symbol: kind === 'signal' ? null : kind,
          text: [supply, told, rest > 0 ? `+${rest}` : ''].filter((one) => one !== '').join(' '),
          isJoin: numbers.length > 1,
        },
      ];
    }),
  );
}

/** A letter of the marks, px. */
const MARK_LETTER = 6.7;
/** Stub and symbol in front of the text, px. */
export const SYMBOL_PX = 26;
const LINE_PX = 6;
const GAP_PX = 6;

/** A mark may be so wide at most, px: what its drawing is given. */
export const MARK_ROOM = 160;

/** Room for the widest mark of one side, px. */
export function padOf(
  terminals: readonly { readonly side: 'left' | 'right'; readonly mark: Mark | null }[],
  side: 'left' | 'right',
): number {
  const widths = terminals.flatMap(({ side: own, mark }) =>
    own === side && mark
      ? [(mark.symbol ? SYMBOL_PX : LINE_PX) + mark.text.length * MARK_LETTER + GAP_PX]
      : [],
  );
  return Math.ceil(Math.max(0, ...widths));
}
