/** Which pin of a board is meant, and which one switches a water line. */
import type { Catalogue } from '../catalogue/catalogue.ts';
import {
  fact,
  hasRole,
  isType,
  readCircuit,
  spotAt,
  spotsOf,
  type Circuit,
  type Placed,
  type Spot,
} from '../wiring/circuit.ts';
import type { Netlist } from '../wiring/netlist.ts';
import { pinThatDrives } from '../wiring/pinUse.ts';
import { loadsOf } from '../wiring/switched.ts';

/** A pin as a board's program names it: a numbered pin, or a numbered analog input. */
export type Pin = { readonly kind: 'pin' | 'input'; readonly number: number };

const MOST_NUMBER = 255;

/** "P35" is pin 35, "IN0" and "A0" are analog input 0. Null for anything else: then nobody knows which pin is meant. */
export function pinOfName(name: string): Pin | null {
  const match = /^(P|GPIO|IN|INPUT|A)\s*(\d{1,3})$/i.exec(name.trim());
  if (!match) return null;
  const number = Number(match[2]);
  if (number > MOST_NUMBER) return null;
  return { kind: /^(P|GPIO)$/i.test(match[1] ?? '') ? 'pin' : 'input', number };
}

/** Two pins in one text, "P26 P27" or "trigger P26, echo P27": the first drives, the second listens. Null for anything else. */
export function pinPairOfName(names: string): readonly [Pin, Pin] | null {
  const pins = names.split(/[\s,;/]+/).flatMap((one) => pinOfName(one) ?? []);
  const [first, second] = pins;
  return pins.length === 2 && first && second ? [first, second] : null;
}

/** Of a servo the pulses at rest and while it lets water through, µs. */
export type Pulses = { readonly offUs: number; readonly onUs: number };
/** Of a latching valve the pin that shuts it, and how long a pulse on either lasts, ms. */
export type Latch = { readonly shut: Pin; readonly ms: number };
export type Output = {
  readonly pin: Pin;
  readonly activeLow: boolean;
  readonly pulses?: Pulses;
  readonly latch?: Latch;
};

/** The pins of an output. */
export const pinsOfOutput = ({ pin, latch }: Output): readonly Pin[] => (latch ? [pin, latch.shut] : [pin]);

const SWITCHES = ['MOSFET', 'transistor', 'relay', 'driver module'] as const;

/**
 * The pin that switches what stands for a water line or a contact, and on which side: its own input, or through its switch, as it is drawn in the wiring. Null
 * where that is not drawn.
 */
export function outputOf(
  wiring: Netlist,
  catalogue: Catalogue,
  of: { readonly list: 'waterLines' | 'contacts'; readonly id: string },
): Output | null {
  const circuit = readCircuit(wiring, catalogue);
  const load = [...circuit.parts.values()].find(
    ({ part }) => part.stands?.list === of.list && part.stands.id === of.id,
  );
  if (!load) return null;
  const behind = [...circuit.parts.values()].filter(
    (placed) => hasRole(placed, ...SWITCHES) && loadsOf(circuit, placed).includes(load),
  );
  if (hasRole(load, 'latching valve')) return latchOf(circuit, load);
  for (const placed of [load, ...behind]) {
    const control = spotsOf(placed).find(isControl);
    const driver = control && pinThatDrives(circuit, control);
    if (!driver) continue;
    const pin = pinOfName(driver.terminal.name);
    // A servo wants pulses: a level on its pin would be no valve.
    const pulses = hasRole(placed, 'servo') ? pulsesOf(placed) : null;
    if (pin && pulses) return { pin, activeLow: false, pulses };
    if (pin) return { pin, activeLow: isActiveLow(placed) };
  }
  return null;
}

/** A valve that is opened by a pulse on one pin and shut by a pulse on another: without both it is none. */
function latchOf(circuit: Circuit, valve: Placed): Output | null {
  const [open, shut] = ['open', 'shut'].map((terminal) => {
    const spot = spotAt(valve, terminal);
    const driver = spot && pinThatDrives(circuit, spot);
    return driver ? pinOfName(driver.terminal.name) : null;
  });
  const ms = Math.round(fact(valve, 'pulseMs') ?? USUAL_PULSE_MS);
  return open && shut ? { pin: open, activeLow: isActiveLow(valve), latch: { shut, ms } } : null;
}

const USUAL_PULSE_MS = 60;

/** Of a lamp or buzzer the pins that light it: one, or red, green and blue; null where they are not drawn, or where such a part needs more than a level. */
export function lampPins(
  circuit: Circuit,
  placed: Placed,
):
  | {
      readonly kind: 'one' | 'three' | 'buzzer' | 'ring';
      readonly pins: readonly Output[];
      readonly lights?: number;
    }
  | 'not drawn'
  | 'not written' {
  const at = (terminal: string): Output | null => {
    const spot = spotAt(placed, terminal);
    const pin = spot && pinThatDrives(circuit, spot);
    const found = pin && pinOfName(pin.terminal.name);
    return found && { pin: found, activeLow: isActiveLow(placed) };
  };
  const all = <Kind extends 'one' | 'three' | 'buzzer' | 'ring'>(
    kind: Kind,
    pins: readonly (Output | null)[],
  ) => {
    const found = pins.filter((one) => one !== null);
    return found.length === pins.length ? { kind, pins: found } : 'not drawn';
  };
  if (hasRole(placed, 'LED')) {
    // From the pin through its resistor to ground, or from the supply to the pin, which then pulls it low.
    const [high, low] = [at('anode'), at('cathode')];
    return all('one', [high ?? (low && { ...low, activeLow: true })]);
  }
  if (hasRole(placed, 'buzzer')) return all('buzzer', [at('in')]);
  if (spotAt(placed, 'red')) return all('three', [at('red'), at('green'), at('blue')]);
  if (hasRole(placed, 'lamp') && spotAt(placed, 'data')) {
    const ring = all('ring', [at('data')]);
    return ring === 'not drawn'
      ? ring
      : { ...ring, lights: Math.round(fact(placed, 'lights') ?? USUAL_LIGHTS) };
  }
  return 'not written';
}

/** What is not known is as most are turned. */
const pulsesOf = (servo: Placed): Pulses => ({
  offUs: Math.round(fact(servo, 'closedUs') ?? 1000),
  onUs: Math.round(fact(servo, 'openUs') ?? 2000),
});

const USUAL_LIGHTS = 12;

const isControl = (spot: Spot): boolean => isType(spot, 'control') || isType(spot, 'digital in');
const isActiveLow = (placed: Placed): boolean => fact(placed, 'activeLow') === 1;
