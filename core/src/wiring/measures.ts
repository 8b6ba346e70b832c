/**
 * What to measure with a multimeter, in the order of the bench: without power that nothing is shorted, then with power and the boards still out what the
 * supplies give, then with the boards in what these hand on.
 */
import { formatNumber } from '../quantity/format.ts';
import { type Circuit, type Net, type Spot, hasRole, isType } from './circuit.ts';
import { isTransformer, isWired, nameOf } from './look.ts';
import { groundOf, solvedOf } from './solve/solved.ts';

const STAGES = ['without power', 'power on, boards out', 'power on, boards in'] as const;
type Stage = (typeof STAGES)[number];

export type Measure = {
  readonly stage: Stage;
  /** Where the two tips go. */
  readonly red: string;
  readonly black: string;
  readonly expects: string;
};

/** A meter and a supply are each right to about this share. */
const METER_SHARE = 0.02;

/** Places of a supply that one measures at: what gives it, and what wants it, each net once. */
function rails(circuit: Circuit): Spot[] {
  const seen = new Set<Net>();
  const rank = (spot: Spot) => (isType(spot, 'supply out') ? 0 : hasRole(spot.placed, 'board') ? 1 : 2);
  return (
    [...circuit.parts.values()]
      .flatMap(({ spots }) => spots)
      .filter((spot) => (isType(spot, 'supply out') || isType(spot, 'supply in')) && isWired(circuit, spot))
      .sort((one, other) => rank(one) - rank(other))
      // What a pin feeds is only fed while it is read.
      .filter((spot) => !circuit.netOf(spot.end).spots.some((one) => isType(one, 'pin')))
      .filter((spot) => {
        const net = circuit.netOf(spot.end);
        if (seen.has(net)) return false;
        seen.add(net);
        return true;
      })
  );
}

/** @returns nothing to measure at what has no ground to measure against, or a voltage that is not known */
export function measuresOf(circuit: Circuit): Measure[] {
  const solved = solvedOf(circuit);
  const steady = solved.all.filter(({ situation }) => !['boot', 'start'].includes(situation.kind));
  return rails(circuit)
    .flatMap((spot): Measure[] => {
      const ground = groundOf(spot.placed);
      if (!ground) return [];
      const tips = { red: nameOf(spot), black: nameOf(ground) };
      const source = circuit.netOf(spot.end).level?.from;
      // An alternating voltage is measured on the meter's other range, and has no plus.
      const isAlternating = source !== undefined && isTransformer(source.placed);
      const volts = steady
        .flatMap((at) => solved.voltsAt(at, spot) ?? [])
        .filter((one) => Number.isFinite(one));
      const [low, high] = [Math.min(...volts), Math.max(...volts)];
      const isKnown = circuit.netOf(spot.end).level?.volts != null && volts.length > 0 && high > 0.5;
      return [
        { stage: 'without power', ...tips, expects: 'no beep: a beep is a short' },
        ...(isKnown
          ? [
              {
                stage:
                  source && hasRole(source.placed, 'board') ? 'power on, boards in' : 'power on, boards out',
                ...tips,
                expects: `${inTenths(low * (1 - METER_SHARE))} to ${inTenths(high * (1 + METER_SHARE))} V${isAlternating ? ' AC' : ''}`,
              } satisfies Measure,
            ]
          : []),
      ];
    })
    .sort((one, other) => STAGES.indexOf(one.stage) - STAGES.indexOf(other.stage));
}

const inTenths = (volts: number): string => formatNumber(Math.max(0, volts), 1);
