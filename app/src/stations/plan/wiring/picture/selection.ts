/** What is chosen in a picture of the wiring, and what is lit in it. */
export type Selected = { readonly kind: 'part' | 'wire'; readonly id: string } | null;
/** The terminals of a finding and the wires on their nets. */
export type Lit = { readonly ends: ReadonlySet<string>; readonly wires: ReadonlySet<string> };
