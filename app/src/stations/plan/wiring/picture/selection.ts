/** What is chosen of the wiring, in a picture, a list or on paper, and what is lit by it. */
import type { Netlist } from '@plain-trowel/core/wiring/netlist';

export type Selected = { readonly kind: 'part' | 'wire'; readonly id: string } | null;
/** The terminals of a finding and the wires on their nets. */
export type Lit = {
  readonly ends: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  /** The part that it is about, where it is about one. */
  readonly about: string | null;
  /** What a wire carries, by its id: "5.0 mA". */
  readonly says: ReadonlyMap<string, string>;
};

/** The wires that a choice lights: itself, or all that end at the part. */
export const wiresOf = (selected: Selected, { wires }: Netlist): ReadonlySet<string> =>
  new Set(
    wires.flatMap(({ id, from, to }) =>
      selected?.kind === 'wire'
        ? selected.id === id
          ? [id]
          : []
        : selected && (from.part === selected.id || to.part === selected.id)
          ? [id]
          : [],
    ),
  );
