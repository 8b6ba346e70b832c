/** Checks of RS-485: addresses, load, ends, polarity, transceiver. */
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, fact, hasRole, isType, type Net, type Placed, type Spot, spotAt } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { isSameEnd, type End } from '../netlist.ts';
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
    title: 'Long RS-485 lines are one chain and end in 120 Ω',
    why: 'A long line echoes from an open end and from every branch; 120 Ω at its two ends swallow the echo. A short one does without and saves current.',
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
        const chain = chainOf(net, members);
        const terminators = terminatorsOf(net, members);
        const odd = terminators.find(({ ohm }) => ohm !== null && (ohm < 100 || ohm > 150));
        const inside = terminators.find(
          ({ at }) => at !== null && chain.ends.length === 2 && !chain.ends.includes(at),
        );
        const bare = chain.ends.filter((end) => !terminators.some(({ at }) => at === end));
        const long = `The RS-485 line is ${formatNumber(lengthM, 1)} m long`;
        if (odd)
          report.find(
            'caution',
            `${odd.by.part.label} ends the RS-485 line with ${formatNumber(odd.ohm ?? 0)} Ω; its cable wants 120 Ω.`,
            [...odd.by.spots, ...members],
            {
              remedies: hasRole(odd.by, 'resistor')
                ? [{ kind: 'set-fact', label: 'Take 120 Ω', part: odd.by.part.id, key: 'ohm', value: 120 }]
                : [],
            },
          );
        else if (lengthM <= LONG_M) report.fine();
        else if (chain.star)
          report.find(
            'caution',
            `${long} and branches at ${chain.star.placed.part.label}: every branch echoes. Lead it from part to part.`,
            [chain.star, ...members],
          );
        else if (inside && bare.length > 0)
          report.find(
            'caution',
            `${long}; ${inside.by.part.label} sits at ${inside.at?.placed.part.label ?? ''} in the middle, and the end at ${listOf(bare.map((end) => end.placed.part.label))} is open. Only the two ends want 120 Ω.`,
            [...inside.by.spots, ...bare],
            { remedies: hasRole(inside.by, 'resistor') ? moveTerminator(inside, bare[0] as Spot) : [] },
          );
        else if (bare.length > 0)
          report.find(
            'caution',
            `${long} and has ${bare.length === 1 ? 'one terminator' : 'no terminator'}; both ends want 120 Ω.`,
            members,
            { remedies: bare.flatMap(newTerminator) },
          );
        else if (terminators.length > 2)
          report.find(
            'caution',
            `${long} and has ${terminators.length} terminators; more than the two at its ends only load it.`,
            terminators.flatMap(({ by }) => by.spots),
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
    id: 'rs485-pair',
    title: 'Both wires of an RS-485 bus reach every part',
    why: 'The signal is the difference of two wires: with one of them open nothing answers, or only sometimes.',
    run: (circuit, report) => {
      for (const { members } of aLines(circuit)) {
        const others = members.map((spot) => spotAt(spot.placed, 'b'));
        const nets = others.map((spot) => spot && circuit.netOf(spot.end));
        // The line that most of them share is the bus.
        const main =
          nets.find((net) => net && nets.filter((one) => one === net).length > nets.length / 2) ?? nets[0];
        const apart = others.filter((spot, at): spot is Spot => spot !== null && nets[at] !== main);
        if (members.length > 1 && apart.length > 0)
          report.find(
            'fault',
            `${listOf(apart.map(nameOf))} is not on the same wire as the B of the others: one of the two wires is open.`,
            [...apart, ...others.flatMap((spot) => spot ?? [])],
            { isConsequence: true },
          );
        else if (members.length > 1) report.fine();
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

/** From here on echoes count, m. */
const LONG_M = 20;

/** The order of a line: its two ends, and a part with more than two neighbours, where it branches. */
function chainOf(
  net: Net,
  members: readonly Spot[],
): { readonly ends: readonly Spot[]; readonly star: Spot | null } {
  const neighbours = new Map<Spot, Set<Spot>>(members.map((spot) => [spot, new Set()]));
  const memberAt = (end: End) => members.find((spot) => isSameEnd(spot.end, end));
  for (const wire of net.wires) {
    const [one, other] = [memberAt(wire.from), memberAt(wire.to)];
    if (!one || !other || one === other) continue;
    neighbours.get(one)?.add(other);
    neighbours.get(other)?.add(one);
  }
  const count = (spot: Spot) => neighbours.get(spot)?.size ?? 0;
  return {
    ends: members.filter((spot) => count(spot) === 1),
    star: members.find((spot) => count(spot) > 2) ?? null,
  };
}

type Terminator = { readonly by: Placed; readonly at: Spot | null; readonly ohm: number | null };

/** What ends a line, with the member it sits at: a resistor between A and B, or a part's own. */
function terminatorsOf(net: Net, members: readonly Spot[]): Terminator[] {
  const own = members
    .filter((spot) => fact(spot.placed, 'hasTermination') === 1)
    .map((spot): Terminator => ({ by: spot.placed, at: spot, ohm: null }));
  const resistors = net.spots
    .filter((spot) => hasRole(spot.placed, 'resistor'))
    .map((spot): Terminator => {
      const wire = net.wires.find((one) => isSameEnd(one.from, spot.end) || isSameEnd(one.to, spot.end));
      const far = wire && (isSameEnd(wire.from, spot.end) ? wire.to : wire.from);
      return {
        by: spot.placed,
        at: members.find((one) => far && isSameEnd(one.end, far)) ?? null,
        ohm: fact(spot.placed, 'ohm'),
      };
    });
  return [...own, ...resistors];
}

function newTerminator(end: Spot): Remedy[] {
  const b = spotAt(end.placed, 'b');
  return b
    ? [
        {
          kind: 'bridge',
          label: `Put 120 Ω at ${end.placed.part.label}`,
          entryId: 'resistor',
          ends: { a: end.end, b: b.end },
          settings: { ohm: 120 },
        },
      ]
    : [];
}

function moveTerminator({ by }: Terminator, to: Spot): Remedy[] {
  const b = spotAt(to.placed, 'b');
  return b
    ? [
        {
          kind: 'rewire',
          label: `Move ${by.part.label} to ${to.placed.part.label}`,
          part: by.part.id,
          ends: { a: to.end, b: b.end },
        },
      ]
    : [];
}
