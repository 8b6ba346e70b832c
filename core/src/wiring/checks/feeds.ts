/** Checks of feeding: everything has supply and ground, of the right voltage, with nothing shorted or joined. */
import {
  type Circuit,
  type Net,
  type Placed,
  type Spot,
  fact,
  hasRole,
  isType,
  spotAt,
  spotsOf,
} from '../circuit.ts';
import { type Check } from '../finding.ts';
import { allSpots, feederOf, inV, isWired, listOf, nameOf, partsWith } from '../look.ts';

export const FEED_CHECKS: readonly Check[] = [
  {
    id: 'unpowered',
    title: 'Every part has its supply and its ground',
    why: 'A part with one of the two missing reads nothing, or feeds itself through its signal wire and reads nonsense.',
    run: (circuit, report) => {
      for (const placed of circuit.parts.values())
        for (const spot of spotsOf(placed)) {
          const { type } = spot.terminal;
          const needs = type === 'supply in' || type === 'ground' || type === 'load' || type === 'loop';
          if (!needs || hasRole(placed, 'supply', 'battery')) continue;
          if (
            isWired(circuit, spot) &&
            (type === 'ground' || circuit.netOf(spot.end).level !== null || type === 'load')
          )
            report.fine();
          else {
            const from = supplyToSuggest(circuit, spot);
            report.find(
              'fault',
              isWired(circuit, spot)
                ? `${nameOf(spot)} is wired, but nothing feeds it.`
                : `${nameOf(spot)} is not wired.`,
              [spot],
              {
                remedies:
                  from && !isWired(circuit, spot)
                    ? [
                        {
                          kind: 'add-wire',
                          label: `Wire it to ${nameOf(from)}`,
                          from: from.end,
                          to: spot.end,
                        },
                      ]
                    : [],
              },
            );
          }
        }
    },
  },
  {
    id: 'supply-range',
    title: 'Every part gets a voltage it is made for',
    why: 'Too much kills it, too little makes it read low, and a probe that follows its supply reads low without a sign.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'supply in')) continue;
        const { level } = circuit.netOf(spot.end);
        if (!level) continue;
        const { minV, maxV } = spot.terminal;
        if (level.volts === null || minV === null || maxV === null)
          report.unknown(`Which voltage ${spot.placed.part.label} gets or wants is not known.`, [spot]);
        else if (level.volts > maxV + 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} bears ${inV(maxV)} and gets ${inV(level.volts)} from ${nameOf(level.from)}.`,
            [spot, level.from],
            { remedies: feedInstead(circuit, spot) },
          );
        else if (level.volts < minV - 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} wants at least ${inV(minV)} and gets ${inV(level.volts)} from ${nameOf(level.from)}.`,
            [spot, level.from],
            { remedies: feedInstead(circuit, spot) },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'load-voltage',
    title: 'Every pump and valve gets the voltage it is made for',
    why: 'A 5 V pump on 12 V burns within minutes; a 12 V valve on 5 V does not open.',
    run: (circuit, report) => {
      for (const load of partsWith(circuit, 'pump', 'valve')) {
        const plus = spotAt(load, 'plus');
        if (!plus || !isWired(circuit, plus)) continue;
        const volts = circuit.netOf(plus.end).level?.volts ?? null;
        const ratedV = fact(load, 'ratedV');
        if (volts === null || ratedV === null)
          report.unknown(`The voltage of ${load.part.label}, or what feeds it, is not known.`, [plus]);
        else if (Math.abs(volts - ratedV) > 0.25 * ratedV)
          report.find('fault', `${load.part.label} is made for ${inV(ratedV)} and gets ${inV(volts)}.`, [
            plus,
          ]);
        else report.fine();
      }
    },
  },
  {
    id: 'supplies-joined',
    title: 'No two supplies are joined',
    why: 'The higher one feeds into the lower one, and one of them burns.',
    run: (circuit, report) => {
      for (const net of circuit.nets) {
        const sources = net.spots.filter((spot) => spot.terminal.type === 'supply out');
        if (sources.length > 1)
          report.find('danger', `${listOf(sources.map(nameOf))} are wired together.`, sources);
        else if (sources.length === 1 && net.wires.length > 0) report.fine();
      }
    },
  },
  {
    id: 'short',
    title: 'No supply is wired to ground',
    why: 'A short: fuse, cable or battery go, in that order if there is a fuse.',
    run: (circuit, report) => {
      for (const net of circuit.nets) {
        const sources = net.spots.filter(
          (spot) => spot.terminal.type === 'supply out' || spot.terminal.type === 'supply in',
        );
        const grounds = net.spots.filter((spot) => spot.terminal.type === 'ground');
        if (sources.length > 0 && grounds.length > 0)
          report.find(
            'danger',
            `${nameOf(sources[0] as Spot)} is wired to ${nameOf(grounds[0] as Spot)}: a short.`,
            [...sources, ...grounds],
          );
        else if (sources.length > 0 && net.wires.length > 0) report.fine();
      }
    },
  },
  {
    id: 'common-ground',
    title: 'Everything that is joined by a signal shares one ground',
    why: 'A voltage is a difference: without a common ground a signal means nothing and its current finds another way.',
    run: (circuit, report) => {
      const told = new Set<string>();
      for (const wire of circuit.netlist.wires) {
        const one = circuit.parts.get(wire.from.part);
        const other = circuit.parts.get(wire.to.part);
        if (!one || !other || one === other) continue;
        const grounds = [groundNets(circuit, one), groundNets(circuit, other)] as const;
        const signal = [one, other].some((placed) =>
          spotsOf(placed).some((spot) =>
            spot.end.part === wire.from.part
              ? spot.terminal.id === wire.from.terminal && isSignal(spot)
              : spot.terminal.id === wire.to.terminal && spot.end.part === wire.to.part && isSignal(spot),
          ),
        );
        if (grounds[0].length === 0 || grounds[1].length === 0 || !signal) continue;
        const pair = grounds
          .map((nets) => circuit.nets.indexOf(nets[0] as Net))
          .sort()
          .join(' ');
        if (grounds[0].some((net) => grounds[1].includes(net))) report.fine();
        else if (!told.has(pair)) {
          told.add(pair);
          const ends = [groundEnd(one), groundEnd(other)].flatMap((spot) => (spot ? [spot] : []));
          report.find(
            'fault',
            `${one.part.label} and ${other.part.label} are joined by a signal but have no ground in common.`,
            ends,
            {
              remedies:
                ends[0] && ends[1]
                  ? [{ kind: 'add-wire', label: 'Join their grounds', from: ends[0].end, to: ends[1].end }]
                  : [],
            },
          );
        }
      }
    },
  },
];

