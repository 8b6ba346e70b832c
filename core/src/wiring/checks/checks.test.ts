import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../../catalogue/catalogue.ts';
import { readCircuit } from '../circuit.ts';
import { applyRemedy } from '../edit.ts';
import { runCheck, SEVERITIES, type Setting } from '../finding.ts';
import { netlistSchema, type End } from '../netlist.ts';
import { sketchNetlist, type Sketched } from '../sketchNetlist.ts';
import { checkWiring, CHECKS } from './all.ts';

const catalogue = catalogueWith([]);
const indoors: Setting = { radioOn: true, tapWater: false };

type Wiring = readonly [text: string, more?: Sketched, setting?: Partial<Setting>];
type Case = {
  /** A wiring that trips the check, and what its sentence must name. */
  readonly trips: Wiring;
  readonly says: RegExp;
  /** The same idea in order. */
  readonly clear: Wiring;
  /** A wiring that cannot be judged; a check never passes by being unable to tell. */
  readonly unknown?: Wiring;
  /** The first remedy, applied, silences the check. */
  readonly mends?: boolean;
};

const run = (id: string, [text, more = {}, setting = {}]: Wiring) => {
  const check = CHECKS.find((one) => one.id === id);
  if (!check) throw new Error(`no check ${id}`);
  const netlist = netlistSchema.parse(sketchNetlist(text, more));
  return { netlist, result: runCheck(check, readCircuit(netlist, catalogue), { ...indoors, ...setting }) };
};

// Two boards that are fed, so that what hangs on them can be judged.
const roof = 'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd';
const stern = 'stern: board-8bit-six; v: supply-usb; v.out - stern.v5; v.gnd - stern.gnd';
const usb = 'usb: supply-usb';
const stick = 'l1: probe-capacitive; l1.vcc - roof.out33; l1.gnd - roof.gnd';
const mosfet = `${roof}; q: switch-mosfet; q.source - roof.gnd`;
const pumpOn12 = 'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus';
const sternStick = 'l1: probe-capacitive; l1.vcc - stern.out5; l1.gnd - stern.gnd';
const pulledDown = 'd: resistor; d.a - q.gate; d.b - q.source';
const switched = `${mosfet}; ${pumpOn12}; pump.minus - q.drain; bat.gnd - roof.gnd`;
const bus = 'rs: transceiver-33v; b1: probe-bus-rods; rs.a - b1.a @c; rs.b - b1.b @c';
const loop = 'sup: supply-12v; sup.gnd - roof.gnd; lp: probe-loop; lp.plus - sup.out';

const down = { parts: { d: { settings: { ohm: 100_000 } } } } as const;

