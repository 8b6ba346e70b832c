/** Checks of voltages against limits, over the solutions, and of alternating current. */
import { type Circuit, type Placed, type Spot, fact, hasRole, isType } from '../../circuit.ts';
import { dividerRemedy } from '../../dividerRemedy.ts';
import type { Check, Remedy } from '../../finding.ts';
import {
  allSpots,
  boardOf,
  inV,
  isTransformer,
  isWired,
  listOf,
  logicSupply,
  nameOf,
  partsWith,
} from '../../look.ts';
import { most, solvedOf } from '../../solve/solved.ts';
import { shiftRemedy } from '../levels.ts';
import { workVoltsAt } from '../../solve/working.ts';

/** Voltage a terminal bears; undefined for terminals that have no such limit. */
function bearsV(spot: Spot): number | null | undefined {
  const { terminal } = spot;
  return 'maxV' in terminal && terminal.type !== 'supply in' ? terminal.maxV : undefined;
}

export const LIMIT_CHECKS: readonly Check[] = [
  {
    id: 'over-voltage',
    title: 'No pin sees more voltage than it bears',
    why: 'A pin above its limit fails at once or after weeks, and takes the board with it.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const spot of allSpots(circuit)) {
        const bears = bearsV(spot);
        if (bears === undefined || !isWired(circuit, spot)) continue;
        const { level } = circuit.netOf(spot.end);
        const highest = most(solved.all, (at) => solved.voltsAt(at, spot));
        const lowest = most(solved.all, (at) => -(solved.voltsAt(at, spot) ?? NaN));
        const from = level && level.from.placed !== spot.placed ? level.from : null;
        if (bears === null) {
          if (from)
            report.unknown(`What ${nameOf(spot)} bears is not known. Look it up and enter it.`, [spot]);
        } else if (from && level?.volts === null)
          report.unknown(
            `${nameOf(spot)} bears ${inV(bears)}, but the voltage of ${nameOf(from)} is not known. Measure it before you connect it.`,
            [spot, from],
          );
        else if (highest && highest.value > bears + 0.05)
          report.find(
            'fault',
            from
              ? `${nameOf(from)} can put ${inV(highest.value)} on ${nameOf(spot)}, which bears ${inV(bears)}.`
              : `${nameOf(spot)} bears ${inV(bears)} and sees ${inV(highest.value)} ${highest.at.situation.when}.`,
            from ? [spot, from] : [spot],
            {
              remedies: from ? lower(circuit, spot, from, highest.value, bears) : [],
              ...workVoltsAt(solved, highest.at, spot),
            },
          );
        else if (lowest && lowest.value > 0.5 && !isType(spot, 'open drain'))
          report.find(
            'fault',
            `${nameOf(spot)} lies ${inV(lowest.value)} below its ground ${lowest.at.situation.when}: something is turned round.`,
            [spot],
            { isConsequence: true, ...workVoltsAt(solved, lowest.at, spot) },
          );
        else if (highest) report.fine();
      }
    },
  },
  {
    id: 'alternating',
    title: 'Alternating current meets nothing but contacts and valves made for it',
    why: 'A transistor blocks one half of the wave and breaks; a board or a regulator on a transformer burns at once.',
    run: (circuit, report) => {
      for (const transformer of partsWith(circuit, 'supply').filter(isTransformer)) {
        if (!transformer.spots.some((spot) => isWired(circuit, spot))) continue;
        const wrong = touched(circuit, transformer);
        if (wrong.length > 0)
          report.find(
            'fault',
            `${listOf([...new Set(wrong.map((spot) => spot.placed.part.label))])} would hang on the alternating current of ${transformer.part.label}. Only valves made for it, fuses and the contacts of relays belong there; its two wires stay apart from every ground.`,
            wrong,
          );
        else report.fine();
      }
    },
  },
];

/** What hangs on a transformer's two wires, through contacts, fuses and valves, and must not. */
function touched(circuit: Circuit, transformer: Placed): Spot[] {
  const wrong: Spot[] = [];
  const seen = new Set<object>();
  const queue: Spot[] = [...transformer.spots];
  for (let at = queue.shift(); at; at = queue.shift()) {
    const net = circuit.netOf(at.end);
    if (seen.has(net)) continue;
    seen.add(net);
    for (const spot of net.spots) {
      const { placed } = spot;
      if (placed === transformer) continue;
      const isPassive = hasRole(placed, 'fuse') || (hasRole(placed, 'relay') && isType(spot, 'switched'));
      const isValve = hasRole(placed, 'valve') && (fact(placed, 'ratedV') ?? 0) > 20;
      if (!isPassive && !isValve) wrong.push(spot);
      else
        queue.push(
          ...placed.spots.filter(
            (one) => one !== spot && (isType(one, 'switched') || isType(one, 'lead') || isType(one, 'load')),
          ),
        );
    }
  }
  return wrong;
}

function lower(circuit: Circuit, spot: Spot, from: Spot, volts: number, bears: number): Remedy[] {
  const pullUp = pullUpFrom(circuit, spot, from);
  const board = boardOf(circuit, spot.placed) ?? spot.placed;
  const logic = logicSupply(board);
  if (pullUp && logic)
    return [
      {
        kind: 'rewire',
        label: `Pull up to ${nameOf(logic)} instead`,
        part: pullUp.placed.part.id,
        ends: { [pullUp.terminal.id]: logic.end },
      },
    ];
  // A bus goes both ways: a divider would not let it.
  if (circuit.netOf(spot.end).spots.some((one) => isType(one, 'i2c') || isType(one, 'one-wire')))
    return shiftRemedy(circuit, spot, from);
  const analog = isType(from, 'analog out') || isType(from, 'supply out') || hasRole(from.placed, 'battery');
  if (analog)
    return dividerRemedy(spot, volts, isType(spot, 'pin') ? (spot.terminal.fullScaleV ?? bears) : bears);
  return [
    ...shiftRemedy(circuit, spot, from),
    ...(isType(from, 'digital out') || isType(from, 'uart out')
      ? dividerRemedy(spot, volts, fact(spot.placed, 'logicV') ?? bears)
      : []),
  ];
}

/** The end of a pull-up on a spot's net that hangs on too high a supply. */
function pullUpFrom(circuit: Circuit, spot: Spot, from: Spot): Spot | null {
  if (!isType(from, 'supply out')) return null;
  const high = circuit.netOf(from.end);
  for (const one of circuit.netOf(spot.end).spots) {
    if (!hasRole(one.placed, 'resistor', 'pull-ups')) continue;
    const end = one.placed.spots.find((each) => each !== one && circuit.netOf(each.end) === high);
    if (end) return end;
  }
  return null;
}
