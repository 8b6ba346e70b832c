/** Checks of rails: nothing shorted, no supplies joined, one ground for what is joined by a signal. */
import { type Circuit, type Net, type Placed, type Spot, hasRole, spotsOf } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { listOf, nameOf } from '../look.ts';

export const FEED_CHECKS: readonly Check[] = [
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
        const grounds = net.spots.filter(
          (spot) => spot.terminal.type === 'ground' && !hasRole(spot.placed, 'contact'),
        );
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
        // A switch has no ground: its two wires go where one likes.
        if (!one || !other || one === other || hasRole(one, 'contact') || hasRole(other, 'contact')) continue;
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