const CASES: Readonly<Record<string, Case>> = {
  unpowered: {
    trips: [`${roof}; l1: probe-capacitive; l1.vcc - roof.out33`],
    says: /l1 ground is not wired/,
    clear: [`${roof}; ${stick}`],
    mends: true,
  },
  'supply-range': {
    trips: [
      `${roof}; bat: battery-12v; bat.gnd - roof.gnd; l1: probe-capacitive; l1.vcc - bat.plus; l1.gnd - roof.gnd`,
    ],
    says: /l1 bears 5\.50 V and gets 14\.4 V from bat \+/,
    clear: [`${roof}; ${stick}`],
    unknown: [`x: supply-own; g: battery-12v; l1: probe-capacitive; l1.vcc - x.out; l1.gnd - g.gnd`],
    mends: true,
  },
  'load-voltage': {
    trips: ['bat: battery-12v; pump: pump-5v; pump.plus - bat.plus'],
    says: /made for 5\.0 V and gets 14\.4 V/,
    clear: [pumpOn12],
    unknown: [
      'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus',
      { parts: { pump: { settings: { ratedV: null } } } },
    ],
  },
  'supplies-joined': {
    trips: [`${roof}; ${usb}; usb.out - roof.out33`],
    says: /usb 5 V and roof 3\.3 V out|roof 3\.3 V out and usb 5 V/,
    clear: [roof],
  },
  short: {
    trips: [`${roof}; ${usb}; usb.out - roof.gnd`],
    says: /a short/,
    clear: [roof],
  },
  'common-ground': {
    trips: [`${roof}; l1: probe-capacitive; l1.out - roof.p34; l1.vcc - roof.out33`],
    says: /joined by a signal but have no ground in common/,
    clear: [`${roof}; ${stick}; l1.out - roof.p34`],
    mends: true,
  },
  'regulator-load': {
    trips: [`${roof}; pump: pump-5v; pump.plus - roof.out33`],
    says: /pump hangs on roof 3\.3 V out/,
    clear: [`${roof}; ${stick}`],
  },
  'supply-load': {
    // three rings of 720 mA from a 2 A supply
    trips: [
      `${usb}; ${['ring', 'r2', 'r3'].map((id) => `${id}: lamp-ring; ${id}.vcc - usb.out; ${id}.gnd - usb.gnd`).join('; ')}`,
    ],
    says: /usb 5 V gives all it can, 2\.0 A, with everything at its busiest/,
    clear: [`${usb}; ring: lamp-ring; ring.vcc - usb.out; ring.gnd - usb.gnd`],
    unknown: [
      `${usb}; ring: lamp-ring; ring.vcc - usb.out`,
      { parts: { ring: { settings: { activeMa: null, peakMa: null } } } },
    ],
  },
  'panel-match': {
    trips: ['bat: battery-lithium; sun: solar-panel; sun.plus - bat.plus'],
    says: /sun has a charger for 12\.0 V; the battery reaches 4\.20 V/,
    clear: ['bat: battery-12v; sun: solar-panel; sun.plus - bat.plus'],
    unknown: [
      'bat: battery-12v; sun: solar-panel; sun.plus - bat.plus',
      { parts: { sun: { settings: { ratedV: null } } } },
    ],
  },
  'fuse-missing': {
    trips: [pumpOn12],
    says: /bat feeds pump without a fuse/,
    clear: ['bat: battery-12v; f: fuse; f.a - bat.plus; pump: pump-12v; pump.plus - f.b'],
    mends: true,
  },
  'fuse-size': {
    trips: [
      'bat: battery-12v; f: fuse; f.a - bat.plus @c; pump: pump-12v; pump.plus - f.b @c',
      { parts: { f: { settings: { fuseA: 10 } } }, cables: { c: { areaMm2: 1 } } },
    ],
    // 1 mm² bears 6 A; the pump's 3 A start wants 4 A at least
    says: /f is 10\.0 A; the thinnest cable behind it, 1\.00 mm², bears 6\.0 A/,
    clear: [
      'bat: battery-12v; f: fuse; f.a - bat.plus @c; pump: pump-12v; pump.plus - f.b @c',
      { parts: { f: { settings: { fuseA: 4 } } }, cables: { c: { areaMm2: 1 } } },
    ],
    unknown: [
      'bat: battery-12v; f: fuse; f.a - bat.plus; pump: pump-12v; pump.plus - f.b @c',
      { cables: { c: { areaMm2: 1 } } },
    ],
    mends: true,
  },
  'cable-drop': {
    // A pump of 12 V and 0.9 A is 13.3 Ω; 2 × 20 m × 0.0175 / 0.5 = 1.4 Ω: of 14.4 V 1.36 V are lost, more than 5 %.
    trips: [
      'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus @c; pump.minus - bat.gnd @c',
      { cables: { c: { lengthM: 20, areaMm2: 0.5 } } },
    ],
    says: /20\.0 m, 0\.50 mm².*loses 1\.3[67] V of 14\.4 V at 97\d mA/,
    clear: [
      'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus @c; pump.minus - bat.gnd @c',
      { cables: { c: { lengthM: 5, areaMm2: 0.5 } } },
    ],
    unknown: [
      'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus @c',
      { cables: { c: { lengthM: null } } },
    ],
    mends: true,
  },
  'over-voltage': {
    trips: [`${roof}; m1: probe-fork; m1.vcc - u.out; m1.gnd - roof.gnd; m1.out - roof.p34`],
    says: /m1 signal can put (5\.0|4\.99) V on roof P34, which bears 3\.60 V/,
    clear: [`${roof}; m1: probe-fork; m1.vcc - roof.out33; m1.gnd - roof.gnd; m1.out - roof.p34`],
    unknown: [`${roof}; own: probe-own; own.out - roof.p34`],
    mends: true,
  },
  'logic-too-low': {
    trips: [`${roof}; k: switch-relay-low; k.in - roof.p18`],
    says: /roof P18 gives 3\.30 V; k input wants at least 4\.0 V/,
    clear: [`${stern}; k: switch-relay-low; k.in - stern.p4`],
    unknown: [`${roof}; d: driver-own; d.in - roof.p18`],
  },
  'two-users': {
    trips: [`${roof}; l1: probe-capacitive; c2: probe-capacitive; l1.out - roof.p34; c2.out - roof.p34`],
    says: /roof P34 is shared by l1 signal and c2 signal/,
    clear: [`${roof}; l1: probe-capacitive; c2: probe-capacitive; l1.out - roof.p34; c2.out - roof.p35`],
  },
  'strap-pin': {
    trips: [`${roof}; q: switch-driver; q.in - roof.p12`],
    says: /roof P12 decides how the board starts/,
    clear: [`${roof}; q: switch-driver; q.in - roof.p18`],
    mends: true,
  },
  'serial-pin': {
    trips: [`${stern}; q: switch-driver; q.in - stern.p1`],
    says: /stern P1 is one of the serial pins/,
    clear: [`${stern}; q: switch-driver; q.in - stern.p4`],
    mends: true,
  },
  'pin-cannot': {
    trips: [`${roof}; l1: probe-capacitive; l1.out - roof.p18`],
    says: /l1 signal wants a pin that reads a voltage; roof P18 cannot/,
    clear: [`${roof}; l1: probe-capacitive; l1.out - roof.p34`],
    mends: true,
  },
  'pin-current': {
    // The pin has 0.33 V / 20 mA = 16.5 Ω of its own, the lamp 1 Ω: (3.3 − 2.0) / 64.5 Ω = 20.2 mA; 1.3 / 50.5 = 25.7.
    trips: [
      `${roof}; led: lamp-led; r: resistor; roof.p18 - r.a; r.b - led.anode; led.cathode - roof.gnd`,
      { parts: { r: { settings: { ohm: 33 } } } },
    ],
    says: /roof P18 would carry 2[56] mA with roof P18 on; it may give 20 mA/,
    clear: [
      `${roof}; led: lamp-led; r: resistor; roof.p18 - r.a; r.b - led.anode; led.cathode - roof.gnd`,
      { parts: { r: { settings: { ohm: 330 } } } },
    ],
    unknown: [
      `${roof}; l1: probe-capacitive; l1.vcc - roof.p18; l1.gnd - roof.gnd`,
      { parts: { l1: { perReading: true, settings: { activeMa: null, peakMa: null } } } },
    ],
  },
  'pins-total': {
    // A pin of 7 mA has 0.33 V / 7 mA = 47 Ω of its own: six times (3.3 − 2.0) / (100 + 47 + 1) Ω = 8.8 mA are 53 mA; this board allows 46.
    trips: [
      `s: board-32bit-seven; w: supply-usb; w.out - s.v5; w.gnd - s.gnd; ${[0, 1, 2, 3, 4, 5].map((n) => `l${n}: lamp-led; r${n}: resistor; s.p${n} - r${n}.a; r${n}.b - l${n}.anode; l${n}.cathode - s.gnd`).join('; ')}`,
      { parts: Object.fromEntries([0, 1, 2, 3, 4, 5].map((n) => [`r${n}`, { settings: { ohm: 100 } }])) },
    ],
    says: /would give 53 mA together; the board allows 46 mA/,
    clear: [
      's: board-32bit-seven; w: supply-usb; w.out - s.v5; w.gnd - s.gnd; l0: lamp-led; r0: resistor; s.p0 - r0.a; r0.b - l0.anode; l0.cathode - s.gnd',
      { parts: { r0: { settings: { ohm: 330 } } } },
    ],
    unknown: [
      's: board-32bit-seven; w: supply-usb; w.out - s.v5; w.gnd - s.gnd; l0: lamp-led; r0: resistor; s.p0 - r0.a; r0.b - l0.anode; l0.cathode - s.gnd',
      { parts: { r0: { settings: { ohm: 330 } }, s: { settings: { pinsTotalMa: null } } } },
    ],
  },
  'read-power': {
    trips: [`${stern}; m1: probe-fork; m1.vcc - stern.out5`, { parts: { m1: { perReading: true } } }],
    says: /m1 is to be powered only while it is read/,
    clear: [`${stern}; m1: probe-fork; m1.vcc - stern.p4`, { parts: { m1: { perReading: true } } }],
    mends: true,
  },
  'fed-from-pin': {
    trips: [`${roof}; pump: pump-5v; pump.plus - roof.p18`],
    says: /pump is fed from roof P18/,
    clear: [pumpOn12],
  },
  'analog-range': {
    trips: [
      'w: board-wifi-one; usb: supply-usb; usb.out - w.v5; usb.gnd - w.gnd; l1: probe-capacitive; l1.out - w.in0; l1.vcc - w.out33; l1.gnd - w.gnd',
    ],
    says: /l1 signal reaches 3\.0 V; w IN0 reads full scale at 1\.0 V/,
    clear: [`${roof}; ${stick}; l1.out - roof.p34`],
    unknown: [`${roof}; own: probe-own; own.out - roof.p34`],
    mends: true,
  },
  'analog-small': {
    trips: [
      `${stern}; d: divider; ${sternStick}; l1.out - d.in; d.out - stern.in0; d.gnd - stern.gnd`,
      { parts: { d: { settings: { upperOhm: 10_000, lowerOhm: 10_000 } } } },
    ],
    // The probe has 10 kΩ of its own: a third of 3.0 V is left, of 5 V.
    says: /reaches only 1\.0 V of the 5\.0 V.*20 %/,
    clear: [`${stern}; ${sternStick}; l1.out - stern.in0`],
  },
  'analog-count': {
    trips: ['w: board-wifi-one; l1: probe-capacitive; c2: probe-capacitive'],
    says: /2 signals want an analog input \(l1 and c2\); w has 1/,
    clear: [`${roof}; l1: probe-capacitive; c2: probe-capacitive`],
    mends: true,
  },
  'adc-radio': {
    trips: [`${roof}; l1: probe-capacitive; l1.out - roof.p25`],
    says: /roof P25 reads nothing while the radio is on/,
    clear: [`${roof}; l1: probe-capacitive; l1.out - roof.p34`],
    unknown: [`${roof}; l1: probe-capacitive; l1.out - roof.p25`, {}, { radioOn: null }],
    mends: true,
  },
  'adc-reference': {
    trips: [`${stern}; n: thermo-ntc; n.vcc - stern.out33; n.out - stern.in0; n.gnd - stern.gnd`],
    says: /follows its 3\.30 V, but stern IN0 measures against 5\.0 V/,
    clear: [`${stern}; n: thermo-ntc; n.vcc - stern.out5; n.out - stern.in0; n.gnd - stern.gnd`],
    mends: true,
  },
  'source-impedance': {
    trips: [
      `${stern}; m: monitor-battery; m.out - stern.in0`,
      { parts: { m: { settings: { upperOhm: 1_000_000, lowerOhm: 220_000 } } } },
    ],
    // 1 MΩ ∥ 220 kΩ = 180 kΩ
    says: /has 180\.3 kΩ behind it; stern IN0 wants at most 10 kΩ/,
    clear: [`${stern}; l1: probe-capacitive; l1.out - stern.in0`],
    unknown: [`${stern}; own: probe-own; own.out - stern.in0`],
  },
  'divider-load': {
    trips: [
      `${roof}; l1: probe-capacitive; d: divider; l1.out - d.in; d.out - roof.p34`,
      { parts: { d: { settings: { upperOhm: 10_000, lowerOhm: 10_000 } } } },
    ],
    // 10 / (10 + 20)
    says: /takes 33 % of l1 signal away/,
    clear: [
      `${roof}; v: probe-volumetric; d: divider; v.out - d.in; d.out - roof.p34`,
      { parts: { d: { settings: { upperOhm: 10_000, lowerOhm: 10_000 } } } },
    ],
    unknown: [`${roof}; l1: probe-capacitive; d: divider; l1.out - d.in; d.out - roof.p34`],
  },
  'thermistor-resistor': {
    trips: ['n: thermo-ntc', { parts: { n: { settings: { ohm: 1000 } } } }],
    says: /With 1 kΩ the coarsest degree of n/,
    clear: ['n: thermo-ntc'],
    unknown: ['n: thermo-ntc', { parts: { n: { settings: { betaK: null } } } }],
    mends: true,
  },
  'bare-resistor': {
    trips: [`${roof}; c: light-cell-bare; c.a - roof.out33; c.b - roof.p34`],
    // √(100 kΩ × 1 kΩ) = 10 kΩ
    says: /c is only a resistance: without a fixed resistor beside it roof P34 sees the same voltage whatever it measures\. 10 kΩ/,
    clear: [
      `${roof}; c: light-cell-bare; c.a - roof.gnd; c.b - roof.p34; r: resistor; r.a - roof.p34; r.b - roof.out33`,
      { parts: { r: { settings: { ohm: 10_000 } } } },
    ],
    unknown: [
      `${roof}; c: light-cell-bare; c.a - roof.out33; c.b - roof.p34`,
      { parts: { c: { settings: { leastOhm: null } } } },
    ],
    mends: true,
  },
  'led-resistor': {
    trips: [`${roof}; led: lamp-led; led.anode - roof.p18; led.cathode - roof.gnd`],
    // The pin alone, 16.5 Ω, and the lamp's 1 Ω are left: (3.3 − 2.0) / 17.5 Ω = 74 mA.
    says: /led has no series resistor: 74 mA would flow, and it bears 25 mA/,
    clear: [
      `${roof}; led: lamp-led; r: resistor; roof.p18 - r.a; r.b - led.anode; led.cathode - roof.gnd`,
      { parts: { r: { settings: { ohm: 330 } } } },
    ],
    unknown: [`${roof}; led: lamp-led; r: resistor; roof.p18 - r.a; r.b - led.anode; led.cathode - roof.gnd`],
    mends: true,
  },
  flyback: {
    trips: [switched],
    says: /pump has no flyback diode/,
    clear: [`${switched}; d: diode; d.cathode - pump.plus; d.anode - pump.minus`],
    unknown: [
      `${pumpOn12}; drv: switch-driver; drv.load - pump.minus`,
      { parts: { drv: { settings: { hasFlyback: null } } } },
    ],
    mends: true,
  },
  'base-resistor': {
    trips: [
      `${stern}; q: switch-transistor; q.base - stern.p4; ${pumpOn12.replace('12v; pump.', '12v; pump.')}; pump.minus - q.collector`,
      { parts: { pump: { settings: { activeMa: 180 } } } },
    ],
    // (5 − 0.7) × 100 / (180 mA × 3) = 796 Ω, next E12 value below 680 Ω
    says: /q has no base resistor; 680 Ω suits 180 mA/,
    clear: [
      `${stern}; q: switch-transistor; r: resistor; r.a - stern.p4; r.b - q.base; ${pumpOn12}; pump.minus - q.collector`,
      { parts: { pump: { settings: { activeMa: 180 } }, r: { settings: { ohm: 680 } } } },
    ],
    unknown: [
      `${stern}; q: switch-transistor; r: resistor; r.a - stern.p4; r.b - q.base; ${pumpOn12}; pump.minus - q.collector`,
      { parts: { pump: { settings: { activeMa: 180 } } } },
    ],
    mends: true,
  },
  'gate-resistor': {
    trips: [`${mosfet}; q.gate - roof.p18`],
    says: /q has no gate resistor; 180 Ω keeps roof P18 below 20 mA/,
    clear: [
      `${mosfet}; r: resistor; r.a - roof.p18; r.b - q.gate`,
      { parts: { r: { settings: { ohm: 220 } } } },
    ],
    unknown: [`${mosfet}; r: resistor; r.a - roof.p18; r.b - q.gate`],
    mends: true,
  },
  'gate-pull-down': {
    trips: [`${mosfet}; q.gate - roof.p18`],
    says: /q has no pull-down: its gate floats until the program sets roof P18/,
    clear: [`${mosfet}; q.gate - roof.p18; ${pulledDown}`, { parts: { d: { settings: { ohm: 100_000 } } } }],
    mends: true,
  },
  'gate-drive': {
    trips: [`${roof}; q: switch-mosfet-10v; q.gate - roof.p18`],
    says: /q wants 10\.0 V at its gate; roof P18 gives 3\.30 V/,
    clear: [`${mosfet}; q.gate - roof.p18`],
    unknown: [`${mosfet}; q.gate - roof.p18`, { parts: { q: { settings: { gateFullOnV: null } } } }],
    mends: true,
  },
  'switch-rating': {
    trips: [`${roof}; q: switch-transistor; ${pumpOn12}; pump.minus - q.collector`],
    says: /q switches up to 45\.0 V and 800 mA; the load brings 14\.4 V and 3\.0 A/,
    clear: [switched],
    unknown: [switched, { parts: { pump: { settings: { activeMa: null, peakMa: null } } } }],
  },
  'relay-boot': {
    trips: [`${stern}; k: switch-relay-low; k.in - stern.p4; k.vcc - stern.out5`],
    says: /k is on when its input is low/,
    clear: [`${stern}; k: switch-relay-high; k.in - stern.p4; k.vcc - stern.out5`],
    unknown: [
      `${stern}; k: switch-relay-low; k.in - stern.p4`,
      { parts: { k: { settings: { activeLow: null } } } },
    ],
    mends: true,
  },
  alternating: {
    trips: ['ac: supply-24vac; v: valve-24vac; q: switch-mosfet; v.plus - ac.out; v.minus - q.drain'],
    says: /q would hang on the alternating current of ac/,
    clear: [
      'ac: supply-24vac; v: valve-24vac; k: switch-relay-high; k.common - ac.out; k.open - v.plus; v.minus - ac.gnd',
    ],
  },
  'i2c-address': {
    trips: [
      `${roof}; d: probe-digital-capacitive; e: probe-digital-capacitive; d.sda - roof.p21; e.sda - roof.p21`,
      { parts: { d: { address: 0x36 }, e: { address: 0x36 } } },
    ],
    says: /d and e share address 0x36/,
    clear: [
      `${roof}; d: probe-digital-capacitive; e: probe-digital-capacitive; d.sda - roof.p21; e.sda - roof.p21`,
      { parts: { d: { address: 0x36 }, e: { address: 0x37 } } },
    ],
    unknown: [
      `${roof}; d: probe-digital-capacitive; e: probe-digital-capacitive; d.sda - roof.p21; e.sda - roof.p21`,
      { parts: { d: { address: 0x36 } } },
    ],
    mends: true,
  },
  'i2c-pull-up': {
    trips: [
      `${roof}; d: display-i2c; d.sda - roof.p21; d.scl - roof.p22`,
      { parts: { d: { settings: { ownPullUpOhm: null } } } },
    ],
    says: /has no pull-ups; 10 kΩ each suits it/,
    clear: [`${roof}; d: display-i2c; d.sda - roof.p21; d.scl - roof.p22`],
    unknown: [`${roof}; d: display-i2c; d.sda - roof.p21 @c`, { cables: { c: { lengthM: null } } }],
    mends: true,
  },
  'i2c-long': {
    trips: [`${roof}; d: display-i2c; d.sda - roof.p21 @c`, { cables: { c: { lengthM: 3 } } }],
    says: /I2C runs over 3\.0 m/,
    clear: [`${roof}; d: display-i2c; d.sda - roof.p21 @c`, { cables: { c: { lengthM: 0.5 } } }],
  },
  'one-wire-pull-up': {
    trips: [`${roof}; t: thermo-one-wire; t.data - roof.p18`],
    says: /1-Wire line of t has no pull-up/,
    clear: [
      `${roof}; t: thermo-one-wire; t.data - roof.p18; r: resistor; r.a - t.data; r.b - roof.out33`,
      { parts: { r: { settings: { ohm: 4700 } } } },
    ],
    unknown: [`${roof}; t: thermo-one-wire; t.data - roof.p18; r: resistor; r.a - t.data; r.b - roof.out33`],
    mends: true,
  },
  'rs485-address': {
    trips: [
      `${bus}; b2: probe-bus-rods; b2.a - b1.a @c`,
      { parts: { b1: { address: 1 }, b2: { address: 1 } } },
    ],
    says: /b1 and b2 share address 1/,
    clear: [
      `${bus}; b2: probe-bus-rods; b2.a - b1.a @c`,
      { parts: { b1: { address: 1 }, b2: { address: 2 } } },
    ],
    unknown: [`${bus}; b2: probe-bus-rods; b2.a - b1.a @c`, { parts: { b1: { address: 1 } } }],
    mends: true,
  },
  'rs485-load': {
    // 0.125 of the transceiver and four probes of ten
    trips: [
      `${bus}; ${[2, 3, 4].map((n) => `b${n}: probe-bus-rods; b${n}.a - b1.a`).join('; ')}`,
      { parts: Object.fromEntries([1, 2, 3, 4].map((n) => [`b${n}`, { settings: { unitLoad: 10 } }])) },
    ],
    says: /40\.1 unit loads hang on one RS-485 bus; a transceiver drives 32/,
    clear: [bus],
    unknown: [bus, { parts: { b1: { settings: { unitLoad: null } } } }],
  },
  'rs485-termination': {
    trips: [bus, { cables: { c: { lengthM: 40 } } }],
    says: /40\.0 m long and has one terminator/,
    clear: [bus, { cables: { c: { lengthM: 5 } } }],
    unknown: [bus, { cables: { c: { lengthM: null } } }],
    mends: true,
  },
  'rs485-polarity': {
    trips: ['rs: transceiver-33v; b1: probe-bus-rods; rs.a - b1.b; rs.b - b1.a'],
    says: /A and B are mixed/,
    clear: [bus],
    mends: true,
  },
  'rs485-pair': {
    trips: [bus.replace('; rs.b - b1.b @c', '')],
    says: /B is not on the same wire as the B of the others/,
    clear: [bus],
  },
  'rs485-transceiver': {
    trips: ['rs: transceiver-5v; b1: probe-bus-rods; rs.a - b1.a; rs.b - b1.b'],
    says: /rs needs a pin for its direction/,
    clear: [bus],
    unknown: [
      'rs: transceiver-5v; b1: probe-bus-rods; rs.a - b1.a; rs.b - b1.b',
      { parts: { rs: { settings: { selfDirected: null } } } },
    ],
  },
  'loop-shunt': {
    trips: [`${roof}; ${loop}; lp.minus - roof.p34`],
    // 3.3 V / 21 mA = 157 Ω, next E24 value below 150 Ω
    says: /lp has no shunt at roof P34/,
    clear: [`${roof}; ${loop}; lp.minus - roof.p34; sh: shunt; sh.in - lp.minus; sh.gnd - roof.gnd`],
    unknown: [
      `${roof}; ${loop}; lp.minus - roof.p34; sh: shunt; sh.in - lp.minus`,
      { parts: { sh: { settings: { ohm: null } } } },
    ],
    mends: true,
  },
  'loop-voltage': {
    // 0.02 A × 470 Ω = 9.4 V of 12 V: 2.6 V would be left for the probe; with less than its 8 V it gives less current, and 12 V × 400 Ω / 870 Ω = 5.5 V are left.
    trips: [
      `${roof}; ${loop}; lp.minus - roof.p34; sh: shunt; sh.in - lp.minus; sh.gnd - roof.gnd`,
      { parts: { sh: { settings: { ohm: 470 } } } },
    ],
    says: /lp wants 8\.0 V across itself at 20 mA; 5\.52 V are left for it/,
    clear: [`${roof}; ${loop}; lp.minus - roof.p34; sh: shunt; sh.in - lp.minus; sh.gnd - roof.gnd`],
    unknown: [
      `${roof}; ${loop}; lp.minus - roof.p34; sh: shunt; sh.in - lp.minus; sh.gnd - roof.gnd`,
      { parts: { sh: { settings: { ohm: null } } } },
    ],
  },
  'not-in-catalogue': {
    trips: ['x: nobody-knows'],
    says: /x is a "nobody-knows"/,
    clear: [roof],
  },
  'open-signal': {
    trips: [`${roof}; ${stick}`],
    says: /l1 signal is not wired/,
    clear: [`${roof}; ${stick}; l1.out - roof.p34`],
  },
  'line-mark': {
    trips: ['l1: probe-capacitive'],
    says: /l1 has a line: push it in no further/,
    clear: ['b1: probe-bus-rods'],
    unknown: ['l1: probe-capacitive', { parts: { l1: { settings: { lineMark: null } } } }],
  },
  'humidity-in-soil': {
    trips: ['h: probe-humidity', { parts: { h: { stands: { list: 'probes', id: 'h' } } } }],
    says: /always say wet/,
    clear: ['h: probe-humidity'],
  },
  'cable-label': {
    trips: [
      'l1: probe-capacitive; c2: probe-capacitive; l1.out - c2.out @a; l1.gnd - c2.gnd @b',
      { cables: { a: { label: 'C', colour: 'red' }, b: { label: 'C', colour: 'blue' } } },
    ],
    says: /Two cables are called C/,
    clear: [
      'l1: probe-capacitive; c2: probe-capacitive; l1.out - c2.out @a',
      { cables: { a: { label: 'C', colour: 'red' } } },
    ],
  },
  mains: {
    trips: ['g: plug-mains; k: switch-relay-high; g.plug - k.open'],
    says: /has a wire on it\. Take it off.*licensed electrician/,
    clear: ['bat: battery-12v'],
  },
  'drinking-water': {
    trips: ['v: valve-12v', {}, { tapWater: true }],
    says: /backflow preventer is needed.*local code/,
    clear: ['v: valve-12v', {}, { tapWater: false }],
    unknown: ['v: valve-12v', {}, { tapWater: null }],
  },
  lithium: {
    trips: ['b: battery-lithium-bare'],
    says: /b has no protection: nothing keeps it from being emptied too far/,
    clear: ['b: battery-12v'],
    unknown: ['b: battery-lithium', { parts: { b: { settings: { hasProtection: null } } } }],
    mends: true,
  },
  'eaten-from': {
    trips: [`${roof}; f: probe-fork; f.vcc - roof.out33; f.gnd - roof.gnd`],
    says: /f has bare metal in the soil, which corrodes into it\. Keep it out of pots and beds that people eat from/,
    clear: [`${roof}; ${stick}`],
  },
  solder: {
    trips: [`${roof}; r: resistor`],
    says: /Solder with the window open/,
    clear: [roof],
  },
  'fail-safe': {
    trips: ['f: contact-float'],
    says: /f: fit it so that its contact is closed while there is water/,
    clear: ['f: contact-rain'],
  },
  'load-runs': {
    // Its minus on ground beside the switch.
    trips: [`${switched}; q.gate - roof.p18; ${pulledDown}; pump.minus - bat.gnd`, down],
    says: /pump runs all the time: it has 14\.4 V with everything off/,
    clear: [`${switched}; q.gate - roof.p18; ${pulledDown}`, down],
  },
  'input-driven': {
    trips: [`${roof}; b: buzzer; b.vcc - roof.out33; b.gnd - roof.gnd; b.in - roof.p34`],
    says: /Nothing ever drives b input high: it sees 0\.00? V at most/,
    clear: [`${roof}; b: buzzer; b.vcc - roof.out33; b.gnd - roof.gnd; b.in - roof.p18`],
  },
  'fed-backwards': {
    trips: [
      `bat: battery-lithium; ${usb}; bat.gnd - usb.gnd; d: diode; d.anode - usb.out; d.cathode - bat.plus`,
    ],
    says: /bat would be charged with .* by something that is no charger for it/,
    clear: [
      'bat: battery-lithium; sun: solar-panel-lithium; f: fuse; bat.plus - f.a; f.b - sun.plus; sun.gnd - bat.gnd',
    ],
  },
  heat: {
    // 14.4 V across 220 Ω: 14.4² / 220 = 0.94 W.
    trips: [
      'bat: battery-12v; r: resistor; r.a - bat.plus; r.b - bat.gnd',
      { parts: { r: { settings: { ohm: 220 } } } },
    ],
    says: /r turns 94\d mW into heat .*; one of the usual size bears 250 mW/,
    clear: [
      'bat: battery-12v; r: resistor; r.a - bat.plus; r.b - bat.gnd',
      { parts: { r: { settings: { ohm: 2200 } } } },
    ],
  },
  'half-on': {
    // 5 V at a gate that wants 10: the pump limps.
    trips: [
      `${stern}; q: switch-mosfet-10v; q.source - bat.gnd; bat.gnd - stern.gnd; q.gate - stern.p4; ${pumpOn12}; pump.minus - q.drain`,
    ],
    says: /q is only half on with stern P4 on/,
    clear: [
      `${stern}; q: switch-mosfet; q.source - bat.gnd; bat.gnd - stern.gnd; q.gate - stern.p4; ${pumpOn12}; pump.minus - q.drain`,
    ],
  },
  'diode-current': {
    trips: [`${switched}; q.gate - roof.p18; d: diode; d.anode - pump.plus; d.cathode - pump.minus`],
    says: /d would carry .* with roof P18 on; it bears 1\.0 A/,
    clear: [`${switched}; q.gate - roof.p18; d: diode; d.cathode - pump.plus; d.anode - pump.minus`],
    mends: true,
  },
  'body-diode': {
    trips: [
      `${mosfet.replace('q.source - roof.gnd', 'q.drain - roof.gnd')}; ${pumpOn12}; pump.minus - q.source; bat.gnd - roof.gnd`,
    ],
    says: /q is the wrong way round: .* flows backwards through it/,
    clear: [switched],
    mends: true,
  },
  'pin-on-rail': {
    trips: [`${roof}; roof.p18 - roof.gnd`],
    says: /roof P18 lies on .*: it can neither read nor drive there/,
    clear: [`${roof}; q: switch-driver; q.in - roof.p18`],
  },
  'signal-arrives': {
    // The signal's wire and ground are one.
    trips: [`${roof}; ${stick}; l1.out - roof.p34; l1.out - roof.gnd`],
    says: /What l1 says reaches no input/,
    clear: [`${roof}; ${stick}; l1.out - roof.p34`],
  },
  'input-floats': {
    trips: [`${roof}; f: contact-float; f.out - roof.p34; f.gnd - roof.gnd`],
    says: /roof P34 floats while f is open, for the pin has no pull-up of its own/,
    clear: [
      `${roof}; f: contact-float; f.out - roof.p18; f.gnd - roof.gnd; up: resistor; up.a - roof.p18; up.b - roof.out33`,
      { parts: { up: { settings: { ohm: 10_000 } } } },
    ],
    mends: true,
  },
  'contact-level': {
    // 3.3 V from 100 kΩ above to 100 kΩ below: 1.65 V while the switch is open.
    trips: [
      `${roof}; f: contact-float; f.out - roof.p34; f.gnd - roof.gnd; up: resistor; up.a - roof.p34; up.b - roof.out33; dn: resistor; dn.a - roof.p34; dn.b - roof.gnd`,
      { parts: { up: { settings: { ohm: 100_000 } }, dn: { settings: { ohm: 100_000 } } } },
    ],
    says: /f gives roof P34 0\.00? V and 1\.6\d V; below 0\.99 V is low, above 2\.31 V is high/,
    clear: [
      `${roof}; f: contact-float; f.out - roof.p34; f.gnd - roof.gnd; up: resistor; up.a - roof.p34; up.b - roof.out33`,
      { parts: { up: { settings: { ohm: 10_000 } } } },
    ],
  },
  'signal-level': {
    // 5 V × 1.8 / 11.8 = 0.76 V
    trips: [
      `${roof}; t: level-ultrasonic; t.vcc - u.out; t.gnd - roof.gnd; d: divider; t.echo - d.in; d.out - roof.p18; d.gnd - roof.gnd`,
      { parts: { d: { settings: { upperOhm: 10_000, lowerOhm: 1800 } } } },
    ],
    says: /t echo gives roof P18 only 0\.7\d V; above 2\.1\d V is high/,
    clear: [
      `${roof}; t: level-ultrasonic; t.vcc - u.out; t.gnd - roof.gnd; d: divider; t.echo - d.in; d.out - roof.p18; d.gnd - roof.gnd`,
      { parts: { d: { settings: { upperOhm: 1000, lowerOhm: 1800 } } } },
    ],
  },
  'figures-known': {
    trips: [`${roof}; r: resistor; r.a - roof.p18; r.b - roof.gnd`],
    says: /r: its resistance is not known\. A usual one was taken/,
    clear: [
      `${roof}; r: resistor; r.a - roof.p18; r.b - roof.gnd`,
      { parts: { r: { settings: { ohm: 1000 } } } },
    ],
  },
  settled: {
    // A relay whose contact takes its own input away.
    trips: [
      `${stern}; k: switch-relay-high; k.vcc - stern.out5; k.gnd - stern.gnd; r: resistor; r.a - stern.out5; r.b - k.in; k.common - k.in; k.open - stern.gnd`,
      { parts: { r: { settings: { ohm: 100 } } } },
    ],
    says: /finds no rest .*: .*k.* goes on and off without end/,
    clear: [`${stern}; k: switch-relay-high; k.vcc - stern.out5; k.gnd - stern.gnd; k.in - stern.p4`],
  },
  siphon: {
    trips: [pumpOn12],
    says: /above the highest water in the tank/,
    clear: ['bat: battery-12v'],
  },
};

