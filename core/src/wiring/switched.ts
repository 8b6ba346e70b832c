/** Switches and the loads behind them. */
import { type Circuit, type Placed, type Spot, isType, spotAt } from './circuit.ts';
import { others } from './look.ts';

/** The terminal of a switch that the load hangs on. */
export const loadSide = (placed: Placed): Spot | null =>
  spotAt(placed, 'drain') ?? spotAt(placed, 'collector') ?? spotAt(placed, 'load') ?? spotAt(placed, 'open');

/** Loads that a switch carries: on its switched terminal. */
export function loadsOf(circuit: Circuit, placed: Placed): Placed[] {
  const side = loadSide(placed);
  return side
    ? others(circuit, side)
        .filter((spot) => isType(spot, 'load'))
        .map((spot) => spot.placed)
    : [];
}
