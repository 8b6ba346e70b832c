/** What parts ask of the pins they are wired to, what drives an input, and what a pin must give. */
import { type PinCap } from '../catalogue/schema.ts';
import { type Circuit, type Placed, type Spot, hasRole, isBareSensor, isType, spotAt } from './circuit.ts';
import { behind, others } from './look.ts';
import { isBareSignal } from './solve/situations.ts';

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
      if (isBareSensor(placed)) return isBareSignal(circuit, spot) ? 'adc' : null;
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

/** The pin of a board that drives an input, also across a level shifter; null where none does. */
export function pinThatDrives(circuit: Circuit, input: Spot): Spot | null {
  const driver = driverOf(circuit, input);
  const pins = driver && hasRole(driver.placed, 'level shifter') ? across(circuit, driver) : [driver];
  return pins.find((one) => one && isType(one, 'pin') && hasRole(one.placed, 'board')) ?? null;
}

/** What shares the net of the other end of the same line of a level shifter. */
function across(circuit: Circuit, { placed, terminal }: Spot): readonly Spot[] {
  const far = /^[lh]v\d$/.test(terminal.id)
    ? spotAt(placed, `${terminal.id.startsWith('l') ? 'h' : 'l'}${terminal.id.slice(1)}`)
    : null;
  return far ? others(circuit, far) : [];
}

/** The pin of a board on the net of a terminal, or across a level shifter. */
export function pinOn(circuit: Circuit, spot: Spot): Spot | null {
  const near = others(circuit, spot);
  const far = near
    .filter((one) => hasRole(one.placed, 'level shifter'))
    .flatMap((one) => across(circuit, one));
  return [...near, ...far].find((one) => isType(one, 'pin') && hasRole(one.placed, 'board')) ?? null;
}