/** Entries with figures that nobody knows. */
catalogueAdd('supply-own', 'supply', [
  { type: 'supply out', id: 'out', name: 'out', volts: null, maxMa: null },
]);
catalogueAdd('probe-own', 'probe', [
  { type: 'analog out', id: 'out', name: 'signal', lowV: null, highV: null, sourceOhm: null },
]);
catalogueAdd('driver-own', 'driver module', [
  { type: 'digital in', id: 'in', name: 'input', maxV: 5, highFromV: null, takesMa: null },
]);
function catalogueAdd(id: string, role: 'supply' | 'probe' | 'driver module', terminals: never[] | object[]) {
  (catalogue as Map<string, unknown>).set(id, {
    id,
    role,
    name: id,
    good: '',
    bad: '',
    terminals,
    facts: {},
    addresses: [],
    cost: 'cheap',
    source: '',
  });
}

test('a resistor to ground elsewhere is not an LED’s series resistor', () => {
  const text = `${roof}; led: lamp-led; led.anode - roof.p18; led.cathode - roof.gnd; d: resistor; d.a - roof.p19; d.b - roof.gnd`;
  expect(run('led-resistor', [text]).result.verdict).toBe('found');
});

test.each([
  [1.01, []],
  [1.03, ['d out reaches 1.03 V; w IN0 reads full scale at 1.0 V. Everything above is cut off.']],
])(
  'a signal of %d V at an input of 1 V: two percent over its scale are within its own error',
  (volts, says) => {
    // The probe's 3.0 V, divided; 10 kΩ of the upper side are the probe's own, and the input's 10 MΩ lie beside the lower one.
    const lower = 1 / (1 / 10_000 + 1 / 1e7);
    const settings = { upperOhm: (3 / volts - 1) * lower - 10_000, lowerOhm: 10_000 };
    const text =
      'w: board-wifi-one; usb: supply-usb; usb.out - w.v5; usb.gnd - w.gnd; d: divider; l1: probe-capacitive; l1.out - d.in; d.out - w.in0; d.gnd - w.gnd; l1.vcc - w.out33; l1.gnd - w.gnd';
    const { result } = run('analog-range', [text, { parts: { d: { settings } } }]);
    expect(result.findings.map((one) => one.says)).toEqual(says);
  },
);

