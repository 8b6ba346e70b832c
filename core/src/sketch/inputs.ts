/** What a board reads by its pins: its channels as inputs of its program, or why one of them cannot be read. */
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import type { Quantity } from '../quantity/quantities.ts';
import type { Reads, SketchInput, SketchProblem } from './plan.ts';
import { pinOfName, pinPairOfName } from './pins.ts';

/** What an input gives by its pins. Everything else speaks over a bus. */
const READ_BY: Partial<Readonly<Record<Quantity, Reads>>> = {
  moisture: 'analog',
  light: 'analog',
  level: 'analog',
  distance: 'distance',
  'moisture switch': 'digital',
  rain: 'digital',
  'skip switch': 'digital',
  'battery voltage': 'volts',
};

export type ReadInput = { readonly channel: Channel; readonly input: SketchInput | SketchProblem };
export const isInput = (one: SketchInput | SketchProblem): one is SketchInput => 'reads' in one;

/** Every channel of a board, as its program reads it. */
export const readInputs = (garden: Garden, boardId: string): readonly ReadInput[] =>
  garden.channels
    .filter((one) => one.boardId === boardId)
    .map((channel) => ({ channel, input: inputOf(garden, channel) }));

/** A float that is a contact, not a level. */
const isFloat = (garden: Garden, channel: Channel): boolean =>
  garden.reservoirs.some(
    (tank) => tank.channelId === channel.id && tank.kind === 'float' && tank.float.threshold <= 1,
  );

function readsOf(garden: Garden, channel: Channel): Reads | null {
  if (isFloat(garden, channel)) return 'digital';
  const kind = byId(garden.probes, channel.probeId)?.kind;
  if (channel.quantity === 'soil temperature' || channel.quantity === 'air temperature') {
    if (kind === 'digital thermometer') return 'one-wire';
    // A thermistor prints the counts of its divider; its curve is the garden's.
    return kind === 'thermistor' || channel.correction.kind === 'thermistor' ? 'analog' : null;
  }
  return READ_BY[channel.quantity] ?? null;
}

function inputOf(garden: Garden, channel: Channel): SketchInput | SketchProblem {
  const probe = byId(garden.probes, channel.probeId);
  const what = channel.label || probe?.label || channel.quantity;
  const reads = readsOf(garden, channel);
  if (!reads || probe?.bus) return { kind: 'kind-not-written', what, sheet: 'bench/readout' };
  if (!NAME.test(channel.streamName)) return { kind: 'no-name', what, sheet: 'bench/readout' };
  const common = { channelId: channel.id, name: channel.streamName, label: what, reads };
  const channelId = channel.id;
  if (reads === 'distance') {
    const pair = pinPairOfName(channel.pin);
    return pair
      ? { ...common, pin: pair[0], second: pair[1] }
      : { kind: 'no-input-pin', what, sheet: 'bench/readout', channelId, pins: 2 };
  }
  const pin = pinOfName(channel.pin);
  return pin
    ? { ...common, pin }
    : { kind: 'no-input-pin', what, sheet: 'bench/readout', channelId, pins: 1 };
}

/** Names that a line of the board can carry, and a string of its program as well. */
const NAME = /^[A-Za-z][A-Za-z0-9_.-]{0,59}$/;
