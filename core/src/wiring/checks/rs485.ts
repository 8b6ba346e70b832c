/** Checks of RS-485: addresses, load, ends, polarity, transceiver. */
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, fact, hasRole, isType, type Spot, spotAt } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { boardOf, isWired, listOf, nameOf } from '../look.ts';
import { busesOf, judgeAddresses } from './busMembers.ts';

const aLines = (circuit: Circuit) =>
  busesOf(circuit, (spot) => isType(spot, 'rs485') && spot.terminal.line === 'a');

/** Of those that meet on one wire with their A and those with their B, the fewer are taken to be turned round; of as many, those without the transceiver. */
function turnedRound(withA: readonly Spot[], withB: readonly Spot[]): readonly Spot[] {
  const hasTransceiver = withA.some((spot) => hasRole(spot.placed, 'transceiver'));
  const isB = withB.length === withA.length ? hasTransceiver : withB.length < withA.length;
  return isB ? withB : withA;
}

export const RS485_CHECKS: readonly Check[] = [
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
        report.find(
          'fault',
          `${listOf([...members, ...wrong].map(nameOf))} are one wire: A and B are mixed.`,
          [...members, ...wrong],
          {
            remedies: turnedRound(members, wrong).map(({ placed: { part } }) => ({
              kind: 'swap',
              label: `Swap A and B at ${part.label}`,
              one: { part: part.id, terminal: 'a' },
              other: { part: part.id, terminal: 'b' },
            })),
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
];