const cell = `${roof}; c: light-cell-bare; c.b - roof.p34; r: resistor; r.a - roof.p34`;
describe('a light cell of 1 to 100 kΩ beside a fixed resistor', () => {
  test('of 470 Ω uses a third of the scale where 10 kΩ would use most of it; the other way up as well', () => {
    // 100 / 100.47 − 1 / 1.47 = 31.5 %; 100 / 110 − 1 / 11 = 82 %
    const small = { parts: { r: { settings: { ohm: 470 } } } };
    for (const rest of ['c.a - roof.out33; r.b - roof.gnd', 'c.a - roof.gnd; r.b - roof.out33']) {
      const { result } = run('bare-resistor', [`${cell}; ${rest}`, small]);
      expect(result.findings.map((one) => one.says)).toEqual([
        'With 470 Ω (r) c uses 32 % of the scale; with 10 kΩ it would use 82 %.',
      ]);
      expect(result.findings[0]?.remedies[0]).toMatchObject({ kind: 'set-fact', part: 'r', value: 10_000 });
    }
  });
  test('to the side that the cell is on makes no divider', () => {
    const { result } = run('bare-resistor', [
      `${cell}; c.a - roof.out33; r.b - roof.out33`,
      { parts: { r: { settings: { ohm: 10_000 } } } },
    ]);
    expect(result.verdict).toBe('found');
  });
  test('between supply and ground is read by nobody', () => {
    const { result } = run('bare-resistor', [
      `${roof}; c: light-cell-bare; c.a - roof.out33; c.b - roof.gnd`,
    ]);
    expect(result.findings[0]?.says).toMatch(/^Both leads of c are on supply or ground/);
  });
});

