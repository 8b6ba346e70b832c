/** Checks of feeding, over the solutions: everything has its voltage and its way back, in every situation. */
import { type Circuit, type Spot, hasRole, isType } from '../../circuit.ts';
import type { Check } from '../../finding.ts';
import { inV, isWired, nameOf, partsWith } from '../../look.ts';
import { groundOf, most, solvedOf, type Solved } from '../../solve/solved.ts';
import { feedInstead, feedsInto, supplyToSuggest } from './feeders.ts';
import { workVoltsAt } from '../../solve/working.ts';

/** Below this a supply is turned round, V. */
const TURNED_V = -0.3;
/** Half of what a part wants at least: below it, it is not fed at all. */
const FED_SHARE = 0.5;

const feedsOf = (circuit: Circuit) =>
  [...circuit.parts.values()]
    .flatMap(({ spots }) => spots)
    .flatMap((spot) => (isType(spot, 'supply in') ? [spot] : []));

/** Whether supply and ground both lead somewhere, so that what is between them can be judged. */
const hasBoth = (circuit: Circuit, spot: Spot): boolean => {
  const ground = groundOf(spot.placed);
  return ground !== null && isWired(circuit, spot) && isWired(circuit, ground);
};

/** Whether a source on its way has no voltage that is known. */
const isUnknown = (circuit: Circuit, spot: Spot): boolean => circuit.netOf(spot.end).level?.volts === null;

/** Whether a board stands in the ring that a spot is fed by. */
const livesOnBoard = (circuit: Circuit, spot: Spot): boolean => {
  const from = circuit.netOf(spot.end).level?.from;
  return from !== undefined && hasRole(from.placed, 'board');
};

function unfed({ idle, mesh }: Solved, spot: Spot): string {
  const ground = groundOf(spot.placed);
  return ground && idle.floats(mesh.nodeOf(ground.end)) && !idle.floats(mesh.nodeOf(spot.end))
    ? `${nameOf(spot)} has its plus, but its ground leads back to no supply: nothing flows.`
    : `${nameOf(spot)} is wired, but nothing feeds it.`;
}

export const FEEDING_CHECKS: readonly Check[] = [
  {
    id: 'unpowered',
    title: 'Every part has its supply and its ground',
    why: 'A part with one of the two missing reads nothing, or feeds itself through its signal wire and reads nonsense.',
    run: (circuit, report) => {
      for (const placed of circuit.parts.values()) {
        if (hasRole(placed, 'supply', 'battery')) continue;
        for (const spot of placed.spots) {
          if (!['supply in', 'ground', 'load', 'loop'].includes(spot.terminal.type)) continue;
          if (isWired(circuit, spot)) {
            report.fine();
            continue;
          }
          const from = supplyToSuggest(circuit, spot);
          report.find('fault', `${nameOf(spot)} is not wired.`, [spot], {
            remedies: from
              ? [{ kind: 'add-wire', label: `Wire it to ${nameOf(from)}`, from: from.end, to: spot.end }]
              : [],
          });
        }
      }
      const solved = solvedOf(circuit);
      for (const shifter of partsWith(circuit, 'level shifter')) {
        const [low, high] = ['lv', 'hv'].map((id) => shifter.spots.find((spot) => spot.terminal.id === id));
        if (!low || !high || !shifter.spots.some((spot) => isWired(circuit, spot))) continue;
        const [lowV, highV] = [solved.voltsAt(solved.idle, low) ?? 0, solved.voltsAt(solved.idle, high) ?? 0];
        if (lowV < 1 || highV < lowV - 0.1)
          report.find(
            'fault',
            `${shifter.part.label} wants the lower supply at ${low.terminal.name} and the higher one at ${high.terminal.name}; it has ${inV(Math.max(0, lowV))} and ${inV(Math.max(0, highV))}.`,
            [low, high],
            workVoltsAt(solved, solved.idle, lowV < 1 ? low : high),
          );
        else report.fine();
      }
      for (const spot of feedsOf(circuit)) {
        if (!hasBoth(circuit, spot)) continue;
        const volts = solved.voltsAt(solved.idle, spot) ?? 0;
        const ground = groundOf(spot.placed);
        if (volts < TURNED_V)
          report.find(
            'danger',
            `${spot.placed.part.label} is turned round: its ${spot.terminal.name} lies ${inV(-volts)} below its ground.`,
            ground ? [spot, ground] : [spot],
            {
              remedies: ground
                ? [{ kind: 'swap', label: 'Exchange the two wires', one: spot.end, other: ground.end }]
                : [],
              ...workVoltsAt(solved, solved.idle, spot),
            },
          );
        else if (volts < FED_SHARE * (spot.terminal.minV ?? 3)) {
          const from = circuit.netOf(spot.end).level?.from;
          if (from && from.placed !== spot.placed && feedsInto(circuit, spot, from)) {
            // Of the parts of a ring the one that is told is the board, or the last before it.
            if (hasRole(spot.placed, 'board') || !livesOnBoard(circuit, spot))
              report.find(
                'fault',
                `${spot.placed.part.label} feeds itself: its supply comes from ${from.placed.part.label}, which lives on it. Nothing ever starts.`,
                [spot, from],
              );
          } else if (!isUnknown(circuit, spot))
            report.find('fault', unfed(solved, spot), [spot], { isConsequence: true });
        } else report.fine();
      }
    },
  },
  {
    id: 'supply-range',
    title: 'Every part gets a voltage it is made for',
    why: 'Too much kills it, too little makes it read low, and a probe that follows its supply reads low without a sign.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const steady = solved.all.filter(({ situation }) => !['boot', 'empty'].includes(situation.kind));
      for (const spot of feedsOf(circuit)) {
        if (!hasBoth(circuit, spot)) continue;
        const { minV, maxV } = spot.terminal;
        const fed = (solution: (typeof steady)[number]) => solved.voltsAt(solution, spot);
        const highest = most(solved.all, fed);
        const lowest = most(steady, (solution) => -(fed(solution) ?? 0));
        const empty = most(
          solved.all.filter(({ situation }) => situation.kind === 'empty'),
          fed,
        );
        if (!highest || !lowest) continue;
        const { level } = circuit.netOf(spot.end);
        const from = level && level.from.placed !== spot.placed ? ` from ${nameOf(level.from)}` : '';
        const spots = level && level.from.placed !== spot.placed ? [spot, level.from] : [spot];
        const remedies = { remedies: feedInstead(circuit, spot) };
        if (isUnknown(circuit, spot) || minV === null || maxV === null)
          report.unknown(`Which voltage ${spot.placed.part.label} gets or wants is not known.`, [spot]);
        else if (highest.value > maxV + 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} bears ${inV(maxV)} and gets ${inV(highest.value)}${from}.`,
            spots,
            { ...remedies, ...workVoltsAt(solved, highest.at, spot) },
          );
        // Far too little is told as not fed at all.
        else if (-lowest.value < FED_SHARE * minV) report.fine();
        else if (-lowest.value < minV - 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} wants at least ${inV(minV)} and gets ${inV(-lowest.value)}${from} ${lowest.at.situation.when}.`,
            spots,
            { ...remedies, ...workVoltsAt(solved, lowest.at, spot) },
          );
        else if (empty && empty.value < minV - 0.05)
          report.find(
            'caution',
            `${spot.placed.part.label} wants at least ${inV(minV)} and gets ${inV(empty.value)}${from} when the battery is empty: it stops, or reads low, long before.`,
            spots,
            workVoltsAt(solved, empty.at, spot),
          );
        else report.fine();
      }
    },
  },
];
