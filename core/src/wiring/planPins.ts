/**
 * Plan pins: hands every signal of a board's parts a pin that can do what it asks, all at once.
 *
 * What shares a line (I2C, 1-Wire) counts as one demand. Pins that decide the start or carry the serial line cost much, inputs cost
 * something when a demand does not need one, so that they stay free. Where the demands cannot all be met, the smallest set that is in
 * the way of itself is named, with the part that would resolve it.
 */
import { byId } from '../quantity/byId.ts';
import type { Catalogue } from '../catalogue/catalogue.ts';
import type { PinCap } from '../catalogue/schema.ts';
import { assign } from './assign.ts';
import { capFor } from './pinUse.ts';
import { clientsOf } from './solve/situations.ts';
import { hasRole, isType, readCircuit, spotsOf, type Circuit, type Placed, type Spot } from './circuit.ts';
import { addPart, connect } from './edit.ts';
import { boardOf, listOf, nameOf, others, partsWith } from './look.ts';
import type { End, Netlist } from './netlist.ts';

export type Demand = {
  readonly cap: PinCap;
  /** The terminals to be wired to the pin: one, or all of a bus. */
  readonly spots: readonly Spot[];
};
export type PlannedPin = { readonly end: End; readonly demand: Demand };
export type Blocked = {
  readonly boardId: string;
  readonly cap: PinCap;
  readonly says: string;
  readonly ends: readonly End[];
  /** The part that would make it possible; null when only another board would. */
  readonly fix: { readonly entryId: string; readonly label: string } | null;
};

const SHARED = new Set<PinCap>(['sda', 'scl', 'one-wire']);

/** What a board's parts still want of its pins. */
export function demandsOf(circuit: Circuit, board: Placed): Demand[] {
  const wanting = [...circuit.parts.values()]
    .filter((placed) => placed !== board && boardOf(circuit, placed) === board)
    .flatMap(spotsOf)
    .flatMap((spot): { cap: PinCap; spot: Spot; met: boolean }[] => {
      const cap = capFor(circuit, spot);
      if (!cap) return [];
      const end = throughResistor(circuit, spot);
      if (end === null) return [];
      const net = circuit.netOf(end.end).spots.filter((one) => one.placed !== spot.placed);
      const met = net.some(isPin);
      // A probe behind a divider or shifter is read on the far side, which asks by itself.
      const handedOn = net.some((one) => hasRole(one.placed, 'divider') && one.terminal.id === 'in');
      return handedOn ? [] : [{ cap, spot: end, met }];
    });
  const demands: Demand[] = [];
  for (const cap of new Set(wanting.map((one) => one.cap))) {
    const open = wanting.filter((one) => one.cap === cap && !one.met);
    if (open.length === 0) continue;
    if (SHARED.has(cap)) demands.push({ cap, spots: open.map((one) => one.spot) });
    else for (const { spot } of open) demands.push({ cap, spots: [spot] });
  }
  return demands;
}

const isPin = (spot: Spot) => isType(spot, 'pin') || isType(spot, 'analog in');

/** The end that goes to the pin: the far side of a series resistor or shifter line where there is one; null when that leads elsewhere already. */
function throughResistor(circuit: Circuit, spot: Spot): Spot | null {
  for (const one of others(circuit, spot)) {
    const far = farSide(one);
    if (!far) continue;
    const beyond = others(circuit, far);
    if (beyond.length === 0 || beyond.some(isPin)) return far;
  }
  return spot;
}

function farSide(spot: Spot): Spot | null {
  const { placed, terminal } = spot;
  const id = hasRole(placed, 'resistor')
    ? terminal.id === 'a'
      ? 'b'
      : 'a'
    : hasRole(placed, 'level shifter') && /^[hl]v\d$/.test(terminal.id)
      ? `${terminal.id.startsWith('h') ? 'l' : 'h'}${terminal.id.slice(1)}`
      : null;
  return id === null ? null : (spotsOf(placed).find((one) => one.terminal.id === id) ?? null);
}

