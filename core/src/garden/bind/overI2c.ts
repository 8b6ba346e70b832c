/** Channels that a board reads over I2C: from a part itself, or from the input of a converter that the part is wired to. */
import { catalogueWith } from '../../catalogue/catalogue.ts';
import type { Entry } from '../../catalogue/schema.ts';
import type { I2cRead } from '../../catalogue/i2cTalk.ts';
import { byId } from '../../quantity/byId.ts';
import type { Quantity } from '../../quantity/quantities.ts';
import { remembered } from '../../quantity/remembered.ts';
import { fact, hasRole, isType, spotsOf, type Circuit, type Placed } from '../../wiring/circuit.ts';
import { others } from '../../wiring/look.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { gardenCircuit, partOfChannel } from './gardenCircuit.ts';

/** What is asked for a channel, and at which part; null where its entry does not say how it is asked. */
export type I2cRoute = {
  /** The part that speaks: a sensor, or a converter. */
  readonly placed: Placed;
  readonly read: I2cRead | null;
};

const GIVES: Partial<Readonly<Record<Quantity, I2cRead['gives']>>> = {
  moisture: 'moisture',
  'soil humidity': 'humidity',
  'soil temperature': 'temperature',
  'air temperature': 'temperature',
  light: 'light',
};

const speaksI2c = (placed: Placed): boolean => isReadOverI2c(placed.entry);
const isReadOverI2c = (entry: Entry | undefined): boolean =>
  entry !== undefined && entry.role !== 'display' && entry.terminals.some(({ type }) => type === 'i2c');

/** The converter that a part's voltage goes to, and the name of its input. */
function converterOf(circuit: Circuit, placed: Placed): { placed: Placed; terminal: string } | undefined {
  return spotsOf(placed)
    .filter((spot) => isType(spot, 'analog out') || isType(spot, 'lead') || isType(spot, 'loop'))
    .flatMap((spot) => others(circuit, spot))
    .filter((spot) => isType(spot, 'analog in') && hasRole(spot.placed, 'converter'))
    .map((spot) => ({ placed: spot.placed, terminal: spot.terminal.id }))[0];
}

function routeOf(garden: Garden, circuit: Circuit, channel: Channel): I2cRoute | null {
  const part = partOfChannel(garden, channel);
  if (!part) return null;
  if (speaksI2c(part)) {
    const gives = GIVES[channel.quantity];
    const read = part.entry.i2c?.reads.find((one) => one.terminal === null && one.gives === gives);
    return { placed: part, read: read ?? null };
  }
  const converter = converterOf(circuit, part);
  if (!converter) return null;
  const read = converter.placed.entry.i2c?.reads.find((one) => one.terminal === converter.terminal);
  return { placed: converter.placed, read: read ?? null };
}

const routesOf = remembered((garden: Garden): ReadonlyMap<string, I2cRoute> => {
  const catalogue = catalogueWith(garden.catalogue);
  // Most gardens have nothing on such a bus that could be read.
  if (!garden.wiring.parts.some(({ entryId }) => isReadOverI2c(catalogue.get(entryId)))) return new Map();
  const circuit = gardenCircuit(garden);
  return new Map(
    garden.channels.flatMap((channel) => {
      const route = routeOf(garden, circuit, channel);
      return route ? [[channel.id, route] as const] : [];
    }),
  );
});

/** Null for what the board reads by its own pins. */
export const i2cRouteOf = (garden: Garden, channel: Channel): I2cRoute | null =>
  routesOf(garden).get(channel.id) ?? null;

/**
 * What a number over I2C can be, in the channel's own counts: those that its part gives, and of a converter those between nothing and the supply. Null for what is
 * not read like that, or nobody says how.
 */
export function i2cScaleOf(
  garden: Garden,
  channel: Channel,
): { readonly low: number; readonly high: number; readonly isConverter: boolean } | null {
  const route = i2cRouteOf(garden, channel);
  if (!route?.read) return null;
  const { least, most, decimals, gives } = route.read;
  const unit = 10 ** decimals;
  if (gives !== 'input') return { low: least / unit, high: most / unit, isConverter: false };
  const supplyV = byId(garden.boards, channel.boardId)?.supplyV;
  const referenceV = fact(route.placed, 'adcReferenceV');
  const share = supplyV === undefined || referenceV === null ? 1 : Math.min(1, supplyV / referenceV);
  return { low: 0, high: Math.round(most * share), isConverter: true };
}
