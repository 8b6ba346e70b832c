/** A wiring with ten deliberate faults, to see the checks at work: docs/examples/ten-faults.garden.json is made of it. */
import { emptyGarden } from '@plain-trowel/core/garden/edits/plots';
import { changePlan } from '@plain-trowel/core/garden/edits/plan';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { EMPTY_PLAN } from '@plain-trowel/core/plan/schema';
import { sketchNetlist, type Sketched } from '@plain-trowel/core/wiring/sketchNetlist';

/** The ten, each is a check's id. */
export const TEN_FAULTS = [
  'over-voltage',
  'adc-radio',
  'two-users',
  'led-resistor',
  'flyback',
  'fuse-missing',
  'i2c-address',
  'rs485-polarity',
  'gate-drive',
  'common-ground',
] as const;

const WIRING = `
  board: board-wifi-two-groups; reg: regulator-5v; bat: battery-12v
  bat.plus - reg.vcc @supply; bat.gnd - reg.gnd; reg.out - board.v5; reg.gnd - board.gnd
  a1: probe-capacitive; a1.vcc - board.out33 @a1; a1.gnd - board.gnd @a1; a1.out - board.p25 @a1
  a2: probe-capacitive; a2.vcc - board.out33 @a2; a2.gnd - board.gnd @a2; a2.out - board.p35 @a2
  a3: probe-capacitive; a3.vcc - board.out33 @a3; a3.gnd - board.gnd @a3; a3.out - board.p35 @a3
  led: lamp-led; led.anode - board.p18; led.cathode - board.gnd
  pump: pump-12v; q: switch-mosfet-10v; rg: resistor; rd: resistor
  pump.plus - bat.plus @pump; pump.minus - q.drain @pump; q.source - bat.gnd
  board.p19 - rg.a; rg.b - q.gate; rd.a - q.gate; rd.b - q.source
  d1: display-i2c; d1.vcc - board.out33; d1.gnd - board.gnd; d1.sda - board.p21; d1.scl - board.p22
  d2: display-i2c; d2.vcc - board.out33; d2.gnd - board.gnd; d2.sda - board.p21; d2.scl - board.p22
  rs: transceiver-5v; rs.vcc - reg.out; rs.gnd - board.gnd; board.p17 - rs.ro; board.p16 - rs.di; board.p4 - rs.de
  b1: probe-bus-rods; b1.vcc - reg.out @b1; b1.gnd - board.gnd @b1; rs.a - b1.b @b1; rs.b - b1.a @b1
  tank: level-ultrasonic; usb: supply-usb; div: divider
  usb.out - tank.vcc @tank; usb.gnd - tank.gnd @tank; board.p23 - tank.trig @tank; tank.echo - div.in @tank
  div.out - board.p13; div.gnd - board.gnd
`;

const LABELS: Readonly<Record<string, string>> = {
  board: 'Shed board',
  reg: '5 V regulator',
  bat: 'Battery',
  a1: 'A1',
  a2: 'A2',
  a3: 'A3',
  led: 'Lamp',
  pump: 'Pump',
  q: 'Pump switch',
  rg: 'R1',
  rd: 'R2',
  d1: 'Display 1',
  d2: 'Display 2',
  rs: 'Bus transceiver',
  b1: 'B1',
  tank: 'Tank eye',
  usb: 'USB supply',
  div: 'DIV1',
};

export function tenFaults(): Garden {
  const garden = emptyGarden('Ten faults', 'Europe/London', {
    random: () => 0.4,
    nowIso: '2026-05-01T08:00:00.000Z',
  });
  const addresses: Readonly<Record<string, number>> = { d1: 0x3c, d2: 0x3c, b1: 1 };
  const settings: Readonly<Record<string, { ohm?: number; upperOhm?: number; lowerOhm?: number }>> = {
    rg: { ohm: 180 },
    rd: { ohm: 100_000 },
    div: { upperOhm: 10_000, lowerOhm: 18_000 },
  };
  const parts = Object.fromEntries(
    Object.entries(LABELS).map(([id, label]) => [
      id,
      { label, address: addresses[id] ?? null, settings: settings[id] ?? {} },
    ]),
  );
  const colours = ['yellow', 'blue', 'green', 'red', 'white', 'black'] as const;
  const cables: NonNullable<Sketched['cables']> = Object.fromEntries(
    ['supply', 'a1', 'a2', 'a3', 'pump', 'b1', 'tank'].map((id, at) => [
      id,
      {
        label: LABELS[id] ?? 'Supply',
        colour: colours[at % colours.length] ?? ('none' as const),
        lengthM: 2,
        areaMm2: id === 'pump' || id === 'supply' ? 1.5 : 0.34,
      },
    ]),
  );
  const answers = {
    ...EMPTY_PLAN.answers,
    place: 'bed',
    wants: 'number',
    power: 'battery',
    wifi: 'good',
    water: 'tank',
  } as const;
  return {
    ...changePlan(garden, { answers }),
    id: 'garden-ten-faults',
    note: 'ten things are wrong here',
    wiring: sketchNetlist(WIRING, { parts, cables }),
  };
}
