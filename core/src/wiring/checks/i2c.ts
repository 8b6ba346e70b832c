/** Checks of the short buses: I2C and 1-Wire. */
import { parallelOhm } from '../../electrics/divider.ts';
import { i2cPullUp } from '../../electrics/i2cPullUp.ts';
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, type Placed, type Spot, fact, hasRole, isType, spotsOf } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { behind, boardOf, inOhm, inV, listOf, logicSupply } from '../look.ts';
import { busesOf, judgeAddresses } from './busMembers.ts';

/** Rough load of wire and of a board's own pin on an I2C bus, pF. */
const WIRE_PF_PER_M = 70;

const PIN_PF = 10;

const sdaBuses = (circuit: Circuit) =>
  busesOf(circuit, (spot) => isType(spot, 'i2c') && spot.terminal.line === 'sda');

export const I2C_CHECKS: readonly Check[] = [
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
            [...members, ...circuit.netOf(first.end).spots.filter((spot) => isType(spot, 'pin'))],
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
];

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
