/** A garden's wiring read as a circuit, and the parts in it that its channels are measured by. */
import { catalogueWith } from '../../catalogue/catalogue.ts';
import { remembered } from '../../quantity/remembered.ts';
import { readCircuit, type Circuit, type Placed } from '../../wiring/circuit.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { partOfBoard } from './standing.ts';

export const gardenCircuit = remembered((garden: Garden): Circuit =>
  readCircuit(garden.wiring, catalogueWith(garden.catalogue)),
);

/** The part that a channel is measured by: its probe, or what its board has of the kind. */
export function partOfChannel(garden: Garden, channel: Channel): Placed | undefined {
  const { parts } = gardenCircuit(garden);
  if (channel.probeId === null) return parts.get(partOfBoard(garden, garden.wiring, channel)?.id ?? '');
  return [...parts.values()].find(
    ({ part }) => part.stands?.list === 'probes' && part.stands.id === channel.probeId,
  );
}
