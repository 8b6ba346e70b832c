/** Wirings that are in order, drawn by hand rules that know nothing of the checks: boards, supplies and modules mixed by a seed. */
import { catalogue, Sketchpad } from './sketchpad.ts';
import type { Netlist } from '../../core/src/wiring/netlist.ts';

/** A small generator of numbers that a seed decides. */
export function randomOf(seed: number): () => number {
  let state = (seed * 2654435761 + 12345) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

type Bench = {
  readonly pad: Sketchpad;
  readonly board: string;
  readonly logicV: number;
  /** Where 5 V, the logic voltage and 12 V are tapped; null where there is none. */
  readonly rail5: string | null;
  readonly railLogic: string;
  readonly rail12: string | null;
  /** Minus of the main supply, where the currents of pumps go back. */
  readonly minus: string;
  readonly random: () => number;
};

type Module = (bench: Bench) => boolean;

const pick = <T>(list: readonly T[], random: () => number): T =>
  list[Math.floor(random() * list.length)] as T;

const BOARDS = [
  { entryId: 'board-wifi-two-groups', logicV: 3.3, out: 'out33' },
  { entryId: 'board-33-three', logicV: 3.3, out: 'out33' },
  { entryId: 'board-32bit-seven', logicV: 3.3, out: 'out33' },
  { entryId: 'board-8bit-six', logicV: 5, out: 'out5' },
  { entryId: 'board-8bit-eight', logicV: 5, out: 'out5' },
] as const;

function begin(random: () => number): Bench {
  const pad = new Sketchpad();
  const { entryId, logicV, out } = pick(BOARDS, random);
  const board = pad.add(entryId);
  const power = pick(['usb', 'battery', 'battery sun', '12 V', 'lithium'], random);
  const base = { pad, board, logicV, railLogic: `${board}.${out}`, random };
  const ground = (of: string) => pad.wire(`${of}.gnd`, `${board}.gnd`);
  if (power === 'usb') {
    const usb = pad.add('supply-usb');
    pad.wire(`${usb}.out`, `${board}.v5`);
    ground(usb);
    return { ...base, rail5: `${usb}.out`, rail12: null, minus: `${usb}.gnd` };
  }
  if (power === 'lithium') {
    const cell = pad.add('battery-lithium');
    const fuse = pad.add('fuse', { fuseA: 2 });
    const up = pad.add('regulator-up');
    const cable = pad.cable(0.5, 0.75);
    pad.wire(`${cell}.plus`, `${fuse}.a`);
    pad.wire(`${fuse}.b`, `${up}.vcc`, cable);
    pad.wire(`${cell}.gnd`, `${up}.gnd`, cable);
    pad.wire(`${up}.out`, `${board}.v5`);
    ground(up);
    return { ...base, rail5: `${up}.out`, rail12: null, minus: `${cell}.gnd` };
  }
  const regulator = pad.add('regulator-5v');
  pad.wire(`${regulator}.out`, `${board}.v5`);
  if (power === '12 V') {
    const supply = pad.add('supply-12v');
    // Some put a diode in the feed against a plug that was put in the wrong way round.
    if (random() < 0.3) {
      const diode = pad.add('diode');
      pad.wire(`${supply}.out`, `${diode}.anode`);
      pad.wire(`${diode}.cathode`, `${regulator}.vcc`);
    } else pad.wire(`${supply}.out`, `${regulator}.vcc`);
    pad.wire(`${supply}.gnd`, `${regulator}.gnd`);
    pad.wire(`${supply}.gnd`, `${board}.gnd`);
    return { ...base, rail5: `${regulator}.out`, rail12: `${supply}.out`, minus: `${supply}.gnd` };
  }
  const battery = pad.add('battery-12v');
  const fuse = pad.add('fuse', { fuseA: 5 });
  const cable = pad.cable(0.8, 1.5);
  pad.wire(`${battery}.plus`, `${fuse}.a`);
  pad.wire(`${fuse}.b`, `${regulator}.vcc`, cable);
  pad.wire(`${battery}.gnd`, `${regulator}.gnd`, cable);
  pad.wire(`${battery}.gnd`, `${board}.gnd`);
  if (power === 'battery sun') {
    const panel = pad.add('solar-panel');
    const own = pad.add('fuse', { fuseA: 3 });
    const sun = pad.cable(4, 1);
    pad.wire(`${battery}.plus`, `${own}.a`);
    pad.wire(`${own}.b`, `${panel}.plus`, sun);
    pad.wire(`${panel}.gnd`, `${battery}.gnd`, sun);
  }
  return { ...base, rail5: `${regulator}.out`, rail12: `${fuse}.b`, minus: `${battery}.gnd` };
}

/** A part away from the box on a cable of its own: supply, ground, and whatever else is given. */
function far(
  bench: Bench,
  id: string,
  from: string | null,
  more: readonly (readonly [string, string])[],
  mm2 = 0.34,
): void {
  const { pad, board, random } = bench;
  const cable = pad.cable(1 + Math.round(random() * 20) / 10, mm2);
  if (from !== null) pad.wire(from, `${id}.vcc`, cable);
  pad.wire(`${board}.gnd`, `${id}.gnd`, cable);
  for (const [one, other] of more) pad.wire(one, other, cable);
}

const capacitive: Module = (bench) => {
  const pin = bench.pad.pin(bench.board, 'adc');
  if (!pin) return false;
  const id = bench.pad.add('probe-capacitive');
  far(bench, id, bench.railLogic, [[`${id}.out`, pin]]);
  return true;
};

/** Powered by a pin, only while it is read. */
const fork: Module = (bench) => {
  const [pin, power] = [bench.pad.pin(bench.board, 'adc'), bench.pad.pin(bench.board, 'out')];
  if (!pin || !power || bench.logicV < 5) return false;
  const id = bench.pad.add('probe-fork', { peakMa: 8 }, { perReading: true });
  far(bench, id, power, [[`${id}.out`, pin]]);
  return true;
};

const volumetric: Module = (bench) => {
  const pin = bench.pad.pin(bench.board, 'adc');
  if (!pin) return false;
  const id = bench.pad.add('probe-volumetric');
  far(bench, id, bench.railLogic, [[`${id}.out`, pin]], 0.5);
  return true;
};

const ntc: Module = (bench) => {
  const pin = bench.pad.pin(bench.board, 'adc');
  if (!pin) return false;
  const id = bench.pad.add('thermo-ntc');
  far(bench, id, bench.railLogic, [[`${id}.out`, pin]]);
  return true;
};

/** A bare sensor with its fixed resistor, either way up. */
const bare =
  (entryId: string, ohm: number): Module =>
  ({ pad, board, railLogic, random }) => {
    const pin = pad.pin(board, 'adc');
    if (!pin) return false;
    const id = pad.add(entryId);
    const fixed = pad.add('resistor', { ohm });
    const cable = pad.cable(2, 0.34);
    const [up, down] = random() < 0.5 ? [id, fixed] : [fixed, id];
    const inCable = (part: string) => (part === id ? cable : undefined);
    pad.wire(railLogic, `${up}.a`, inCable(up));
    pad.wire(`${up}.b`, pin, inCable(up));
    pad.wire(`${down}.a`, pin, inCable(down));
    pad.wire(`${down}.b`, `${board}.gnd`, inCable(down));
    return true;
  };

const loop =
  (shuntPart: 'shunt' | 'resistor'): Module =>
  (bench) => {
    const { pad, board, rail12 } = bench;
    if (rail12 === null) return false;
    const pin = pad.pin(board, 'adc');
    if (!pin) return false;
    const id = pad.add('probe-loop');
    const shunt = pad.add(shuntPart, { ohm: 150 });
    const cable = pad.cable(6, 1);
    pad.wire(rail12, `${id}.plus`, cable);
    pad.wire(`${id}.minus`, pin, cable);
    if (shuntPart === 'shunt') {
      pad.wire(`${shunt}.in`, pin);
      pad.wire(`${shunt}.gnd`, `${board}.gnd`);
    } else {
      pad.wire(`${shunt}.a`, pin);
      pad.wire(`${shunt}.b`, `${board}.gnd`);
    }
    return true;
  };

/** A 5 V probe read by a 3.3 V board through a divider, as a part or as two plain resistors. */
const divided =
  (plain: boolean): Module =>
  (bench) => {
    const { pad, board, rail5 } = bench;
    if (rail5 === null || bench.logicV > 4) return false;
    const pin = pad.pin(board, 'adc');
    if (!pin) return false;
    const id = pad.add('probe-tensiometer');
    const cable = pad.cable(2, 0.34);
    pad.wire(rail5, `${id}.vcc`, cable);
    pad.wire(`${board}.gnd`, `${id}.gnd`, cable);
    if (plain) {
      const [upper, lower] = [pad.add('resistor', { ohm: 10_000 }), pad.add('resistor', { ohm: 18_000 })];
      pad.wire(`${id}.out`, `${upper}.a`, cable);
      pad.wire(`${upper}.b`, pin);
      pad.wire(`${lower}.a`, pin);
      pad.wire(`${lower}.b`, `${board}.gnd`);
    } else {
      const divider = pad.add('divider', { upperOhm: 10_000, lowerOhm: 18_000 });
      pad.wire(`${id}.out`, `${divider}.in`, cable);
      pad.wire(`${divider}.out`, pin);
      pad.wire(`${divider}.gnd`, `${board}.gnd`);
    }
    return true;
  };

const monitor: Module = (bench) => {
  const { pad, board, rail12 } = bench;
  if (rail12 === null || !pad.parts.some((one) => one.entryId === 'battery-12v')) return false;
  const pin = pad.pin(board, 'adc');
  if (!pin) return false;
  const id = pad.add(
    'monitor-battery',
    bench.logicV < 5 ? { upperOhm: 47_000, lowerOhm: 10_000 } : { upperOhm: 22_000, lowerOhm: 10_000 },
  );
  pad.wire(rail12, `${id}.in`);
  pad.wire(`${id}.out`, pin);
  pad.wire(`${id}.gnd`, `${board}.gnd`);
  return true;
};

/** A float or rain switch with its pull-up; which of its two wires goes where does not matter. */
const contact =
  (entryId: string): Module =>
  (bench) => {
    const { pad, board, random } = bench;
    const pin = pad.pin(board, 'in');
    if (!pin) return false;
    const id = pad.add(entryId);
    const up = pad.add('resistor', { ohm: 10_000 });
    const cable = pad.cable(2, 0.34);
    const [one, other] = random() < 0.5 ? ['out', 'gnd'] : ['gnd', 'out'];
    pad.wire(`${id}.${one}`, pin, cable);
    pad.wire(`${id}.${other}`, `${board}.gnd`, cable);
    pad.wire(`${up}.a`, pin);
    pad.wire(`${up}.b`, bench.railLogic);
    return true;
  };

const led =
  (count: 1 | 2, sunk: boolean): Module =>
  (bench) => {
    const { pad, board, logicV } = bench;
    if (count === 2 && logicV < 5) return false;
    const pin = pad.pin(board, 'out');
    if (!pin) return false;
    const resistor = pad.add('resistor', { ohm: count === 2 ? 150 : logicV < 5 ? 270 : 560 });
    const leds = Array.from({ length: count }, () => pad.add('lamp-led'));
    const first = leds[0] as string;
    const last = leds[leds.length - 1] as string;
    if (count === 2) pad.wire(`${first}.cathode`, `${last}.anode`);
    if (sunk) {
      pad.wire(bench.railLogic, `${resistor}.a`);
      pad.wire(`${resistor}.b`, `${first}.anode`);
      pad.wire(`${last}.cathode`, pin);
    } else {
      pad.wire(pin, `${resistor}.a`);
      pad.wire(`${resistor}.b`, `${first}.anode`);
      pad.wire(`${last}.cathode`, `${board}.gnd`);
    }
    return true;
  };

/** The switch of a load, with all that its pin needs; the terminal that the load's minus goes to. */
function switchFor(bench: Bench, kind: 'MOSFET' | 'driver' | 'transistor', pin: string): string {
  const { pad, minus, logicV } = bench;
  if (kind === 'driver') {
    const id = pad.add('switch-driver');
    pad.wire(pin, `${id}.in`);
    pad.wire(`${id}.gnd`, minus);
    return `${id}.load`;
  }
  if (kind === 'MOSFET') {
    const id = pad.add('switch-mosfet');
    const [series, down] = [
      pad.add('resistor', { ohm: logicV < 5 ? 330 : 270 }),
      pad.add('resistor', { ohm: 100_000 }),
    ];
    pad.wire(pin, `${series}.a`);
    pad.wire(`${series}.b`, `${id}.gate`);
    pad.wire(`${down}.a`, `${id}.gate`);
    pad.wire(`${down}.b`, `${id}.source`);
    pad.wire(`${id}.source`, minus);
    return `${id}.drain`;
  }
  const id = pad.add('switch-transistor');
  const series = pad.add('resistor', { ohm: logicV < 5 ? 390 : 680 });
  pad.wire(pin, `${series}.a`);
  pad.wire(`${series}.b`, `${id}.base`);
  pad.wire(`${id}.emitter`, minus);
  return `${id}.collector`;
}

const flyback = ({ pad }: Bench, load: string) => {
  const diode = pad.add('diode');
  pad.wire(`${diode}.cathode`, `${load}.plus`);
  pad.wire(`${diode}.anode`, `${load}.minus`);
};

const switched =
  (entryId: string, kind: 'MOSFET' | 'driver' | 'transistor'): Module =>
  (bench) => {
    const { pad, board, random } = bench;
    const from = entryId === 'pump-5v' ? bench.rail5 : bench.rail12;
    if (from === null || (kind === 'transistor' && bench.logicV < 5)) return false;
    if (entryId === 'pump-5v' && pad.parts.some((one) => one.entryId === 'battery-lithium')) return false;
    const pin = pad.pin(board, 'out');
    if (!pin) return false;
    const load = pad.add(entryId);
    const low = switchFor(bench, kind, pin);
    const cable = pad.cable(1 + Math.round(random() * 10) / 10, 1);
    pad.wire(from, `${load}.plus`, cable);
    pad.wire(low, `${load}.minus`, cable);
    if (kind !== 'driver') flyback(bench, load);
    return true;
  };

const relayed =
  (activeLow: boolean): Module =>
  (bench) => {
    const { pad, board, rail5, rail12, minus } = bench;
    if (rail5 === null || rail12 === null || (activeLow && bench.logicV < 5)) return false;
    const pin = pad.pin(board, 'out');
    if (!pin) return false;
    const relay = pad.add(activeLow ? 'switch-relay-low' : 'switch-relay-high');
    const load = pad.add('valve-12v');
    pad.wire(rail5, `${relay}.vcc`);
    pad.wire(`${board}.gnd`, `${relay}.gnd`);
    pad.wire(pin, `${relay}.in`);
    if (activeLow) {
      const up = pad.add('resistor', { ohm: 10_000 });
      pad.wire(`${up}.a`, pin);
      pad.wire(`${up}.b`, bench.railLogic);
    }
    const cable = pad.cable(2, 1);
    pad.wire(rail12, `${relay}.common`);
    pad.wire(`${relay}.open`, `${load}.plus`, cable);
    pad.wire(`${load}.minus`, minus, cable);
    flyback(bench, load);
    return true;
  };

/** A valve on a transformer of its own, through a relay's contact. */
const alternating: Module = (bench) => {
  const { pad, board, rail5 } = bench;
  if (rail5 === null) return false;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const [relay, transformer, valve] = [
    pad.add('switch-relay-high'),
    pad.add('supply-24vac'),
    pad.add('valve-24vac'),
  ];
  pad.wire(rail5, `${relay}.vcc`);
  pad.wire(`${board}.gnd`, `${relay}.gnd`);
  pad.wire(pin, `${relay}.in`);
  const cable = pad.cable(3, 1);
  pad.wire(`${transformer}.out`, `${relay}.common`);
  pad.wire(`${relay}.open`, `${valve}.plus`, cable);
  pad.wire(`${valve}.minus`, `${transformer}.gnd`, cable);
  return true;
};

/** Two zones of a timer that was there already, each with a permit contact of ours before its valve. */
const timed: Module = (bench) => {
  const { pad, board, rail5 } = bench;
  const pins = [pad.pin(board, 'out'), pad.pin(board, 'out')];
  // Two coils at once are more than some regulators and ports have left; one supply of 5 V bears them.
  if (rail5 === null || pad.parts.some((one) => one.entryId === 'battery-lithium')) return false;
  const timer = pad.add('timer-24vac');
  for (const [at, pin] of pins.entries()) {
    if (!pin) return at > 0;
    const [relay, valve] = [pad.add('switch-permit'), pad.add('valve-24vac')];
    pad.wire(rail5, `${relay}.vcc`);
    pad.wire(`${board}.gnd`, `${relay}.gnd`);
    pad.wire(pin, `${relay}.in`);
    const cable = pad.cable(3, 1);
    pad.wire(`${timer}.z${at + 1}`, `${relay}.common`);
    pad.wire(`${relay}.open`, `${valve}.plus`, cable);
    pad.wire(`${valve}.minus`, `${timer}.gnd`, cable);
  }
  return true;
};

/** One lamp of three colours with its resistors, on three pins. */
const threeColours: Module = ({ pad, board }) => {
  const pins = ['red', 'green', 'blue'].map((colour) => ({ colour, pin: pad.pin(board, 'out') }));
  if (pins.some(({ pin }) => pin === null)) return false;
  const lamp = pad.add('lamp-three');
  pad.wire(`${lamp}.gnd`, `${board}.gnd`);
  for (const { colour, pin } of pins) if (pin) pad.wire(pin, `${lamp}.${colour}`);
  return true;
};

const display: Module = (bench) => {
  const { pad, board } = bench;
  const [sda, scl] = [pad.pin(board, 'sda'), pad.pin(board, 'scl')];
  if (!sda || !scl) return false;
  for (const entryId of ['display-i2c', 'thermo-i2c']) {
    const address = catalogue.get(entryId)?.addresses[0] ?? null;
    const id = pad.add(entryId, { ownPullUpOhm: 10_000 }, { address });
    pad.wire(bench.railLogic, `${id}.vcc`);
    pad.wire(`${board}.gnd`, `${id}.gnd`);
    pad.wire(sda, `${id}.sda`);
    pad.wire(scl, `${id}.scl`);
  }
  return true;
};

const oneWire: Module = (bench) => {
  const { pad, board } = bench;
  const pin = pad.pin(board, 'one-wire');
  if (!pin) return false;
  const id = pad.add('thermo-one-wire');
  const up = pad.add('resistor', { ohm: 4700 });
  far(bench, id, bench.railLogic, [[`${id}.data`, pin]]);
  pad.wire(`${up}.a`, pin);
  pad.wire(`${up}.b`, bench.railLogic);
  return true;
};

/** Two bus probes in a chain, long enough to want a terminator at its far end; the transceiver brings the near one. */
const bus: Module = (bench) => {
  const { pad, board, rail12 } = bench;
  // From 12 V: five would not be five at the far end of the cable.
  if (rail12 === null || bench.logicV > 4) return false;
  const [tx, rx] = [pad.pin(board, 'tx'), pad.pin(board, 'rx')];
  if (!tx || !rx) return false;
  const transceiver = pad.add('transceiver-33v');
  pad.wire(bench.railLogic, `${transceiver}.vcc`);
  pad.wire(`${board}.gnd`, `${transceiver}.gnd`);
  pad.wire(tx, `${transceiver}.di`);
  pad.wire(rx, `${transceiver}.ro`);
  let last = transceiver;
  for (const address of [1, 2]) {
    const id = pad.add('probe-bus-rods', {}, { address });
    const cable = pad.cable(12, 1);
    pad.wire(address === 1 ? rail12 : `${last}.vcc`, `${id}.vcc`, cable);
    pad.wire(address === 1 ? `${board}.gnd` : `${last}.gnd`, `${id}.gnd`, cable);
    pad.wire(`${last}.a`, `${id}.a`, cable);
    pad.wire(`${last}.b`, `${id}.b`, cable);
    last = id;
  }
  const end = pad.add('resistor', { ohm: 120 });
  pad.wire(`${end}.a`, `${last}.a`);
  pad.wire(`${end}.b`, `${last}.b`);
  return true;
};

const ring: Module = (bench) => {
  const { pad, board, rail5 } = bench;
  if (rail5 === null || bench.logicV < 5) return false;
  if (pad.parts.some((one) => one.entryId === 'battery-lithium')) return false;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const id = pad.add('lamp-ring');
  const cable = pad.cable(0.5, 0.75);
  pad.wire(rail5, `${id}.vcc`, cable);
  pad.wire(bench.minus, `${id}.gnd`, cable);
  pad.wire(pin, `${id}.data`, cable);
  return true;
};

const buzzer: Module = (bench) => {
  const { pad, board } = bench;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const id = pad.add('buzzer');
  pad.wire(bench.railLogic, `${id}.vcc`);
  pad.wire(`${board}.gnd`, `${id}.gnd`);
  pad.wire(pin, `${id}.in`);
  return true;
};

/** A 5 V distance sensor: its answer goes through a divider to a 3.3 V board. */
const distance: Module = (bench) => {
  const { pad, board, rail5, logicV } = bench;
  if (rail5 === null) return false;
  const [trigger, echo] = [pad.pin(board, 'out'), pad.pin(board, 'in')];
  if (!trigger || !echo) return false;
  const id = pad.add('level-ultrasonic');
  const cable = pad.cable(1, 0.34);
  pad.wire(rail5, `${id}.vcc`, cable);
  pad.wire(`${board}.gnd`, `${id}.gnd`, cable);
  pad.wire(trigger, `${id}.trig`, cable);
  if (logicV > 4) pad.wire(`${id}.echo`, echo, cable);
  else {
    const divider = pad.add('divider', { upperOhm: 1000, lowerOhm: 1800 });
    pad.wire(`${id}.echo`, `${divider}.in`, cable);
    pad.wire(`${divider}.out`, echo);
    pad.wire(`${divider}.gnd`, `${board}.gnd`);
  }
  return true;
};

/** A thin branch behind a fuse of its own. */
const thinBranch: Module = (bench) => {
  const { pad, board, rail12 } = bench;
  if (rail12 === null || !pad.parts.some((one) => one.entryId === 'fuse')) return false;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const fuse = pad.add('fuse', { fuseA: 1 });
  const valve = pad.add('valve-12v');
  const low = switchFor(bench, 'MOSFET', pin);
  const cable = pad.cable(1, 0.34);
  pad.wire(rail12, `${fuse}.a`);
  pad.wire(`${fuse}.b`, `${valve}.plus`, cable);
  pad.wire(low, `${valve}.minus`, cable);
  flyback(bench, valve);
  return true;
};

/** The same things drawn otherwise, as other hands would. */

/** A relay that switches the minus of its load. */
const relayedLow: Module = (bench) => {
  const { pad, board, rail5, rail12, minus } = bench;
  if (rail5 === null || rail12 === null) return false;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const [relay, load] = [pad.add('switch-relay-high'), pad.add('valve-12v')];
  pad.wire(rail5, `${relay}.vcc`);
  pad.wire(`${relay}.gnd`, `${board}.gnd`);
  pad.wire(pin, `${relay}.in`);
  const cable = pad.cable(2, 1);
  pad.wire(rail12, `${load}.plus`, cable);
  pad.wire(`${load}.minus`, `${relay}.open`, cable);
  pad.wire(`${relay}.common`, minus);
  flyback(bench, load);
  return true;
};

/** A float between the supply and the pin, with a resistor that pulls down. */
const contactHigh: Module = (bench) => {
  const { pad, board } = bench;
  const pin = pad.pin(board, 'in');
  if (!pin) return false;
  const id = pad.add('contact-float');
  const down = pad.add('resistor', { ohm: 10_000 });
  const cable = pad.cable(2, 0.34);
  pad.wire(`${id}.out`, bench.railLogic, cable);
  pad.wire(`${id}.gnd`, pin, cable);
  pad.wire(`${down}.a`, pin);
  pad.wire(`${down}.b`, `${board}.gnd`);
  return true;
};

/** The resistor on the other side of the lamp. */
const ledBehind: Module = (bench) => {
  const { pad, board, logicV } = bench;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const [resistor, lamp] = [pad.add('resistor', { ohm: logicV < 5 ? 220 : 470 }), pad.add('lamp-led')];
  pad.wire(pin, `${lamp}.anode`);
  pad.wire(`${lamp}.cathode`, `${resistor}.a`);
  pad.wire(`${resistor}.b`, `${board}.gnd`);
  return true;
};

/** The pull-down on the pin's side of the gate resistor. */
const pullDownBefore: Module = (bench) => {
  const { pad, board, rail12, minus, logicV } = bench;
  if (rail12 === null) return false;
  const pin = pad.pin(board, 'out');
  if (!pin) return false;
  const [q, load] = [pad.add('switch-mosfet'), pad.add('valve-12v')];
  const [series, down] = [
    pad.add('resistor', { ohm: logicV < 5 ? 330 : 270 }),
    pad.add('resistor', { ohm: 47_000 }),
  ];
  pad.wire(pin, `${series}.a`);
  pad.wire(`${series}.b`, `${q}.gate`);
  pad.wire(`${down}.a`, pin);
  pad.wire(`${down}.b`, `${board}.gnd`);
  pad.wire(`${q}.source`, minus);
  const cable = pad.cable(2, 1);
  pad.wire(`${load}.plus`, rail12, cable);
  pad.wire(`${load}.minus`, `${q}.drain`, cable);
  flyback(bench, load);
  return true;
};

/** Four more inputs on the bus, with probes on them. */
const moreInputs: Module = (bench) => {
  const { pad, board, logicV } = bench;
  // Its inputs end at 3.6 V.
  if (logicV > 4) return false;
  const [sda, scl] = [pad.pin(board, 'sda'), pad.pin(board, 'scl')];
  if (!sda || !scl) return false;
  const id = pad.add(
    'converter-i2c',
    { ownPullUpOhm: 10_000 },
    { address: catalogue.get('converter-i2c')?.addresses[0] ?? null },
  );
  pad.wire(bench.railLogic, `${id}.vcc`);
  pad.wire(`${board}.gnd`, `${id}.gnd`);
  pad.wire(sda, `${id}.sda`);
  pad.wire(scl, `${id}.scl`);
  for (const input of ['in0', 'in1']) {
    const probe = pad.add('probe-capacitive');
    far(bench, probe, bench.railLogic, [[`${probe}.out`, `${id}.${input}`]]);
  }
  // An input that is left open is wired to ground.
  for (const input of ['in2', 'in3']) pad.wire(`${id}.${input}`, `${board}.gnd`);
  return true;
};

/** Lamps and a switch on the lines of a port expander. */
const morePins: Module = (bench) => {
  const { pad, board, rail12, logicV } = bench;
  const [sda, scl] = [pad.pin(board, 'sda'), pad.pin(board, 'scl')];
  if (!sda || !scl || rail12 === null || logicV > 4) return false;
  const id = pad.add(
    'expander-i2c',
    { ownPullUpOhm: 10_000 },
    { address: catalogue.get('expander-i2c')?.addresses[0] ?? null },
  );
  pad.wire(bench.railLogic, `${id}.vcc`);
  pad.wire(`${board}.gnd`, `${id}.gnd`);
  pad.wire(sda, `${id}.sda`);
  pad.wire(scl, `${id}.scl`);
  const [lamp, resistor] = [pad.add('lamp-led'), pad.add('resistor', { ohm: 330 })];
  pad.wire(`${id}.x0`, `${resistor}.a`);
  pad.wire(`${resistor}.b`, `${lamp}.anode`);
  pad.wire(`${lamp}.cathode`, `${board}.gnd`);
  const load = pad.add('valve-12v');
  const low = switchFor(bench, 'driver', `${id}.x1`);
  const cable = pad.cable(2, 1);
  pad.wire(rail12, `${load}.plus`, cable);
  pad.wire(low, `${load}.minus`, cable);
  return true;
};

const servo: Module = (bench) => {
  const { pad, board, rail5 } = bench;
  if (rail5 === null || pad.parts.some((one) => one.entryId === 'battery-lithium')) return false;
  const pin = pad.pin(board, 'pwm');
  if (!pin) return false;
  const id = pad.add('valve-servo');
  const cable = pad.cable(0.5, 0.75);
  pad.wire(rail5, `${id}.vcc`, cable);
  pad.wire(bench.minus, `${id}.gnd`, cable);
  pad.wire(pin, `${id}.in`, cable);
  return true;
};

/** A probe that says wet or dry, on a pin that reads on and off. */
const comparator: Module = (bench) => {
  const pin = bench.pad.pin(bench.board, 'in');
  if (!pin) return false;
  const id = bench.pad.add('probe-comparator');
  far(bench, id, bench.railLogic, [[`${id}.out`, pin]]);
  return true;
};

/** A battery monitor of two plain resistors. */
const monitorPlain: Module = (bench) => {
  const { pad, board, rail12, logicV } = bench;
  if (rail12 === null || !pad.parts.some((one) => one.entryId === 'battery-12v')) return false;
  const pin = pad.pin(board, 'adc');
  if (!pin) return false;
  const [upper, lower] = [
    pad.add('resistor', { ohm: logicV < 5 ? 47_000 : 22_000 }),
    pad.add('resistor', { ohm: 10_000 }),
  ];
  pad.wire(rail12, `${upper}.a`);
  pad.wire(`${upper}.b`, `${lower}.a`);
  pad.wire(`${lower}.a`, pin);
  pad.wire(`${lower}.b`, `${board}.gnd`);
  return true;
};

/** A probe of 5 V signals read by a 3.3 V board over a level shifter. */
const shifted: Module = (bench) => {
  const { pad, board, rail5, logicV } = bench;
  if (rail5 === null || logicV > 4) return false;
  const [trigger, echo] = [pad.pin(board, 'out'), pad.pin(board, 'in')];
  if (!trigger || !echo) return false;
  const [id, shifter] = [pad.add('level-ultrasonic'), pad.add('level-shifter')];
  const cable = pad.cable(1, 0.34);
  pad.wire(rail5, `${id}.vcc`, cable);
  pad.wire(`${board}.gnd`, `${id}.gnd`, cable);
  pad.wire(bench.railLogic, `${shifter}.lv`);
  pad.wire(rail5, `${shifter}.hv`);
  pad.wire(`${board}.gnd`, `${shifter}.gnd`);
  pad.wire(trigger, `${shifter}.lv1`);
  pad.wire(`${shifter}.hv1`, `${id}.trig`, cable);
  pad.wire(echo, `${shifter}.lv2`);
  pad.wire(`${shifter}.hv2`, `${id}.echo`, cable);
  return true;
};

/** A second board on the same supply, with a probe and a lamp of its own. */
const secondBoard: Module = (bench) => {
  const { pad, rail5, random } = bench;
  if (rail5 === null) return false;
  const { entryId, logicV, out } = pick(BOARDS, random);
  const board = pad.add(entryId);
  pad.wire(rail5, `${board}.v5`);
  pad.wire(`${board}.gnd`, bench.minus);
  const other: Bench = { ...bench, board, logicV, railLogic: `${board}.${out}` };
  return capacitive(other) && led(1, false)(other);
};

/** Two pumps, of which the program lets one run at a time: together they would be too much for the supply. */
const twoPumps: Module = (bench) => {
  const { pad } = bench;
  if (bench.rail12 === null || !pad.parts.some((one) => one.entryId === 'supply-12v')) return false;
  return switched('pump-12v', 'MOSFET')(bench) && switched('pump-12v', 'driver')(bench);
};

/** A lamp that shows that the supply is there. */
const powerLamp: Module = (bench) => {
  const { pad, board, rail5 } = bench;
  if (rail5 === null) return false;
  const [lamp, resistor] = [pad.add('lamp-led'), pad.add('resistor', { ohm: 680 })];
  pad.wire(rail5, `${resistor}.a`);
  pad.wire(`${resistor}.b`, `${lamp}.anode`);
  pad.wire(`${lamp}.cathode`, `${board}.gnd`);
  return true;
};

const MODULES: Readonly<Record<string, Module>> = {
  capacitive,
  fork,
  volumetric,
  ntc,
  'bare electrodes': bare('probe-electrodes-bare', 10_000),
  'bare thermistor': bare('thermo-ntc-bare', 10_000),
  'bare light cell': bare('light-cell-bare', 10_000),
  'irrigation timer': timed,
  'three colours': threeColours,
  loop: loop('shunt'),
  'loop, plain resistor': loop('resistor'),
  divider: divided(false),
  'divider, plain resistors': divided(true),
  monitor,
  float: contact('contact-float'),
  rain: contact('contact-rain'),
  LED: led(1, false),
  'LED, sunk': led(1, true),
  'two LEDs': led(2, false),
  'pump, MOSFET': switched('pump-12v', 'MOSFET'),
  'hose pump, driver': switched('pump-hose', 'driver'),
  'small pump, MOSFET': switched('pump-5v', 'MOSFET'),
  'small pump, transistor': switched('pump-5v', 'transistor'),
  'valve, MOSFET': switched('valve-12v', 'MOSFET'),
  'relay, low': relayed(true),
  'relay, high': relayed(false),
  'valve, AC': alternating,
  display,
  '1-Wire': oneWire,
  bus,
  ring,
  buzzer,
  distance,
  'thin branch': thinBranch,
  'relay in the minus': relayedLow,
  'float to plus': contactHigh,
  'LED, resistor behind': ledBehind,
  'pull-down before': pullDownBefore,
  converter: moreInputs,
  expander: morePins,
  servo,
  comparator,
  'monitor, plain resistors': monitorPlain,
  shifter: shifted,
  'second board': secondBoard,
  'two pumps': twoPumps,
  'power lamp': powerLamp,
};

export type Sound = { readonly netlist: Netlist; readonly modules: readonly string[] };

export function soundWiring(seed: number): Sound {
  const random = randomOf(seed);
  const bench = begin(random);
  const modules: string[] = [];
  const wanted = 2 + Math.floor(random() * 5);
  for (let tries = 0; tries < 40 && modules.length < wanted; tries += 1) {
    const [name, module] = pick(Object.entries(MODULES), random);
    if (modules.includes(name)) continue;
    if (module(bench)) modules.push(name);
  }
  return { netlist: bench.pad.netlist(), modules };
}