/** Pins and converter inputs of a board that nothing uses yet; for a bus, also the pin that carries it already. */
function offersOf(circuit: Circuit, board: Placed): Spot[] {
  const helpers = partsWith(circuit, 'converter', 'expander').filter(
    (one) => boardOf(circuit, one) === board,
  );
  return [board, ...helpers].flatMap(spotsOf).filter(isPin);
}

function costOf(circuit: Circuit, demand: Demand, offer: Spot, at: number, radioOn: boolean | null): number {
  const order = at / 1000;
  // Who uses it behind a gate resistor uses it as well.
  const users = clientsOf(circuit, offer).map(({ spot }) => capFor(circuit, spot) ?? 'out');
  const isBusPin = SHARED.has(demand.cap) && users.length > 0 && users.every((cap) => cap === demand.cap);
  if (users.length > 0 && !isBusPin) return Infinity;
  if (isType(offer, 'analog in')) return demand.cap === 'adc' ? 3 + order : Infinity;
  if (!isType(offer, 'pin') || !offer.terminal.caps.includes(demand.cap)) return Infinity;
  if (isBusPin) return 0;
  const { caps, strap, serial, lostWithRadio, highAtBoot } = offer.terminal;
  if (demand.cap === 'adc' && lostWithRadio && radioOn !== false) return Infinity;
  const takesInput = caps.includes('adc') && demand.cap !== 'adc' ? (lostWithRadio ? 1 : 6) : 0;
  const takesBus = (caps.includes('sda') || caps.includes('scl')) && !SHARED.has(demand.cap) ? 8 : 0;
  const takesOutput = demand.cap === 'adc' && caps.includes('out') ? 1 : 0;
  return (
    (strap === undefined ? 0 : 50) +
    (serial ? 60 : 0) +
    (highAtBoot && demand.cap === 'out' ? 20 : 0) +
    takesInput +
    takesBus +
    takesOutput +
    order
  );
}

/** Plans the pins of one board. */
export function planBoard(
  circuit: Circuit,
  board: Placed,
  radioOn: boolean | null,
): { readonly planned: readonly PlannedPin[]; readonly blocked: readonly Blocked[] } {
  const demands = demandsOf(circuit, board);
  const offers = offersOf(circuit, board);
  if (demands.length === 0) return { planned: [], blocked: [] };
  const cost = demands.map((demand) =>
    offers.map((offer, at) => costOf(circuit, demand, offer, at, radioOn)),
  );
  const { pinOf, blocked } = assign(cost);
  return {
    planned: demands.flatMap((demand, at) => {
      const offer = offers[pinOf[at] ?? -1];
      return offer ? [{ end: offer.end, demand }] : [];
    }),
    blocked: blocked.map((one) =>
      explain(
        circuit,
        board,
        one.demands.flatMap((at) => demands[at] ?? []),
        one.pins.flatMap((at) => offers[at] ?? []),
        radioOn,
      ),
    ),
  };
}

const CAP_NAMES: Readonly<Record<PinCap, string>> = {
  adc: 'analog input',
  in: 'digital input',
  out: 'output',
  pwm: 'pulse output',
  interrupt: 'counting input',
  sda: 'I2C data pin',
  scl: 'I2C clock pin',
  rx: 'serial receive pin',
  tx: 'serial send pin',
  'one-wire': '1-Wire pin',
};

