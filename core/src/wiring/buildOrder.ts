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
  /** Of a wire by its ends, so that a tick goes with one that was led elsewhere; of what is measured by all wires, for a changed wiring has not been measured. */
  readonly id: string;
} & (
  | { readonly kind: 'off' }
  | {
      readonly kind: 'wire';
      readonly wireId: string;
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
    wireId: wire.id,
    of: wireKind(circuit, wire),
    number: at + 1,
    from: wire.from,
    to: wire.to,
    cable: wire.cableId === null ? null : (circuit.cables.get(wire.cableId) ?? null),
  }));
  const wiring = fingerprint(
    wired
      .map(({ id }) => id)
      .toSorted()
      .join('\n'),
  );
  return [
    { id: 'off', kind: 'off' },
    ...ORDER.flatMap((kind) => wired.filter(({ of }) => of === kind)),
    ...measuresOf(circuit).map((measure): BuildStep => ({
      id: `measure ${wiring} ${fingerprint(`${measure.stage}\n${measure.red}\n${measure.black}`)}`,
      kind: 'measure',
      ...measure,
    })),
  ];
}

/** A text in a few letters (FNV-1a, 32 bits): to see that it changed, not to keep anything safe. */
function fingerprint(text: string): string {
  let hash = 0x81_1c_9d_c5;
  for (let at = 0; at < text.length; at += 1) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01_00_01_93);
  return (hash >>> 0).toString(36);
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