test('there are at least thirty checks, and each has its two wirings here', () => {
  expect(CHECKS.length).toBeGreaterThanOrEqual(60);
  expect(Object.keys(CASES).sort()).toEqual(CHECKS.map((check) => check.id).sort());
});

/** Asserts that each finding can be acted on: how bad it is, at which terminals of this wiring, and what its buttons would do to which of its parts. */
function expectActable({ netlist, result }: ReturnType<typeof run>): void {
  const isEnd = ({ part, terminal }: End) => {
    const entry = catalogue.get(netlist.parts.find((one) => one.id === part)?.entryId ?? '');
    return entry === undefined || entry.terminals.some((one) => one.id === terminal);
  };
  for (const { check, severity, says, ends, remedies } of result.findings) {
    expect(SEVERITIES).toContain(severity);
    expect(says).toMatch(/^\S.*\.$/s);
    // What is not in the catalogue has no terminals that could light up.
    if (check !== 'not-in-catalogue') expect(ends.length).toBeGreaterThan(0);
    expect(ends.filter((end) => !isEnd(end))).toEqual([]);
    for (const remedy of remedies) {
      expect(remedy.label).toMatch(/^[A-Z0-9].{3,}/);
      expect(remedy.label).not.toMatch(/undefined|null|NaN/);
      if ('entryId' in remedy) expect([...catalogue.keys()]).toContain(remedy.entryId);
      expect(applyRemedy(netlist, catalogue, remedy)).not.toEqual(netlist);
    }
  }
}

