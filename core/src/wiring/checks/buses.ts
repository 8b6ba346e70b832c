/** Checks of the buses: I2C, 1-Wire, RS-485, and the 4–20 mA loop. */
import { cableOhm } from '../../electrics/cable.ts';
import { parallelOhm } from '../../electrics/divider.ts';
import { i2cPullUp } from '../../electrics/i2cPullUp.ts';
import { LOOP, loopNeededV, shuntFor } from '../../electrics/shunt.ts';
import { formatNumber } from '../../quantity/format.ts';
import {
  fact,
  hasRole,
  isType,
  spotAt,
  spotsOf,
  type Circuit,
  type Net,
  type Placed,
  type Spot,
} from '../circuit.ts';
import type { Check, Remedy } from '../finding.ts';
import {
  allSpots,
  behind,
  boardOf,
  groundSpot,
  inMa,
  inOhm,
  inV,
  isWired,
  listOf,
  logicSupply,
  nameOf,
} from '../look.ts';

/** Rough load of wire and of a board's own pin on an I2C bus, pF. */
const WIRE_PF_PER_M = 70;
const PIN_PF = 10;

type Bus = { readonly net: Net; readonly members: readonly Spot[] };

/** The nets that carry one line of a bus, with the terminals of parts on it. */
function busesOf(circuit: Circuit, isLine: (spot: Spot) => boolean): Bus[] {
  return circuit.nets
    .map((net) => ({ net, members: net.spots.filter(isLine) }))
    .filter(({ net, members }) => members.length > 0 && net.wires.length > 0);
}

const sdaBuses = (circuit: Circuit) =>
  busesOf(circuit, (spot) => isType(spot, 'i2c') && spot.terminal.line === 'sda');
const aLines = (circuit: Circuit) =>
  busesOf(circuit, (spot) => isType(spot, 'rs485') && spot.terminal.line === 'a');

/** Addresses that two members of a bus share, or that one lacks. */
function judgeAddresses(buses: readonly Bus[], what: string, report: Parameters<Check['run']>[1]): void {
  for (const { members } of buses) {
    const users = members.filter((spot) => spot.placed.entry.addresses.length > 0);
    const taken = new Set(users.map((spot) => spot.placed.part.address));
    for (const spot of users) {
      const { part, entry } = spot.placed;
      const free = entry.addresses.find((address) => !taken.has(address));
      const sharing = users.filter((one) => one.placed.part.address === part.address);
      const remedies: Remedy[] =
        free === undefined
          ? []
          : [
              {
                kind: 'set-address',
                label: `Give ${part.label} address ${addressText(what, free)}`,
                part: part.id,
                address: free,
              },
            ];
      if (part.address === null) {
        if (users.length > 1)
          report.unknown(`${part.label} has no ${what} address yet, and it shares the bus.`, [spot], {
            remedies,
          });
        else report.fine();
      } else if (!entry.addresses.includes(part.address))
        report.find(
          'fault',
          `${part.label} cannot have address ${addressText(what, part.address)}.`,
          [spot],
          { remedies },
        );
      else if (sharing.length > 1 && sharing[0] !== spot)
        report.find(
          'fault',
          `${listOf(sharing.map((one) => one.placed.part.label))} share address ${addressText(what, part.address)} on one bus.`,
          sharing,
          { remedies },
        );
      else report.fine();
    }
  }
}

const addressText = (what: string, address: number) =>
  what === 'I2C' ? `0x${address.toString(16).padStart(2, '0')}` : String(address);