const isSignal = (spot: Spot) =>
  !['supply in', 'supply out', 'ground', 'load', 'lead', 'switched', 'mains', 'loop'].includes(
    spot.terminal.type,
  );

const groundEnd = (placed: Placed): Spot | null =>
  spotsOf(placed).find((spot) => spot.terminal.type === 'ground') ?? null;

const groundNets = (circuit: Circuit, placed: Placed): Net[] =>
  spotsOf(placed)
    .filter((spot) => spot.terminal.type === 'ground')
    .map((spot) => circuit.netOf(spot.end));

/** A supply that suits an unwired terminal: the first output in range, or a ground. */
function supplyToSuggest(circuit: Circuit, spot: Spot): Spot | null {
  if (spot.terminal.type === 'ground') {
    const board = spot.placed.part.boardId === null ? null : circuit.parts.get(spot.placed.part.boardId);
    const at = board ?? partsWith(circuit, 'board', 'supply', 'battery').find((one) => one !== spot.placed);
    return at ? groundEnd(at) : null;
  }
  return isType(spot, 'supply in') ? (suiting(circuit, spot)[0] ?? null) : null;
}

/** Outputs whose voltage a supply input is made for, its own board's first. */
function suiting(circuit: Circuit, spot: Spot): Spot[] {
  if (!isType(spot, 'supply in')) return [];
  const { minV, maxV } = spot.terminal;
  return allSpots(circuit)
    .filter(
      (out) =>
        isType(out, 'supply out') &&
        out.placed !== spot.placed &&
        out.terminal.volts !== null &&
        out.terminal.volts >= (minV ?? Infinity) - 0.05 &&
        out.terminal.volts <= (maxV ?? -Infinity) + 0.05,
    )
    .sort(
      (one, other) =>
        Number(other.placed.part.id === spot.placed.part.boardId) -
        Number(one.placed.part.id === spot.placed.part.boardId),
    );
}

function feedInstead(circuit: Circuit, spot: Spot) {
  const [from] = suiting(circuit, spot).filter((one) => feederOf(circuit.netOf(spot.end))?.end !== one.end);
  return from
    ? [{ kind: 'feed', label: `Feed it from ${nameOf(from)}`, at: spot.end, from: from.end } as const]
    : [];
}
