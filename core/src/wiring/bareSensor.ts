/** A sensor that is only a resistance, and the fixed resistor that makes a divider with it. */
import { hasRole, isType, otherLead, type Circuit, type Placed, type Spot } from './circuit.ts';
import { others } from './look.ts';

const isGround = (spot: Spot): boolean => isType(spot, 'ground');

/** Whether the far lead of a sensor hangs on ground rather than on a supply. */
export const hangsOnGround = (circuit: Circuit, signal: Spot): boolean => {
  const far = otherLead(signal);
  return far !== null && circuit.netOf(far.end).spots.some(isGround);
};

/** The resistor that makes a divider with a sensor: from its signal to the side where the sensor is not. */
export function fixedBeside(circuit: Circuit, signal: Spot): Placed | null {
  const onGround = hangsOnGround(circuit, signal);
  const found = others(circuit, signal).find((spot) => {
    const far = hasRole(spot.placed, 'resistor') ? otherLead(spot) : null;
    if (!far) return false;
    const { spots, level } = circuit.netOf(far.end);
    return onGround ? level !== null && !spots.some(isGround) : spots.some(isGround);
  });
  return found?.placed ?? null;
}
