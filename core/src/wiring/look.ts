/** Questions that several checks ask of a circuit. */
import { remembered } from '../quantity/remembered.ts';
import { formatNumber } from '../quantity/format.ts';
import {
  fact,
  hasRole,
  isType,
  spotAt,
  spotsOf,
  takesAPin,
  type Circuit,
  type Net,
  type Placed,
  type Spot,
} from './circuit.ts';
import type { End } from './netlist.ts';
import type { TerminalOf } from '../catalogue/schema.ts';

export type PinSpot = Spot & { terminal: TerminalOf<'pin'> };

export const nameOf = (spot: Spot): string => `${spot.placed.part.label} ${spot.terminal.name}`;
/** "A, B and C", at most five names. */
export function listOf(names: readonly string[]): string {
  const shown = names.length > 5 ? [...names.slice(0, 4), `${names.length - 4} more`] : [...names];
  const last = shown.pop() ?? '';
  return shown.length === 0 ? last : `${shown.join(', ')} and ${last}`;
}
export function inV(volts: number): string {
  const shown = Math.round(volts * 100) / 100;
  return `${formatNumber(shown, shown < 10 && shown % 1 !== 0 ? 2 : 1)} V`;
}
export const inMa = (ma: number): string =>
  ma >= 1000 ? `${formatNumber(ma / 1000, 1)} A` : `${formatNumber(ma, ma < 10 ? 1 : 0)} mA`;
export const inOhm = (ohm: number): string =>
  ohm >= 1e6
    ? `${formatNumber(ohm / 1e6, ohm % 1e6 === 0 ? 0 : 1)} MΩ`
    : ohm >= 1000
      ? `${formatNumber(ohm / 1000, ohm % 1000 === 0 ? 0 : 1)} kΩ`
      : `${formatNumber(ohm, ohm < 10 ? 1 : 0)} Ω`;

export const partsWith = (circuit: Circuit, ...roles: Parameters<typeof hasRole>[1][]): Placed[] =>
  [...circuit.parts.values()].filter((placed) => hasRole(placed, ...roles));

export const allSpots = remembered((circuit: Circuit): readonly Spot[] =>
  [...circuit.parts.values()].flatMap(spotsOf),
);

/** What shares a net with a spot, on other parts. */
export const others = (circuit: Circuit, spot: Spot): Spot[] =>
  circuit.netOf(spot.end).spots.filter((one) => one.placed !== spot.placed);

/** Small parts that a signal goes through right at a spot. */
export const onTheWay = (circuit: Circuit, spot: Spot): Spot[] =>
  others(circuit, spot).filter((one) => hasRole(one.placed, 'resistor', 'divider', 'level shifter'));

export const isWired = (circuit: Circuit, spot: Spot): boolean => circuit.netOf(spot.end).wires.length > 0;

/** Pins of boards and expanders that something is wired to. */
export const usedPins = (circuit: Circuit, board?: Placed): PinSpot[] =>
  (board ? spotsOf(board) : allSpots(circuit)).filter(
    (spot): spot is PinSpot => isType(spot, 'pin') && isWired(circuit, spot),
  );

/** Pins that nothing is wired to, with a capability, the plainest first. */
export function freePins(
  circuit: Circuit,
  board: Placed,
  cap: PinSpot['terminal']['caps'][number],
): PinSpot[] {
  const awkward = (pin: PinSpot) =>
    (pin.terminal.strap !== undefined ? 4 : 0) +
    (pin.terminal.serial ? 4 : 0) +
    (pin.terminal.highAtBoot ? 2 : 0);
  return spotsOf(board)
    .filter((spot): spot is PinSpot => isType(spot, 'pin'))
    .filter((spot) => spot.terminal.caps.includes(cap) && !isWired(circuit, spot))
    .sort((one, other) => awkward(one) - awkward(other));
}

/** What a pin must drive. */
export const drivenBy = (circuit: Circuit, pin: Spot): Spot[] => others(circuit, pin).filter(takesAPin);

/** What a resistor (or anything with two leads) leads to from a spot: the spots behind it, with it. */
export function behind(
  circuit: Circuit,
  spot: Spot,
  ...roles: Parameters<typeof hasRole>[1][]
): { by: Placed; spots: Spot[] }[] {
  return others(circuit, spot)
    .filter((one) => hasRole(one.placed, ...roles) && one.terminal.type === 'lead')
    .map((one) => {
      const far = spotsOf(one.placed).find(
        (end) => end.terminal.type === 'lead' && end.terminal.id !== one.terminal.id,
      );
      return { by: one.placed, spots: far ? others(circuit, far) : [] };
    });
}

/** The board a part reports to: named, or the one its wires lead to; null when that is not to be told. */
export function boardOf(circuit: Circuit, placed: Placed): Placed | null {
  if (placed.part.boardId !== null) return circuit.parts.get(placed.part.boardId) ?? null;
  const boards = partsWith(circuit, 'board');
  return (
    boards.find((board) =>
      spotsOf(placed).some((spot) =>
        circuit.netOf(spot.end).spots.some((one) => one.placed === board && one.terminal.type === 'pin'),
      ),
    ) ?? (boards.length === 1 ? (boards[0] ?? null) : null)
  );
}

export const supplySpot = (placed: Placed): Spot | null =>
  spotsOf(placed).find((spot) => spot.terminal.type === 'supply in') ?? null;
export const groundSpot = (placed: Placed): Spot | null =>
  spotsOf(placed).find((spot) => spot.terminal.type === 'ground') ?? null;
export const endOf = (spot: Spot | null): End | null => spot?.end ?? null;

/** A supply output of the board with the voltage of its logic. */
export const logicSupply = (board: Placed): Spot | null =>
  spotsOf(board).find(
    (spot) => isType(spot, 'supply out') && spot.terminal.volts === fact(board, 'logicV'),
  ) ?? null;

/** The supply that feeds a net: the output its voltage comes from; null when that is not a supply. */
export function feederOf(net: Net): (Spot & { terminal: TerminalOf<'supply out'> }) | null {
  const from = net.level?.from;
  return from && isType(from, 'supply out') ? from : null;
}

/** A transformer, or an irrigation timer with one: what hangs on it sees alternating current. */
export const isTransformer = (placed: Placed): boolean => fact(placed, 'alternating') === 1;

export const plusOf = (placed: Placed): Spot | null => spotAt(placed, 'plus');
export const minusOf = (placed: Placed): Spot | null => spotAt(placed, 'minus');

/** The most a part takes at once, mA; null when not known. Wiring parts that only pass current on take none. */
export function drawMa(placed: Placed): number | null {
  const active = fact(placed, 'activeMa');
  const peak = fact(placed, 'peakMa');
  const radio = fact(placed, 'radioMa') ?? 0;
  return active === null && peak === null ? null : Math.max(active ?? 0, peak ?? 0, radio);
}
