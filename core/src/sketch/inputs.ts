/** What a board reads by its pins: its channels as inputs of its program, or why one of them cannot be read. */
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import type { Quantity } from '../quantity/quantities.ts';
import { AROUND_STALE_S } from '../control/host/boardEngine.ts';
import { DEFAULT_STALE_S } from '../garden/bind/plotParts.ts';
import { partOfBoard } from '../garden/bind/standing.ts';
import { gardenCircuit, partOfChannel } from '../garden/bind/gardenCircuit.ts';
import { i2cRouteOf } from '../garden/bind/overI2c.ts';
import { readsCounts } from '../garden/bind/scale.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import { hasRole, isType, spotsOf, type Circuit, type Placed } from '../wiring/circuit.ts';
import { driverOf } from '../wiring/pinUse.ts';
import { busOf, registerOf } from './bus.ts';
import { I2cAsks } from './i2c.ts';
import type { Reads, SketchBus, SketchI2c, SketchInput, SketchPower, SketchProblem } from './plan.ts';
import { pinOfName, pinPairOfName, type Pin } from './pins.ts';

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

/** What nobody has measured and no entry says, s. */
const USUAL_WAIT_S = 1;

export type ReadInput = { readonly channel: Channel; readonly input: SketchInput | SketchProblem };
export const isInput = (one: SketchInput | SketchProblem): one is SketchInput => 'reads' in one;

/** Every channel of a board, as its program reads it, and the pins that feed those which are powered only to be read. */
export function readInputs(
  garden: Garden,
  boardId: string,
): {
  readonly read: readonly ReadInput[];
  readonly powers: readonly SketchPower[];
  readonly bus: SketchBus | null;
  readonly i2c: SketchI2c | null;
} {
  const powers: SketchPower[] = [];
  const circuit = gardenCircuit(garden);
  const bus = busOf(garden, boardId, circuit);
  const i2c = new I2cAsks(garden, circuit);
  const read = garden.channels
    .filter((one) => one.boardId === boardId)
    .map((channel): ReadInput => {
      const input = byId(garden.probes, channel.probeId)?.bus
        ? registerInput(garden, channel, bus)
        : (i2c.input(channel, NAME) ?? inputOf(garden, channel));
      // The sensor itself, and the converter that it is read by.
      const fed = [partOfChannel(garden, channel), i2cRouteOf(garden, channel)?.placed].flatMap((one) =>
        one?.part.perReading ? [one] : [],
      );
      const [placed] = fed;
      if (!isInput(input) || !placed) return { channel, input };
      if (input.reads === 'bus')
        return { channel, input: { kind: 'bus-fed', what: input.label, sheet: 'plan/wiring' } };
      const pins = fed.map((one) => powerPin(circuit, one));
      const [pin] = pins;
      if (!pin || pins.some((one) => one?.number !== pin.number))
        return { channel, input: { kind: 'no-power-pin', what: input.label, sheet: 'plan/wiring' } };
      const probe = byId(garden.probes, channel.probeId);
      const waitS = Math.max(
        1,
        Math.ceil(probe?.warmUp?.waitS ?? placed.entry.facts.warmUpS ?? USUAL_WAIT_S),
      );
      const everyS = Math.max(waitS + 1, everyOf(garden, channel));
      const known = powers.findIndex((one) => one.pin.kind === pin.kind && one.pin.number === pin.number);
      // Of those that hang on one pin the slowest is waited for, and the most frequent tells the pace.
      const held = powers[known];
      if (held)
        powers[known] = {
          pin,
          waitS: Math.max(held.waitS, waitS),
          everyS: Math.max(Math.max(held.waitS, waitS) + 1, Math.min(held.everyS, everyS)),
        };
      else powers.push({ pin, waitS, everyS });
      return { channel, input: { ...input, power: known < 0 ? powers.length - 1 : known } };
    });
  const isUsed = read.some(({ input }) => isInput(input) && input.reads === 'bus');
  return { read, powers, bus: isUsed ? bus : null, i2c: i2c.all };
}

/** The pin that feeds a part: a pin of the board straight at its supply. */
function powerPin(circuit: Circuit, placed: Placed): Pin | null {
  const supply = spotsOf(placed).find((spot) => isType(spot, 'supply in'));
  const driver = supply && driverOf(circuit, supply);
  return driver && isType(driver, 'pin') && hasRole(driver.placed, 'board')
    ? pinOfName(driver.terminal.name)
    : null;
}

/**
 * As often as the plan says, and twice within the time after which whoever goes by it no longer believes it: a line, a contact, and where a plot has no line its
 * lamps and the page itself.
 */
export function everyOf(garden: Garden, channel: Channel): number {
  const plotId = byId(garden.probes, channel.probeId)?.plotId;
  const inPlot = (one: { readonly plotId: string }): boolean => one.plotId === plotId;
  const lines = garden.waterLines.filter(inPlot);
  const stale = [
    ...(lines.length > 0 ? lines.map((one) => one.staleAfterS) : [DEFAULT_STALE_S]),
    ...garden.contacts.filter(inPlot).map((one) => one.staleAfterS),
    AROUND_STALE_S,
  ];
  return Math.min(garden.plan.supply.everyS, Math.floor(Math.min(...stale) / 2));
}

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
    const part = channel.probeId === null ? partOfBoard(garden, garden.wiring, channel) : undefined;
    const terminals = catalogueOf(garden).get(part?.entryId ?? '')?.terminals ?? [];
    if (terminals.some(({ type }) => type === 'one-wire')) return 'one-wire';
    // A thermistor prints the counts of its divider; its curve is the garden's.
    return kind === 'thermistor' || channel.correction.kind === 'thermistor' ? 'analog' : null;
  }
  if (channel.quantity === 'soil tension') return readsCounts(channel) ? 'analog' : null;
  return READ_BY[channel.quantity] ?? null;
}

function inputOf(garden: Garden, channel: Channel): SketchInput | SketchProblem {
  const probe = byId(garden.probes, channel.probeId);
  const what = channel.label || probe?.label || channel.quantity;
  const reads = readsOf(garden, channel);
  if (!reads && probe?.kind === 'steel-rod bus probe')
    return { kind: 'bus-unknown', what, sheet: 'bench/readout' };
  if (!reads && channel.quantity === 'soil tension')
    return { kind: 'no-tension', what, sheet: 'bench/readout' };
  if (!reads) return { kind: 'kind-not-written', what, sheet: 'bench/readout' };
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

/** A channel of a bus probe: the word that its stream name stands for. */
function registerInput(garden: Garden, channel: Channel, bus: SketchBus | null): SketchInput | SketchProblem {
  const probe = byId(garden.probes, channel.probeId);
  const what = `${probe?.label ?? 'bus probe'}, ${channel.label || channel.quantity}`;
  const register = bus && registerOf(garden, channel, bus);
  // On one pair of wires nobody is heard who speaks at another speed.
  if (bus && probe?.bus && probe.bus.baud !== bus.baud)
    return { kind: 'bus-speeds', what, sheet: 'bench/readout' };
  if (!register) return { kind: 'no-bus', what, sheet: 'plan/wiring' };
  if (!NAME.test(channel.streamName)) return { kind: 'no-name', what, sheet: 'bench/readout' };
  const { channelId, name, label } = { channelId: channel.id, name: channel.streamName, label: what };
  return { channelId, name, label, reads: 'bus', pin: bus.rx, register };
}

/** Names that a line of the board can carry, and a string of its program as well. */
const NAME = /^[A-Za-z][A-Za-z0-9_.-]{0,59}$/;
