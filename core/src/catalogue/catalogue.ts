/**
 * The catalogue in use: the built-in entries, with a person's own ones added or put in their place.
 *
 * The built-in entries are a catalogue file like any other (docs/CATALOGUE.md); that it fits the schema is a test's work, so that no page
 * has to prove it again at each start.
 */
import builtIn from './builtIn.json' with { type: 'json' };
import { remembered } from '../quantity/remembered.ts';
import type { Entry } from './schema.ts';

export const BUILT_IN = builtIn.entries as unknown as readonly Entry[];

export type Catalogue = ReadonlyMap<string, Entry>;

/** An own entry with the id of a built-in one stands in its place. */
export const catalogueWith = remembered(
  (own: readonly Entry[]): Catalogue => new Map([...BUILT_IN, ...own].map((entry) => [entry.id, entry])),
);