const driven = `${pumpOn12}; drv: switch-driver; drv.load - pump.minus`;
const flyback = (hasFlyback: number) => ({ parts: { drv: { settings: { hasFlyback } } } });
const display = `${roof}; d: display-i2c; d.sda - roof.p21; d.scl - roof.p22`;
const pulledUp = (ownPullUpOhm: number) => ({ parts: { d: { settings: { ownPullUpOhm } } } });
const oneWire = `${roof}; t: thermo-one-wire; t.data - roof.p18; r: resistor; r.a - t.data; r.b - roof.out33`;
const twoLoads = `${stern}; q: switch-transistor; r: resistor; r.a - stern.p4; r.b - q.base; ${pumpOn12}; pump.minus - q.collector; p2: pump-12v; p2.plus - bat.plus; p2.minus - q.collector`;
// 680 Ω suits 180 mA.
const loads = (first: number | null, second: number | null) => ({
  parts: {
    pump: { settings: { activeMa: first } },
    p2: { settings: { activeMa: second } },
    r: { settings: { ohm: 680 } },
  },
});
const fullOn = (gateFullOnV: number) => ({ parts: { q: { settings: { gateFullOnV } } } });
const long = (lengthM: number) => ({ cables: { c: { lengthM } } });
const terminated = (part: string) => ({
  ...long(30),
  parts: { [part]: { settings: { hasTermination: 1 } } },
});

