/** The catalogue in use: the built-in entries, with a person's own ones added or put in their place. */
import { BOARDS } from './boards.ts';
import { OUTPUTS } from './outputs.ts';
import { PROBES } from './probes.ts';
import type { Entry } from './schema.ts';
import { SMALL } from './small.ts';

export const BUILT_IN: readonly Entry[] = [...PROBES, ...BOARDS, ...OUTPUTS, ...SMALL];

export type Catalogue = ReadonlyMap<string, Entry>;

/** An own entry with the id of a built-in one stands in its place. */
export const catalogueWith = (own: readonly Entry[]): Catalogue =>
  new Map([...BUILT_IN, ...own].map((entry) => [entry.id, entry]));
