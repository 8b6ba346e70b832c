/** What a 4–20 mA probe can read: between the current of a broken wire and that of a fault, as its shunt makes a voltage of them. */
import { LOOP } from '../../electrics/shunt.ts';
import { byId } from '../../quantity/byId.ts';
import { fact, hasRole, isType, spotsOf } from '../../wiring/circuit.ts';
import { others } from '../../wiring/look.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { partOfChannel, gardenCircuit } from './gardenCircuit.ts';

/** In counts. Null where its shunt, or the scale of its input, is not drawn. @param full counts of that scale @param fullV its voltage, where the pin does not say */
export function loopWindow(
  garden: Garden,
  channel: Channel,
  { full, fullV }: { readonly full: number; readonly fullV: number },
): { readonly lowCounts: number; readonly highCounts: number } | null {
  if (byId(garden.probes, channel.probeId)?.kind !== '4–20 mA soil probe') return null;
  const placed = partOfChannel(garden, channel);
  const minus = placed && spotsOf(placed).find((one) => isType(one, 'loop') && one.terminal.side === 'minus');
  if (!minus) return null;
  const near = others(gardenCircuit(garden), minus);
  const shunt = near.find((one) => hasRole(one.placed, 'shunt', 'resistor'));
  const pin = near.find((one) => isType(one, 'pin'));
  const ohm = shunt && fact(shunt.placed, 'ohm');
  if (ohm == null || ohm <= 0) return null;
  const scaleV = (pin && isType(pin, 'pin') ? pin.terminal.fullScaleV : undefined) ?? fullV;
  const countsOf = (ma: number): number => ((ma / 1000) * ohm * full) / scaleV;
  return {
    lowCounts: Math.ceil(countsOf(LOOP.brokenMa)),
    // What lies beyond the scale shows as its end.
    highCounts: Math.floor(Math.min(full, countsOf(LOOP.overMa))),
  };
}
