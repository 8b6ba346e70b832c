/** Probes on a board's RS-485 bus: the pins of its transceiver, what each probe is asked for, and which word of its answer a channel is. */
import { mapOf, type RegisterMap } from '../bus/registers.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import { hasRole, isType, spotsOf, type Circuit, type Placed, type Spot } from '../wiring/circuit.ts';
import { others } from '../wiring/look.ts';
import { pinOn, pinThatDrives } from '../wiring/pinUse.ts';
import { pinOfName, type Pin } from './pins.ts';
import type { Decimals, SketchBus, SketchRegister } from './plan.ts';

type Field = RegisterMap['fields'][number];
/** Words of one register, scaled by a power of ten: everything that cheap probes give. */
const decimalsOf = ({ type, scale, offset }: Field): Decimals | null => {
  const places = ([0, 1, 2, 3] as const).find((one) => Math.abs(scale * 10 ** one - 1) < 1e-9);
  return offset === 0 && (type === 'int16' || type === 'uint16') ? (places ?? null) : null;
};

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
    probes: probes.map(({ address, map }) => {
      const registers = map.fields.map((field) => field.register);
      const first = Math.min(...registers);
      return {
        address,
        function: map.readFunction,
        register: first,
        count: Math.max(...registers) - first + 1,
      };
    }),
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
  const place = bus.probes.findIndex((one) => one.address === probe?.bus?.address);
  const asked = bus.probes[place];
  const field = map?.fields.find(({ name }) => channel.streamName.endsWith(`.${name}`));
  const decimals = field ? decimalsOf(field) : null;
  if (!asked || !field || decimals === null) return null;
  return {
    probe: place,
    word: field.register - asked.register,
    isSigned: field.type === 'int16',
    decimals,
  };
}