// Further wirings of a check: how bad it is and what is said; nothing where all is in order.
test.each<[id: string, what: string, wiring: Wiring, says: string | null]>([
  [
    'flyback',
    'a diode the wrong way round',
    [`${switched}; d: diode; d.anode - pump.plus; d.cathode - pump.minus`],
    'danger: d is the wrong way round across pump: it shorts the supply when the switch closes. Its ring goes to plus.',
  ],
  ['flyback', 'a driver with a diode of its own', [driven, flyback(1)], null],
  ['flyback', 'a driver without one', [driven, flyback(0)], 'fault: pump has no flyback diode across it.'],
  [
    'i2c-pull-up',
    'too weak: 1000 ns ÷ (0.8473 · 30 pF) is 39.3 kΩ',
    [display, pulledUp(100_000)],
    'caution: The I2C pull-ups come to 100 kΩ; with 30 pF at most 39.3 kΩ.',
  ],
  [
    'i2c-pull-up',
    'too strong: (3.3 V − 0.4 V) ÷ 3 mA is 967 Ω',
    [display, pulledUp(200)],
    'fault: The I2C pull-ups side by side come to 200 Ω; below 967 Ω a chip cannot pull the line low. Take some modules’ pull-ups off.',
  ],
  [
    'common-ground',
    'a signal wire drawn from the board',
    [`${roof}; l1: probe-capacitive; roof.p34 - l1.out; l1.vcc - roof.out33`],
    'fault: roof and l1 are joined by a signal but have no ground in common.',
  ],
  ['common-ground', 'no signal between them', [`${roof}; l1: probe-capacitive; l1.vcc - roof.out33`], null],
  [
    'input-floats',
    'a float on the weak pull-up inside a pin',
    [`${roof}; f: contact-float; f.out - roof.p18; f.gnd - roof.gnd`],
    'caution: f has no pull-up but the weak one inside roof P18, which is there only once the program has set it: until then, and on a long cable, the input drifts. 10 kΩ to the board’s own supply holds it.',
  ],
  [
    'unpowered',
    'a level shifter whose higher supply is missing',
    [`${roof}; ls: level-shifter; ls.lv - roof.out33; ls.gnd - roof.gnd`],
    'fault: ls wants the lower supply at low supply and the higher one at high supply; it has 3.30 V and 2.70 V.',
  ],
  [
    'pin-on-rail',
    'a line of a bus on a supply',
    ['b1: probe-bus-rods; b1.vcc - b1.b'],
    'fault: b1 B lies on b1 supply: the bus is dead there.',
  ],
  [
    'panel-match',
    'a panel turned round',
    ['bat: battery-12v; sun: solar-panel; sun.gnd - bat.plus; sun.plus - bat.gnd'],
    'danger: sun is turned round: it would empty the battery instead of filling it, and its charger burns.',
  ],
  [
    'supply-range',
    'too little',
    [
      `${roof}; x: lamp-ring; x.vcc - roof.out33; x.gnd - roof.gnd`,
      { parts: { x: { settings: { peakMa: 60 } } } },
    ],
    'fault: x wants at least 4.50 V and gets 3.30 V from roof 3.3 V out with everything off.',
  ],
  [
    'pin-cannot',
    'a bus probe on a pin',
    [`${roof}; b1: probe-bus-rods; b1.a - roof.p18`],
    'fault: b1 A is wired to a pin; RS-485 needs a transceiver between.',
  ],
  ['rs485-termination', 'short enough', [bus, long(19)], null],
  [
    'rs485-termination',
    'long, one end closed',
    [bus, long(21)],
    'caution: The RS-485 line is 21.0 m long and has one terminator; both ends want 120 Ω.',
  ],
  ['rs485-termination', 'long, both ends closed', [bus, terminated('b1')], null],
  [
    'rs485-termination',
    'long, closed at the same end only',
    [bus, terminated('rs')],
    'caution: The RS-485 line is 30.0 m long and has one terminator; both ends want 120 Ω.',
  ],
  ...(
    [
      [999, 'caution: The pull-up of the 1-Wire line is 999 Ω; 4.7 kΩ is usual, 2.2 kΩ on a long cable.'],
      [1000, null],
      [10_000, null],
      [22_000, 'caution: The pull-up of the 1-Wire line is 22 kΩ; 4.7 kΩ is usual, 2.2 kΩ on a long cable.'],
    ] as const
  ).map(([ohm, says]): [string, string, Wiring, string | null] => [
    'one-wire-pull-up',
    `${ohm} Ω`,
    [oneWire, { parts: { r: { settings: { ohm } } } }],
    says,
  ]),
  [
    'one-wire-pull-up',
    'two of 1.5 kΩ side by side',
    [
      `${oneWire}; s: resistor; s.a - t.data; s.b - roof.out33`,
      { parts: { r: { settings: { ohm: 1500 } }, s: { settings: { ohm: 1500 } } } },
    ],
    'caution: The pull-up of the 1-Wire line is 750 Ω; 4.7 kΩ is usual, 2.2 kΩ on a long cable.',
  ],
  [
    'one-wire-pull-up',
    'a resistor to ground is none',
    [oneWire.replace('roof.out33', 'roof.gnd'), { parts: { r: { settings: { ohm: 4700 } } } }],
    'fault: The 1-Wire line of t has no pull-up.',
  ],
  [
    'base-resistor',
    'a load that no pin can switch: 3 A · 3 ÷ 100 is 90 mA',
    [
      `${stern}; q: switch-transistor; q.base - stern.p4; ${pumpOn12}; pump.minus - q.collector`,
      { parts: { pump: { settings: { activeMa: 3000 } } } },
    ],
    'fault: q cannot switch 3.0 A: its base would want more than the 20 mA of stern P4. A MOSFET can.',
  ],
  ['gate-drive', 'just enough', [`${mosfet}; q.gate - roof.p18`, fullOn(3.3)], null],
  [
    'gate-drive',
    'a little too little',
    [`${mosfet}; q.gate - roof.p18`, fullOn(3.4)],
    'fault: q wants 3.40 V at its gate; roof P18 gives 3.30 V.',
  ],
  [
    'relay-boot',
    'driven by no pin',
    ['q: switch-mosfet; k: switch-relay-low; k.in - q.drain'],
    'caution: k is on when its input is low. Until the program sets the pin, what it does is left to chance: set the pin high before making it an output, or pull it up.',
  ],
])('%s: %s', (id, _, wiring, says) => {
  const found = run(id, wiring);
  expect(found.result.findings.map((one) => `${one.severity}: ${one.says}`)).toEqual(
    says === null ? [] : [says],
  );
  expectActable(found);
});