function explain(
  circuit: Circuit,
  board: Placed,
  demands: readonly Demand[],
  pins: readonly Spot[],
  radioOn: boolean | null,
): Blocked {
  const caps = [...new Set(demands.map((one) => one.cap))];
  const cap = caps[0] ?? 'in';
  const names = listOf(
    demands.map((one) =>
      SHARED.has(one.cap) ? `the ${CAP_NAMES[one.cap]}` : (one.spots[0]?.placed.part.label ?? ''),
    ),
  );
  const wish = caps.map((one) => CAP_NAMES[one]).join(' or ');
  const lost =
    cap === 'adc' && radioOn !== false
      ? spotsOf(board).filter((spot) => isType(spot, 'pin') && spot.terminal.lostWithRadio === true).length
      : 0;
  const taken = spotsOf(board).filter(
    (spot) =>
      isType(spot, 'pin') &&
      spot.terminal.caps.includes(cap) &&
      others(circuit, spot).some((one) => capFor(circuit, one) !== null),
  ).length;
  const why = [
    lost > 0 ? `${lost} more are lost while the radio is on` : '',
    taken > 0 ? `${taken} ${taken === 1 ? 'is' : 'are'} in use already` : '',
  ].filter((text) => text !== '');
  return {
    boardId: board.part.id,
    cap,
    says: `${names} ${demands.length === 1 ? 'wants' : 'want'} ${demands.length === 1 ? 'a' : demands.length} ${wish}${demands.length === 1 ? '' : 's'}; ${board.part.label} has ${pins.length === 0 ? 'none' : `only ${pins.length}`} left (${pins.length === 0 ? 'nothing free' : listOf(pins.map(nameOf))}${why.length > 0 ? `; ${why.join('; ')}` : ''}).`,
    ends: demands.flatMap((one) => one.spots.map((spot) => spot.end)),
    fix: fixFor(cap, circuit, board),
  };
}

/** The part that gives more of what is missing. Nothing helps a board without a bus. */
function fixFor(cap: PinCap, circuit: Circuit, board: Placed): Blocked['fix'] {
  const hasBus = spotsOf(board).some(
    (spot) =>
      isType(spot, 'pin') &&
      spot.terminal.caps.includes('sda') &&
      others(circuit, spot).every((one) => capFor(circuit, one) === 'sda'),
  );
  if (!hasBus) return null;
  if (cap === 'adc') return { entryId: 'converter-i2c', label: 'Add an I2C converter with four inputs' };
  if (cap === 'in' || cap === 'out')
    return { entryId: 'expander-i2c', label: 'Add an I2C port expander with eight lines' };
  return null;
}

export type PinPlan = {
  readonly netlist: Netlist;
  readonly planned: readonly PlannedPin[];
  readonly blocked: readonly Blocked[];
};

/** Plans the pins of every board and draws the wires. What is wired already stays as it is. */
export function planPins(netlist: Netlist, catalogue: Catalogue, radioOn: boolean | null): PinPlan {
  const planned: PlannedPin[] = [];
  const blocked: Blocked[] = [];
  let next = netlist;
  const circuit = readCircuit(netlist, catalogue);
  for (const board of partsWith(circuit, 'board')) {
    const plan = planBoard(circuit, board, radioOn);
    planned.push(...plan.planned);
    blocked.push(...plan.blocked);
    for (const { end, demand } of plan.planned)
      for (const spot of demand.spots) next = connect(next, end, spot.end);
  }
  return { netlist: next, planned, blocked };
}

/** Takes every wire off the boards' signal pins, so that they can be planned again; supplies and grounds stay. */
export function clearPins(netlist: Netlist, catalogue: Catalogue): Netlist {
  const isPinEnd = (end: End) => {
    const part = byId(netlist.parts, end.part);
    const entry = part && catalogue.get(part.entryId);
    const terminal = entry?.terminals.find((one) => one.id === end.terminal);
    return terminal?.type === 'pin' || terminal?.type === 'analog in';
  };
  return { ...netlist, wires: netlist.wires.filter((wire) => !isPinEnd(wire.from) && !isPinEnd(wire.to)) };
}

/** Adds the part that unblocks a board. */
export const applyFix = (netlist: Netlist, catalogue: Catalogue, blocked: Blocked): Netlist =>
  blocked.fix
    ? addPart(netlist, catalogue, { entryId: blocked.fix.entryId, boardId: blocked.boardId }).netlist
    : netlist;
