/** What parts ask of the pins they are wired to, what drives an input, and what a pin must give. */
import { type PinCap } from '../catalogue/schema.ts';
import { type Circuit, type Placed, type Spot, fact, hasRole, isType } from './circuit.ts';
import { type PinSpot, behind, drivenBy, others } from './look.ts';

/** What a terminal asks of the pin it is wired to; null when it asks nothing (a pull-up, a diode). */
export function capFor(circuit: Circuit, spot: Spot | undefined): PinCap | null {
  if (!spot) return null;
  const { terminal, placed } = spot;
  switch (terminal.type) {
    case 'supply in':
      // Powered only to be read: from a pin of its own.
      return placed.part.perReading ? 'out' : null;
    case 'analog out':
      return 'adc';
    case 'loop':
      return terminal.side === 'minus' ? 'adc' : null;
    case 'digital out':
    case 'open drain':
      return 'in';
    case 'digital in':
      return hasRole(placed, 'servo') ? 'pwm' : 'out';
    case 'control':
      return 'out';
    case 'i2c':
      return terminal.line;
    case 'one-wire':
      return 'one-wire';
    case 'uart out':
      return 'rx';
    case 'uart in':
      return 'tx';
    case 'lead':
      if (hasRole(placed, 'divider', 'battery monitor') && terminal.lead === 'out')
        return dividedCap(circuit, placed);
      return hasRole(placed, 'LED') && terminal.lead === 'anode' ? 'out' : null;
    default:
      return null;
  }
}

/** Behind a divider stays what was before it: a digital level or a voltage to be read. */
function dividedCap(circuit: Circuit, divider: Placed): PinCap {
  const source = circuit.netOf({ part: divider.part.id, terminal: 'in' }).spots;
  if (source.some((spot) => isType(spot, 'uart out'))) return 'rx';
  return source.some((spot) => isType(spot, 'digital out')) ? 'in' : 'adc';
}

/** Terminals that want a pin to themselves; buses are shared. */
export function isUser(circuit: Circuit, spot: Spot): boolean {
  const cap = capFor(circuit, spot);
  return cap !== null && !['sda', 'scl', 'one-wire'].includes(cap) && spot.terminal.type !== 'loop';
}

/** The pin or output that drives an input: on its net, or behind a series resistor, or across a shifter. */
export function driverOf(circuit: Circuit, input: Spot): Spot | null {
  const drives = (spot: Spot) =>
    (isType(spot, 'pin') && spot.terminal.caps.includes('out')) ||
    isType(spot, 'digital out') ||
    isType(spot, 'uart out');
  const near = others(circuit, input);
  return (
    near.find(drives) ??
    near.find((spot) => hasRole(spot.placed, 'level shifter')) ??
    behind(circuit, input, 'resistor')
      .flatMap((one) => one.spots)
      .find(drives) ??
    null
  );
}

/** What is drawn from a pin, mA; null when some of it is not known. Resistors are followed to what they feed. */
export function pinDrawMa(circuit: Circuit, pin: PinSpot): number | null {
  const logicV = fact(pin.placed, 'logicV');
  let total: number | null = 0;
  const add = (ma: number | null) => {
    total = total === null || ma === null ? null : total + ma;
  };
  for (const spot of drivenBy(circuit, pin)) {
    const { terminal, placed } = spot;
    if (terminal.type === 'digital in') add(terminal.takesMa);
    else if (terminal.type === 'supply in') add(fact(placed, 'peakMa') ?? fact(placed, 'activeMa'));
    // An LED without a resistor is a finding of its own; what it takes cannot be worked out.
    else if (hasRole(placed, 'LED')) continue;
    else if (hasRole(placed, 'resistor')) add(throughResistor(circuit, spot, logicV));
    // A gate or base without a resistor is a finding of its own; a gate at rest takes nothing.
  }
  return total;
}

function throughResistor(circuit: Circuit, near: Spot, logicV: number | null): number | null {
  const ohm = fact(near.placed, 'ohm');
  const far = behindOne(circuit, near);
  if (far.length === 0) return 0;
  if (ohm === null || logicV === null) return null;
  const led = far.find((spot) => hasRole(spot.placed, 'LED'));
  if (led) {
    const forwardV = fact(led.placed, 'forwardV');
    return forwardV === null ? null : (Math.max(0, logicV - forwardV) / ohm) * 1000;
  }
  if (far.some((spot) => isType(spot, 'control') && spot.terminal.device === 'base'))
    return ((logicV - 0.7) / ohm) * 1000;
  // A gate takes current only while it charges; a pull-up or pull-down takes what Ohm's law says.
  if (far.some((spot) => spot.terminal.type === 'ground')) return (logicV / ohm) * 1000;
  return 0;
}

const behindOne = (circuit: Circuit, near: Spot): Spot[] =>
  circuit
    .netOf({ part: near.end.part, terminal: near.end.terminal === 'a' ? 'b' : 'a' })
    .spots.filter((spot) => spot.placed !== near.placed);
