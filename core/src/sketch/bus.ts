/** Probes on a board's RS-485 bus: the pins of its transceiver, what each probe is asked for, and which word of its answer a channel is. */
import { mapOf, planReads, type RegisterMap } from '../bus/registers.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import { hasRole, isType, spotsOf, type Circuit, type Placed, type Spot } from '../wiring/circuit.ts';
import { others } from '../wiring/look.ts';
import { pinOn, pinThatDrives } from '../wiring/pinUse.ts';
import { pinOfName, type Pin } from './pins.ts';
import type { Decimals, SketchBus, SketchRegister, WordKind } from './plan.ts';

type Field = RegisterMap['fields'][number];

const kindOf = ({ type, wordOrder }: Field): WordKind => {
  switch (type) {
    case 'uint16':
    case 'int16':
      return type;
    case 'int32':
    case 'uint32':
      // What a garden's probes count stays far below half of what 32 bits hold.
      return `int32, ${wordOrder}`;
    case 'float32':
      return `float32, ${wordOrder}`;
  }
};

const MOST_FACTOR = 32_767;
/** A factor as one whole number by another, one of them 1; null where it is none such. */
function fractionOf(factor: number): { readonly times: number; readonly per: number } | null {
  const isWhole = (value: number): boolean =>
    Math.abs(value - Math.round(value)) < 1e-6 * Math.abs(value) &&
    Math.round(value) !== 0 &&
    Math.abs(value) <= MOST_FACTOR;
  if (isWhole(factor)) return { times: Math.round(factor), per: 1 };
  return isWhole(1 / factor) && factor > 0 ? { times: 1, per: Math.round(1 / factor) } : null;
}

/** A number with a point has no last decimal of its own. */
const FLOAT_DECIMALS = 2;
const ALL_DECIMALS: readonly Decimals[] = [0, 1, 2, 3];

/** How a register's number becomes a whole number of the last of so many decimals. A percent of a probe's own is reckoned in tenths. Null for a scale that is no such fraction. */
function scaled(field: Field): Pick<SketchRegister, 'decimals' | 'times' | 'per' | 'plus'> | null {
  const isFloat = field.type === 'float32';
  const wanted: readonly Decimals[] =
    field.quantity === 'moisture' ? [1] : isFloat ? [FLOAT_DECIMALS] : ALL_DECIMALS;
  for (const decimals of wanted) {
    const unit = 10 ** decimals;
    const fraction = fractionOf(field.scale * unit);
    const plus = field.offset * unit;
    // A scale below the last decimal would lose what the register says, but where it is wanted so.
    if (fraction && (wanted.length === 1 || fraction.per === 1) && Math.abs(plus - Math.round(plus)) < 1e-6)
      return { decimals, ...fraction, plus: Math.round(plus) };
  }
  return null;
}

/** The probes of a board that have an address, with their maps. */
const busProbes = (garden: Garden, boardId: string) =>
  garden.probes.flatMap(({ id, bus }) => {
    const map = bus && mapOf(garden.registerMaps, bus.mapId);
    const isHere = garden.channels.some((one) => one.probeId === id && one.boardId === boardId);
    return bus && map && isHere ? [{ id, address: bus.address, baud: bus.baud, map }] : [];
  });

/** Null where no probe is on it, or where its transceiver is not drawn up to the pins of the board. */
export function busOf(garden: Garden, boardId: string, circuit: Circuit): SketchBus | null {
  const probes = busProbes(garden, boardId);
  const all = [...circuit.parts.values()];
  const board = all.find(({ part }) => part.stands?.list === 'boards' && part.stands.id === boardId);
  const transceiver = all.find(
    (placed) => hasRole(placed, 'transceiver') && placed.part.boardId === board?.part.id,
  );
  const [first] = probes;
  if (!first || !board || !transceiver) return null;
  const spotOf = (type: 'uart in' | 'uart out' | 'digital in'): Spot | undefined =>
    spotsOf(transceiver).find((spot) => isType(spot, type));
  const [dataIn, dataOut, direction] = [spotOf('uart in'), spotOf('uart out'), spotOf('digital in')];
  const drives = (spot: Spot | undefined): Pin | null => {
    const driver = spot && pinThatDrives(circuit, spot);
    return driver?.placed === board ? pinOfName(driver.terminal.name) : null;
  };
  const tx = drives(dataIn);
  const rx = dataOut ? pinThatHears(circuit, board, dataOut) : null;
  const turns = drives(direction);
  if (!tx || !rx || (direction && !turns)) return null;
  return {
    tx,
    rx,
    direction: turns,
    baud: first.baud,
    // Registers that lie too far apart for one frame are asked for in several.
    probes: probes.flatMap(({ address, map }) =>
      planReads(map, address).map(({ request }) => ({
        address,
        function: request.function,
        register: request.register,
        count: request.count,
      })),
    ),
  };
}

/** On its net, or behind a divider or a level shifter that brings it down to what the pin may have. */
function pinThatHears(circuit: Circuit, board: Placed, from: Spot): Pin | null {
  const near = others(circuit, from);
  const behind = near
    .filter((spot) => hasRole(spot.placed, 'divider', 'resistor'))
    .flatMap((spot) =>
      spotsOf(spot.placed).filter((one) => isType(one, 'lead') && one.terminal.id !== spot.terminal.id),
    )
    .flatMap((spot) => others(circuit, spot));
  const pin = behind.find((spot) => isType(spot, 'pin') && spot.placed === board) ?? pinOn(circuit, from);
  return pin?.placed === board ? pinOfName(pin.terminal.name) : null;
}

/** Which word of which answer a channel is: the field that its stream name ends with. Null where the map has none, or one that is not read. */
export function registerOf(garden: Garden, channel: Channel, bus: SketchBus): SketchRegister | null {
  const probe = byId(garden.probes, channel.probeId);
  const map = probe?.bus && mapOf(garden.registerMaps, probe.bus.mapId);
  const field = map?.fields.find(({ name }) => channel.streamName.endsWith(`.${name}`));
  const how = field && scaled(field);
  const place = bus.probes.findIndex(
    ({ address, register, count }) =>
      field &&
      address === probe?.bus?.address &&
      field.register >= register &&
      field.register < register + count,
  );
  const asked = bus.probes[place];
  if (!asked || !field || !how) return null;
  return { probe: place, word: field.register - asked.register, kind: kindOf(field), ...how };
}