test.each([
  ['a supply that feeds something', 'supplies-joined', [pumpOn12], 'passed'],
  ['a supply with nothing on it', 'supplies-joined', ['bat: battery-12v'], 'not needed'],
  [
    'wires without a supply',
    'supplies-joined',
    ['pump: pump-12v; q: switch-mosfet; pump.minus - q.drain'],
    'not needed',
  ],
  ['a load of which one current is not known', 'base-resistor', [twoLoads, loads(90, null)], 'unknown'],
  ['the other current not known', 'base-resistor', [twoLoads, loads(null, 90)], 'unknown'],
  ['two loads that come to 180 mA', 'base-resistor', [twoLoads, loads(90, 90)], 'passed'],
  [
    'two loads that come to 700 mA, where 4.3 V ÷ 680 Ω · 100 is 632',
    'base-resistor',
    [twoLoads, loads(350, 350)],
    'found',
  ],
  [
    'an address that a part can have',
    'i2c-address',
    [display, { parts: { d: { address: 0x3c } } }],
    'passed',
  ],
] as const)('%s: %s is as it should be', (_, id, wiring, verdict) => {
  expect(run(id, wiring as unknown as Wiring).result.verdict).toBe(verdict);
});

test.each([
  ['where it freezes', true, 'danger'],
  ['indoors', false, 'note'],
] as const)('a lithium cell charged by the sun, %s', (_, frost, severity) => {
  const text =
    'b: battery-lithium; f: fuse; p: solar-panel-lithium; b.plus - f.a; f.b - p.plus; p.gnd - b.gnd';
  expect(run('lithium', [text, {}, { frost }]).result.findings.map((one) => one.severity)).toEqual([
    severity,
  ]);
});

test.each([
  ['one of three', 'rs.a - b1.a; rs.b - b1.b; rs.a - b2.b; rs.b - b2.a', ['Swap A and B at b2']],
  [
    'the transceiver against two',
    'rs.a - b1.b; rs.b - b1.a; rs.a - b2.b; rs.b - b2.a',
    ['Swap A and B at rs'],
  ],
  ['a probe against the transceiver', 'rs.a - b1.b; rs.b - b1.a', ['Swap A and B at b1']],
])('of a pair that is mixed, %s is swapped, and that mends it', (_, wires, labels) => {
  const text = `rs: transceiver-33v; b1: probe-bus-rods; b2: probe-bus-rods; ${wires}`;
  const { netlist, result } = run('rs485-polarity', [text]);
  const remedies = result.findings.flatMap((one) => one.remedies);
  expect(remedies.map((one) => one.label)).toEqual(labels);
  const mended = remedies.reduce((now, remedy) => applyRemedy(now, catalogue, remedy), netlist);
  const check = CHECKS.find((one) => one.id === 'rs485-polarity');
  expect(check && runCheck(check, readCircuit(mended, catalogue), indoors).findings).toEqual([]);
});

test('where the circuit finds no rest, no check counts as passed because of a solution', () => {
  const [text, more] = CASES.settled?.trips ?? [''];
  const { results, proved } = checkWiring(
    readCircuit(netlistSchema.parse(sketchNetlist(text, more)), catalogue),
    indoors,
  );
  expect(results.filter(({ isSolved, verdict }) => isSolved && verdict === 'passed')).toEqual([]);
  expect(proved.unknown).toBeGreaterThan(5);
});

test('a value left open is told by the headline, whatever else passes', () => {
  const text = `${roof}; r: resistor; r.a - roof.p18; r.b - roof.gnd`;
  const { proved } = checkWiring(readCircuit(netlistSchema.parse(sketchNetlist(text)), catalogue), indoors);
  expect(proved).toMatchObject({ missing: 'the resistance of r' });
  expect(proved.unknown).toBeGreaterThan(0);
});

describe.each(Object.entries(CASES))('%s', (id, { trips, says, clear, unknown, mends }) => {
  test('finds it, with its numbers', () => {
    const { result } = run(id, trips);
    expect(result.findings.map((finding) => finding.says).join('\n')).toMatch(says);
    expect(result.verdict).toMatch(
      ['not-in-catalogue', 'settled', 'figures-known'].includes(id) ? 'unknown' : 'found',
    );
  });
  test('says how bad it is, where, and what would mend it', () => {
    for (const wiring of unknown ? [trips, unknown] : [trips]) expectActable(run(id, wiring));
  });
  test('lets the same in order pass', () => {
    const { result } = run(id, clear);
    expect(result.findings).toEqual([]);
    expect(result.verdict).not.toBe('found');
  });
  if (unknown)
    test('says that it cannot tell', () => {
      expect(run(id, unknown).result.verdict).toBe('unknown');
    });
  if (mends)
    test('is silenced by its own remedy', () => {
      const { netlist, result } = run(id, trips);
      const remedy = result.findings.flatMap((finding) => finding.remedies)[0];
      if (!remedy) throw new Error('no remedy');
      const mended = applyRemedy(netlist, catalogue, remedy);
      const check = CHECKS.find((one) => one.id === id);
      const after = check && runCheck(check, readCircuit(mended, catalogue), { ...indoors, ...trips[2] });
      expect(after?.findings.map((finding) => finding.says) ?? []).not.toContain(
        result.findings.find((one) => one.remedies.includes(remedy))?.says,
      );
    });
});
