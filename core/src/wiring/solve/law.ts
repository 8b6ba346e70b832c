/**
 * The laws of what stands in a circuit, piecewise linear: in each of its modes a two-ended device carries i = g · v + i₀ from its first end to its second,
 * and tells from a solution which mode it would be in.
 */
import type { Situation } from './situation.ts';

/** What a device may ask of the last solution. */
export type Sense = {
  /** Voltage from one node to another, V; NaN between circuits that nothing joins. */
  readonly across: (one: number, other: number) => number;
  /** Current through a device from its first end to its second, A. */
  readonly ampsOf: (device: Device) => number;
  readonly situation: Situation;
};

export type Law =
  | { readonly kind: 'resistor'; readonly ohm: (at: Situation) => number }
  /** Plus at the first end. Null volts: it gives nothing at the moment. */
  | {
      readonly kind: 'source';
      readonly volts: (sense: Sense) => number | null;
      readonly ohm: number;
      /** It gives no more than this, A. */
      readonly mostA: number;
      /** A battery and a pin take current as well; a regulator does not. */
      readonly takes: boolean;
    }
  | { readonly kind: 'diode'; readonly forwardV: number; readonly ohm: number }
  /** A module: a steady current above a voltage, less below it, and its protection when turned round. */
  | { readonly kind: 'sink'; readonly amps: (sense: Sense) => number; readonly fromV: number }
  | { readonly kind: 'switch'; readonly ohm: number; readonly isClosed: (sense: Sense) => Closing }
  /** Collector to emitter of a transistor; the base is a diode of its own. */
  | { readonly kind: 'collector'; readonly mostA: (sense: Sense) => number };

/** Half: somewhere between open and closed, where a switch heats. */
export type Closing = 'open' | 'half' | 'closed';

export type Device = {
  /** The part it belongs to; null for a wire. */
  readonly partId: string | null;
  /** What of the part: "coil", "contact"; of a wire its id. */
  readonly name: string;
  readonly a: number;
  readonly b: number;
  readonly law: Law;
};

/** Where a device stands; `value` is the volts or amps that it had to ask for. */
export type Mode = { readonly name: string; readonly value: number };

/** What leaks through anything that is off, S. */
const OFF_S = 1e-12;
/** What holds a source at its limit to a number, S. */
const LIMIT_S = 1e-6;
const REVERSE_V = 0.6;
const REVERSE_OHM = 2;
const SATURATED_V = 0.15;
const SATURATED_OHM = 0.3;

export const START: Readonly<Record<Law['kind'], string>> = {
  resistor: 'on',
  source: 'off',
  diode: 'off',
  sink: 'less',
  switch: 'open',
  collector: 'off',
};

export type Line = { readonly siemens: number; readonly amps: number };
const off: Line = { siemens: OFF_S, amps: 0 };

/** The straight line of a device in its mode: i = siemens · v + amps. */
export function lineOf({ law }: Device, { name, value }: Mode, at: Situation): Line {
  switch (law.kind) {
    case 'resistor': {
      const ohm = law.ohm(at);
      return ohm === Infinity ? off : { siemens: 1 / ohm, amps: 0 };
    }
    case 'source':
      if (name === 'off') return off;
      return name === 'limit'
        ? { siemens: LIMIT_S, amps: -law.mostA }
        : { siemens: 1 / law.ohm, amps: -value / law.ohm };
    case 'diode':
      return name === 'off' ? off : { siemens: 1 / law.ohm, amps: -law.forwardV / law.ohm };
    case 'sink':
      if (name === 'full') return { siemens: OFF_S, amps: value };
      return name === 'turned round'
        ? { siemens: 1 / REVERSE_OHM, amps: REVERSE_V / REVERSE_OHM }
        : { siemens: Math.max(OFF_S, value / law.fromV), amps: 0 };
    case 'switch':
      if (name === 'open') return off;
      return { siemens: 1 / (name === 'half' ? 50 * law.ohm + 5 : law.ohm), amps: 0 };
    case 'collector':
      if (name === 'off') return off;
      return name === 'active'
        ? { siemens: OFF_S, amps: value }
        : { siemens: 1 / SATURATED_OHM, amps: -SATURATED_V / SATURATED_OHM };
  }
}

/** Too little to call it something. */
const EPS_V = 1e-6;
const EPS_A = 1e-9;

const to = (name: string, value = 0): Mode => ({ name, value });

/** The mode a device would be in with `v` across it and `i` through it. */
export function nextMode(device: Device, mode: Mode, v: number, i: number, sense: Sense): Mode {
  const { law } = device;
  switch (law.kind) {
    case 'resistor':
      return mode;
    case 'source': {
      const volts = law.volts(sense);
      if (volts === null) return to('off');
      if (mode.name === 'off') return law.takes || v < volts - EPS_V ? to('on', volts) : mode;
      if (mode.name === 'limit') return v > volts + EPS_V ? to('on', volts) : mode;
      if (-i > law.mostA + EPS_A) return to('limit', volts);
      return !law.takes && i > EPS_A ? to('off') : to('on', volts);
    }
    case 'diode':
      if (mode.name === 'off') return v > law.forwardV + EPS_V ? to('on') : mode;
      return i < -EPS_A ? to('off') : mode;
    case 'sink': {
      const amps = law.amps(sense);
      if (mode.name === 'turned round') return i > EPS_A ? to('less', amps) : to('turned round', amps);
      if (v < -REVERSE_V - EPS_V) return to('turned round', amps);
      return v >= law.fromV ? to('full', amps) : to('less', amps);
    }
    case 'switch':
      return to(law.isClosed(sense));
    case 'collector': {
      const mostA = law.mostA(sense);
      if (mostA < 1e-7) return to('off');
      if (mode.name === 'off') return to('active', mostA);
      if (mode.name === 'active') return v < SATURATED_V ? to('saturated') : to('active', mostA);
      return i > mostA + EPS_A ? to('active', mostA) : mode;
    }
  }
}
