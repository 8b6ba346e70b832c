/** What puts a part into the mesh, handed to its model. */
import type { FactKey } from '../../catalogue/facts.ts';
import type { Placed, Spot } from '../circuit.ts';
import type { Device, Law } from './law.ts';

export type Build = {
  readonly placed: Placed;
  /** Node of a terminal of this part; null where it has none of that id. */
  readonly node: (terminalId: string) => number | null;
  readonly nodeAt: (spot: Spot) => number;
  readonly ground: number | null;
  readonly add: (name: string, a: number | null, b: number | null, law: Law) => Device | null;
  /** A fact of the part; where it is not known, a usual figure, and the part is noted. */
  readonly known: (key: FactKey, usual: number) => number;
  readonly knownOf: (value: number | null | undefined, key: FactKey, usual: number) => number;
};