export const BUS_CHECKS: readonly Check[] = [
  {
    id: 'i2c-address',
    title: 'No two parts on I2C share an address',
    why: 'Both answer at once and the board reads neither.',
    run: (circuit, report) => judgeAddresses(sdaBuses(circuit), 'I2C', report),
  },
  {
    id: 'i2c-pull-up',
    title: 'The I2C pull-ups lie inside their window',
    why: 'Too weak and the line rises too slowly for its cable; too strong and no chip can pull it low. Modules with pull-ups of their own add up.',
    run: (circuit, report) => {
      for (const { net, members } of sdaBuses(circuit)) {
        const outside = net.spots
          .filter((spot) => hasRole(spot.placed, 'pull-ups'))
          .map((spot) => fact(spot.placed, 'ohm'));
        const own = members.map((spot) => fact(spot.placed, 'ownPullUpOhm'));
        const loads = members.map((spot) => fact(spot.placed, 'busPf'));
        const cables = [
          ...new Set(
            net.wires.flatMap((wire) => (wire.cableId === null ? [] : [circuit.cables.get(wire.cableId)])),
          ),
        ];
        const board =
          members.map((spot) => boardOf(circuit, spot.placed)).find((one) => one !== null) ?? null;
        const supplyV = board && fact(board, 'logicV');
        if (
          outside.includes(null) ||
          loads.includes(null) ||
          supplyV === null ||
          cables.some((cable) => cable?.lengthM == null)
        ) {
          report.unknown(
            `Whether the pull-ups of the I2C bus with ${listOf(members.map((spot) => spot.placed.part.label))} fit cannot be told: a pull-up, a bus load or a cable length is not known.`,
            members,
          );
          continue;
        }
        const busPf =
          (loads as number[]).reduce((sum, one) => sum + one, PIN_PF) +
          cables.reduce((sum, cable) => sum + (cable?.lengthM ?? 0) * WIRE_PF_PER_M, 0);
        const ohm = [...outside, ...own].reduce<number>(
          (side, one) => (one === null ? side : parallelOhm(side, one)),
          Infinity,
        );
        const found = i2cPullUp({ supplyV, busPf, speed: 'standard, 100 kHz', series: 'E12' });
        const about = found.ok ? { worked: found.value.worked } : {};
        if (!found.ok)
          report.find(
            'fault',
            `The I2C bus carries ${formatNumber(busPf)} pF; no pull-up suits more than ${formatNumber(found.issue.mostPf)} pF. Shorten the cable, or use a bus probe.`,
            members,
          );
        else if (ohm === Infinity)
          report.find(
            'fault',
            `The I2C bus with ${listOf(members.map((spot) => spot.placed.part.label))} has no pull-ups; ${inOhm(found.value.ohm)} each suits it.`,
            members,
            { ...about, remedies: pullUps(board, members, found.value.ohm) },
          );
        else if (ohm > found.value.mostOhm)
          report.find(
            'caution',
            `The I2C pull-ups come to ${inOhm(ohm)}; with ${formatNumber(busPf)} pF at most ${inOhm(found.value.mostOhm)}.`,
            members,
            { ...about, remedies: pullUps(board, members, found.value.ohm) },
          );
        else if (ohm < found.value.leastOhm)
          report.find(
            'fault',
            `The I2C pull-ups side by side come to ${inOhm(ohm)}; below ${inOhm(found.value.leastOhm)} a chip cannot pull the line low. Take some modules’ pull-ups off.`,
            members,
            about,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'i2c-long',
    title: 'I2C stays short',
    why: 'It was made for the inside of one box. Beyond a metre or two it catches the pump’s start and hangs.',
    run: (circuit, report) => {
      for (const { net, members } of sdaBuses(circuit)) {
        const longest = net.wires.reduce(
          (most, wire) =>
            Math.max(most, (wire.cableId === null ? 0 : circuit.cables.get(wire.cableId)?.lengthM) ?? 0),
          0,
        );
        if (longest > 1.5)
          report.find(
            'caution',
            `I2C runs over ${formatNumber(longest, 1)} m of cable. Keep it below about 1.5 m, or take a bus probe there.`,
            members,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'one-wire-pull-up',
    title: 'The 1-Wire line has its pull-up',
    why: 'Its parts only pull low; without 4.7 kΩ to the supply the line never rises.',
    run: (circuit, report) => {
      for (const { members } of busesOf(circuit, (spot) => isType(spot, 'one-wire'))) {
        const [first] = members;
        if (!first) continue;
        const ups = behind(circuit, first, 'resistor').filter(({ spots }) =>
          spots.some((far) => far.terminal.type === 'supply out' || far.terminal.type === 'supply in'),
        );
        const board = boardOf(circuit, first.placed);
        const logic = board && logicSupply(board);
        const ohms = ups.map(({ by }) => fact(by, 'ohm'));
        const ohm = ohms.reduce<number>(
          (side, one) => (one === null ? side : parallelOhm(side, one)),
          Infinity,
        );
        if (ups.length === 0)
          report.find(
            'fault',
            `The 1-Wire line of ${listOf(members.map((spot) => spot.placed.part.label))} has no pull-up.`,
            members,
            {
              remedies: logic
                ? [
                    {
                      kind: 'bridge',
                      label: 'Put 4.7 kΩ to the supply',
                      entryId: 'resistor',
                      ends: { a: first.end, b: logic.end },
                      settings: { ohm: 4700 },
                    },
                  ]
                : [],
            },
          );
        else if (ohms.includes(null))
          report.unknown('The pull-up of the 1-Wire line has no value yet.', members);
        else if (ohm < 1000 || ohm > 10_000)
          report.find(
            'caution',
            `The pull-up of the 1-Wire line is ${inOhm(ohm)}; 4.7 kΩ is usual, 2.2 kΩ on a long cable.`,
            members,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'rs485-address',
    title: 'Every bus probe has an address of its own',
    why: 'They come with the same address. Give each its own while it is alone on the bus.',
    run: (circuit, report) => judgeAddresses(aLines(circuit), 'bus', report),
  },
  {
    id: 'rs485-load',
    title: 'The RS-485 bus is not overloaded',
    why: 'A transceiver drives 32 unit loads.',
    run: (circuit, report) => {
      for (const { members } of aLines(circuit)) {
        const loads = members.map((spot) => fact(spot.placed, 'unitLoad'));
        if (loads.includes(null)) {
          report.unknown(
            `The unit load of ${listOf(members.filter((spot) => fact(spot.placed, 'unitLoad') === null).map((spot) => spot.placed.part.label))} is not known.`,
            members,
          );
          continue;
        }
        const total = (loads as number[]).reduce((sum, one) => sum + one, 0);
        if (total > 32)
          report.find(
            'fault',
            `${formatNumber(total, 1)} unit loads hang on one RS-485 bus; a transceiver drives 32.`,
            members,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'rs485-termination',
    title: 'Long RS-485 lines end in 120 Ω',
    why: 'A long line echoes from an open end; 120 Ω at both ends swallow the echo. A short one does without and saves current.',
    run: (circuit, report) => {
      for (const { net, members } of aLines(circuit)) {
        const lengths = [
          ...new Set(net.wires.flatMap((wire) => (wire.cableId === null ? [] : [wire.cableId]))),
        ].map((id) => circuit.cables.get(id)?.lengthM ?? null);
        if (lengths.length === 0 || lengths.includes(null)) {
          report.unknown('The length of the RS-485 line is not known: give its cables a length.', members);
          continue;
        }
        const lengthM = (lengths as number[]).reduce((sum, one) => sum + one, 0);
        const resistors = net.spots.filter((spot) => hasRole(spot.placed, 'resistor')).length;
        const ends = resistors + members.filter((spot) => fact(spot.placed, 'hasTermination') === 1).length;
        const far = members.find((spot) => fact(spot.placed, 'hasTermination') !== 1);
        const farB = far && spotAt(far.placed, 'b');
        if (lengthM > 20 && ends < 2)
          report.find(
            'caution',
            `The RS-485 line is ${formatNumber(lengthM, 1)} m long and has ${ends === 1 ? 'one terminator' : 'no terminator'}; both ends want 120 Ω.`,
            members,
            {
              remedies:
                far && farB
                  ? [
                      {
                        kind: 'bridge',
                        label: `Put 120 Ω at ${far.placed.part.label}`,
                        entryId: 'resistor',
                        ends: { a: far.end, b: farB.end },
                        settings: { ohm: 120 },
                      },
                    ]
                  : [],
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'rs485-polarity',
    title: 'A meets A, and B meets B',
    why: 'Turned round, nothing answers; nothing breaks. Makers do not agree which wire is A: try it before you seal the joint.',
    run: (circuit, report) => {
      const told = new Set<string>();
      for (const { net, members } of aLines(circuit)) {
        const wrong = net.spots.filter((spot) => isType(spot, 'rs485') && spot.terminal.line === 'b');
        if (wrong.length === 0) {
          report.fine();
          continue;
        }
        // Swapped once, both wires are mixed: one finding for the pair.
        const pair = [...members, ...wrong]
          .map((spot) => spot.placed.part.id)
          .sort()
          .join(' ');
        if (told.has(pair)) continue;
        told.add(pair);
        const probe = [...members, ...wrong].find((spot) => !hasRole(spot.placed, 'transceiver'));
        report.find(
          'fault',
          `${listOf([...members, ...wrong].map(nameOf))} are one wire: A and B are mixed.`,
          [...members, ...wrong],
          {
            remedies: probe
              ? [
                  {
                    kind: 'swap',
                    label: `Swap A and B at ${probe.placed.part.label}`,
                    one: { part: probe.placed.part.id, terminal: 'a' },
                    other: { part: probe.placed.part.id, terminal: 'b' },
                  },
                ]
              : [],
          },
        );
      }
    },
  },
  {
    id: 'rs485-transceiver',
    title: 'Every RS-485 bus has one transceiver, with its direction pin',
    why: 'The board speaks serial; the transceiver makes a differential pair of it, and must be told when to speak.',
    run: (circuit, report) => {
      for (const { net, members } of aLines(circuit)) {
        // Looked for on the whole wire: where A and B are mixed the bus has its transceiver all the same.
        const transceivers = net.spots.filter(
          (spot) => isType(spot, 'rs485') && hasRole(spot.placed, 'transceiver'),
        );
        const [one] = transceivers;
        if (!one) {
          const board = members.map((spot) => boardOf(circuit, spot.placed)).find((found) => found !== null);
          report.find(
            'fault',
            `The bus of ${listOf(members.map((spot) => spot.placed.part.label))} has no transceiver.`,
            members,
            {
              remedies: [
                {
                  kind: 'add-part',
                  label: 'Add a 3.3 V transceiver with automatic direction',
                  entryId: 'transceiver-33v',
                  boardId: board?.part.id ?? null,
                },
              ],
            },
          );
          continue;
        }
        const direction = spotAt(one.placed, 'de');
        const self = fact(one.placed, 'selfDirected');
        if (direction && self === null)
          report.unknown(`Whether ${one.placed.part.label} switches its direction by itself is not known.`, [
            one,
          ]);
        else if (direction && self === 0 && !isWired(circuit, direction))
          report.find('fault', `${one.placed.part.label} needs a pin for its direction, and none is wired.`, [
            direction,
          ]);
        else report.fine();
      }
    },
  },
  {
    id: 'loop-shunt',
    title: 'Every 4–20 mA probe has a shunt that fits its input',
    why: 'The input reads a voltage: without a shunt it sees the whole loop supply.',
    run: (circuit, report) => {
      for (const spot of loopMinus(circuit)) {
        const net = circuit.netOf(spot.end);
        const shunt = net.spots.find((one) => hasRole(one.placed, 'shunt'));
        const input = net.spots.find((one) => isType(one, 'pin') || isType(one, 'analog in'));
        if (!input) continue;
        const fullScaleV =
          isType(input, 'pin') || isType(input, 'analog in') ? (input.terminal.fullScaleV ?? null) : null;
        const ground = groundSpot(input.placed);
        const found =
          fullScaleV === null
            ? null
            : shuntFor({ inputV: fullScaleV, loopV: 60, probeV: 0, cableOhm: 0, adcBits: 12, series: 'E24' });
        const ohm = shunt ? fact(shunt.placed, 'ohm') : null;
        if (!shunt)
          report.find(
            'fault',
            `${spot.placed.part.label} has no shunt at ${nameOf(input)}: the pin would see the loop’s supply.`,
            [spot, input],
            {
              ...(found?.ok ? { worked: found.value.worked } : {}),
              remedies:
                found?.ok && ground
                  ? [
                      {
                        kind: 'bridge',
                        label: `Put a shunt of ${inOhm(found.value.ohm)} to ground`,
                        entryId: 'shunt',
                        ends: { in: spot.end, gnd: ground.end },
                        settings: { ohm: found.value.ohm },
                      },
                    ]
                  : [],
            },
          );
        else if (ohm === null || fullScaleV === null)
          report.unknown(`The shunt of ${spot.placed.part.label}, or the scale of its input, is not known.`, [
            spot,
            input,
          ]);
        else {
          const fullV = (LOOP.fullMa / 1000) * ohm;
          if (fullV > fullScaleV || fullV < fullScaleV * 0.5)
            report.find(
              fullV > fullScaleV ? 'fault' : 'caution',
              `A shunt of ${inOhm(ohm)} gives ${inV(fullV)} at ${inMa(LOOP.fullMa)}; ${nameOf(input)} reads up to ${inV(fullScaleV)}.`,
              [spot, input],
              found?.ok
                ? {
                    worked: found.value.worked,
                    remedies: [
                      {
                        kind: 'set-fact',
                        label: `Take ${inOhm(found.value.ohm)}`,
                        part: shunt.placed.part.id,
                        key: 'ohm',
                        value: found.value.ohm,
                      },
                    ],
                  }
                : {},
            );
          else report.fine();
        }
      }
    },
  },
  {
    id: 'loop-voltage',
    title: 'Every loop has voltage enough at 20 mA',
    why: 'Shunt, cable and probe share the supply: what is missing is missing at the wet end, where it looks like a limit.',
    run: (circuit, report) => {
      for (const spot of loopMinus(circuit)) {
        const plus = circuit.netOf({ part: spot.end.part, terminal: 'plus' });
        const shunt = circuit.netOf(spot.end).spots.find((one) => hasRole(one.placed, 'shunt'));
        const cable = plus.wires
          .map((wire) => (wire.cableId === null ? null : circuit.cables.get(wire.cableId)))
          .find((one) => one);
        const probeV = fact(spot.placed, 'loopV');
        const shuntOhm = shunt ? fact(shunt.placed, 'ohm') : null;
        const loopV = plus.level?.volts ?? null;
        if (!plus.level) continue;
        if (
          probeV === null ||
          shuntOhm === null ||
          loopV === null ||
          (cable && (cable.lengthM === null || cable.areaMm2 === null))
        ) {
          report.unknown(
            `Whether the loop of ${spot.placed.part.label} has voltage enough cannot be told: its supply, shunt, cable or least voltage is not known.`,
            [spot],
          );
          continue;
        }
        const neededV = loopNeededV({
          shuntOhm,
          probeV,
          cableOhm:
            cable?.lengthM && cable.areaMm2
              ? cableOhm({ lengthM: cable.lengthM, areaMm2: cable.areaMm2 })
              : 0,
        });
        if (neededV > loopV)
          report.find(
            'fault',
            `The loop of ${spot.placed.part.label} needs ${inV(neededV)} at 20 mA and has ${inV(loopV)}.`,
            [spot],
          );
        else report.fine();
      }
    },
  },
];

const loopMinus = (circuit: Circuit): Spot[] =>
  allSpots(circuit).filter(
    (spot) => isType(spot, 'loop') && spot.terminal.side === 'minus' && isWired(circuit, spot),
  );

function pullUps(board: Placed | null, members: readonly Spot[], ohm: number): Remedy[] {
  const logic = board && logicSupply(board);
  const [first] = members;
  const clock =
    first && spotsOf(first.placed).find((spot) => isType(spot, 'i2c') && spot.terminal.line === 'scl');
  if (!logic || !first || !clock) return [];
  return [
    {
      kind: 'bridge',
      label: `Put a pair of ${inOhm(ohm)} to ${inV(fact(board, 'logicV') ?? 0)}`,
      entryId: 'pull-ups',
      ends: { up: logic.end, sda: first.end, scl: clock.end },
      settings: { ohm },
    },
  ];
}
