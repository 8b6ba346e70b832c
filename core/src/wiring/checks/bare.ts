/** Checks of sensors that are a resistance and nothing else: electrodes, light cells, thermistors without their divider. */
import { electrodesResistor } from '../../electrics/electrodes.ts';
import { nextDown } from '../../electrics/eSeries.ts';
import { formatNumber } from '../../quantity/format.ts';
import { fact, isBareSensor, isType, type Circuit, type Spot } from '../circuit.ts';
import type { Check, Remedy } from '../finding.ts';
import { boardOf, groundSpot, inOhm, isWired, logicSupply, nameOf, others } from '../look.ts';
import { fixedBeside, hangsOnGround } from '../bareSensor.ts';
import { isBareSignal } from '../solve/situations.ts';

/** Below this share of the best span another resistor is worth the solder. */
const GOOD_SHARE = 0.6;

const isInput = (spot: Spot): boolean => isType(spot, 'pin') || isType(spot, 'analog in');

/** A fixed resistor from the signal to ground, or to the board's supply where the sensor hangs on ground. */
function addFixed(circuit: Circuit, signal: Spot, ohm: number): Remedy[] {
  const board = boardOf(circuit, signal.placed);
  const to = board && (hangsOnGround(circuit, signal) ? logicSupply(board) : groundSpot(board));
  return to
    ? [
        {
          kind: 'bridge',
          label: `Put ${inOhm(ohm)} from it to ${nameOf(to)}`,
          entryId: 'resistor',
          ends: { a: signal.end, b: to.end },
          settings: { ohm },
        },
      ]
    : [];
}

export const BARE_CHECKS: readonly Check[] = [
  {
    id: 'bare-resistor',
    title: 'Every bare sensor has a fixed resistor that suits it',
    why: 'Alone it only changes its resistance. With a fixed resistor it makes a voltage, and that resistor decides how much of the scale lies between dry and wet.',
    run: (circuit, report) => {
      for (const placed of circuit.parts.values()) {
        if (!isBareSensor(placed) || !placed.spots.every((spot) => isWired(circuit, spot))) continue;
        const signal = placed.spots.find((spot) => isBareSignal(circuit, spot));
        const { label } = placed.part;
        if (!signal) {
          report.find(
            'fault',
            `Both leads of ${label} are on supply or ground: one of them belongs on an input, with a fixed resistor.`,
            placed.spots,
          );
          continue;
        }
        const pin = others(circuit, signal).find(isInput);
        const [mostOhm, leastOhm] = [fact(placed, 'mostOhm'), fact(placed, 'leastOhm')];
        if (mostOhm === null || leastOhm === null) {
          report.unknown(
            `Which resistor suits ${label} is not known: measure it with the multimeter, dry and wet (or dark and bright, cold and hot).`,
            [signal],
          );
          continue;
        }
        const adcBits = (pin && fact(pin.placed, 'adcBits')) ?? 10;
        const best = electrodesResistor({ dryOhm: mostOhm, wetOhm: leastOhm, adcBits, series: 'E12' });
        const spanOf = (ohm: number) => Math.abs(mostOhm / (mostOhm + ohm) - leastOhm / (leastOhm + ohm));
        const bears = (pin && fact(pin.placed, 'sourceLimitOhm')) ?? Infinity;
        // A smaller one spreads a little less, and the converter's input bears it.
        const borne = nextDown('E12', 1 / Math.max(1 / bears - 1 / mostOhm, 1e-12));
        const ohm =
          borne < best.fixedOhm && spanOf(borne) > GOOD_SHARE * spanOf(best.fixedOhm) ? borne : best.fixedOhm;
        const fixed = fixedBeside(circuit, signal);
        if (!fixed) {
          report.find(
            'fault',
            `${label} is only a resistance: without a fixed resistor beside it ${pin ? nameOf(pin) : 'its input'} sees the same voltage whatever it measures. ${inOhm(ohm)} spreads its two ends ${ohm === best.fixedOhm ? 'the furthest' : 'about as far as can be read there'}.`,
            pin ? [signal, pin] : [signal],
            { worked: best.worked, remedies: addFixed(circuit, signal, ohm) },
          );
          continue;
        }
        const fixedOhm = fact(fixed, 'ohm');
        if (fixedOhm === null) {
          report.unknown(`The value of ${fixed.part.label} beside ${label} is not known.`, [signal]);
          continue;
        }
        const share = spanOf(fixedOhm) / spanOf(best.fixedOhm);
        if (share < GOOD_SHARE)
          report.find(
            'caution',
            `With ${inOhm(fixedOhm)} (${fixed.part.label}) ${label} uses ${formatNumber(spanOf(fixedOhm) * 100)} % of the scale; with ${inOhm(ohm)} it would use ${formatNumber(spanOf(ohm) * 100)} %.`,
            [...fixed.spots, signal],
            {
              worked: best.worked,
              remedies: [
                {
                  kind: 'set-fact',
                  label: `Take ${inOhm(ohm)}`,
                  part: fixed.part.id,
                  key: 'ohm',
                  value: ohm,
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
];
