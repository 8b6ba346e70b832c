/** In which order a wiring is built at the bench: everything off, the grounds, the supplies, the signals; then what is measured before, and behind, the switch. */
import { isType, type Circuit } from './circuit.ts';
import { measuresOf, type Measure } from './measures.ts';
import { endKey, type Cable, type End, type Wire } from './netlist.ts';

export type WireKind = 'supply' | 'ground' | 'signal';

/** What a wire is for: a ground wherever one of its ends is one, a supply where it comes from one or through a fuse. */
export function wireKind(circuit: Circuit, { from, to }: Pick<Wire, 'from' | 'to'>): WireKind {
  const spots = [from, to].flatMap((end) => {
    const placed = circuit.parts.get(end.part);
    return placed?.spots.filter((spot) => spot.terminal.id === end.terminal) ?? [];
  });
  if (spots.some((spot) => spot.terminal.type === 'ground')) return 'ground';
  return spots.some(
    (spot) =>
      isType(spot, 'supply out') ||
      (isType(spot, 'load') && spot.terminal.side === 'plus') ||
      spot.placed.entry.role === 'fuse',
  )
    ? 'supply'
    : 'signal';
}

export type BuildStep = {
  /** By its ends, so that a tick goes with a wire that was led elsewhere, and stays with one that was not. */
  readonly id: string;
} & (
  | { readonly kind: 'off' }
  | {
      readonly kind: 'wire';
      readonly of: WireKind;
      /** As in the table and on paper, from 1. */
      readonly number: number;
      readonly from: End;
      readonly to: End;
      readonly cable: Cable | null;
    }
  | ({ readonly kind: 'measure' } & Measure)
);

const ORDER: readonly WireKind[] = ['ground', 'supply', 'signal'];

/** Every wire once, in the order of the bench, and behind them what is measured. */
export function buildSteps(circuit: Circuit): BuildStep[] {
  const { wires } = circuit.netlist;
  if (wires.length === 0) return [];
  const wired = wires.map((wire, at): BuildStep & { readonly kind: 'wire' } => ({
    id: `wire ${endKey(wire.from)} ${endKey(wire.to)}`,
    kind: 'wire',
    of: wireKind(circuit, wire),
    number: at + 1,
    from: wire.from,
    to: wire.to,
    cable: wire.cableId === null ? null : (circuit.cables.get(wire.cableId) ?? null),
  }));
  return [
    { id: 'off', kind: 'off' },
    ...ORDER.flatMap((kind) => wired.filter(({ of }) => of === kind)),
    ...measuresOf(circuit).map((measure): BuildStep => ({
      id: `measure ${measure.stage}, ${measure.red}, ${measure.black}`,
      kind: 'measure',
      ...measure,
    })),
  ];
}

/** The first step that is not ticked, from a place on, then from the beginning; null when all are. */
export function nextStep(
  steps: readonly BuildStep[],
  isDone: (id: string) => boolean,
  from = 0,
): number | null {
  const order = [...steps.keys()].map((at) => (at + from) % steps.length);
  return order.find((at) => !isDone(steps[at]?.id ?? '')) ?? null;
}
