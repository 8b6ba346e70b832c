/** Checks of analog inputs: range, reference, how many there are, the radio, the impedance in front of them. */
import { dividerSourceOhm } from '../../electrics/divider.ts';
import { bestNtcDivider, ntcCountsPerC } from '../../electrics/ntc.ts';
import { formatNumber } from '../../quantity/format.ts';
import { fixedBeside } from '../bareSensor.ts';
import { fact, hasRole, isBareSensor, isType, type Circuit, type Placed, type Spot } from '../circuit.ts';
import type { Check, Remedy } from '../finding.ts';
import {
  allSpots,
  boardOf,
  feederOf,
  freePins,
  inOhm,
  inV,
  isWired,
  listOf,
  nameOf,
  others,
  partsWith,
  supplySpot,
} from '../look.ts';
import { capFor } from '../pinUse.ts';
import { pinUses } from '../solve/situations.ts';

/** An input of a converter with what asks to be read there. */
type Read = {
  readonly input: Spot;
  readonly source: Spot;
  readonly fullScaleV: number | null;
  readonly of: Placed;
};

function reads(circuit: Circuit): Read[] {
  return allSpots(circuit).flatMap((input): Read[] => {
    const isInput =
      isType(input, 'analog in') || (isType(input, 'pin') && input.terminal.caps.includes('adc'));
    if (!isInput || !isWired(circuit, input)) return [];
    const source = others(circuit, input).find((spot) => capFor(circuit, spot) === 'adc');
    if (!source) return [];
    const fullScaleV =
      isType(input, 'pin') || isType(input, 'analog in') ? (input.terminal.fullScaleV ?? null) : null;
    return [{ input, source, fullScaleV, of: input.placed }];
  });
}

/** Source impedance a converter sees, ohm; null when not known. */
function sourceOhm(circuit: Circuit, source: Spot): number | null {
  const { placed, terminal } = source;
  if (isType(source, 'analog out')) return source.terminal.sourceOhm;
  if (terminal.type === 'loop') return 0;
  if (isBareSensor(placed)) {
    // What the input sees is highest where the sensor is: both beside each other.
    const fixed = fixedBeside(circuit, source);
    const [fixedOhm, mostOhm] = [fixed && fact(fixed, 'ohm'), fact(placed, 'mostOhm')];
    return fixedOhm === null || mostOhm === null ? null : (fixedOhm * mostOhm) / (fixedOhm + mostOhm);
  }
  const upperOhm = fact(placed, 'upperOhm');
  const lowerOhm = fact(placed, 'lowerOhm');
  return upperOhm === null || lowerOhm === null ? null : dividerSourceOhm({ upperOhm, lowerOhm });
}

export const ANALOG_CHECKS: readonly Check[] = [
  {
    id: 'analog-count',
    title: 'There are enough analog inputs',
    why: 'Some boards have one. A probe without an input is not read at all.',
    run: (circuit, report) => {
      for (const board of partsWith(circuit, 'board')) {
        const wanting = allSpots(circuit).filter(
          (spot) =>
            capFor(circuit, spot) === 'adc' &&
            spot.terminal.type !== 'lead' &&
            boardOf(circuit, spot.placed) === board,
        );
        if (wanting.length === 0) continue;
        const inputs = inputsOf(circuit, board);
        if (wanting.length > inputs)
          report.find(
            'fault',
            `${wanting.length} signals want an analog input (${listOf(wanting.map((spot) => spot.placed.part.label))}); ${board.part.label} has ${inputs} that can be used.`,
            wanting,
            {
              remedies: [
                {
                  kind: 'add-part',
                  label: 'Add an I2C converter with four inputs',
                  entryId: 'converter-i2c',
                  boardId: board.part.id,
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'adc-radio',
    title: 'No probe sits on an input that the radio takes away',
    why: 'On some boards one group of inputs reads nothing, or nonsense, while the radio is on.',
    run: (circuit, report, { radioOn }) => {
      for (const { pin: input, use, spots } of pinUses(circuit)) {
        const [source] = spots;
        if (use !== 'reads a voltage' || !source || fact(input.placed, 'hasRadio') !== 1) continue;
        if (input.terminal.lostWithRadio !== true || radioOn === false) report.fine();
        else if (radioOn === null)
          report.unknown(
            `${nameOf(input)} is lost while the radio is on, and the interview does not say whether it will be.`,
            [input, source],
          );
        else {
          const free = freePins(circuit, input.placed, 'adc').find(
            (one) => one.terminal.lostWithRadio !== true,
          );
          report.find(
            'fault',
            `${nameOf(input)} reads nothing while the radio is on, and ${nameOf(source)} is read there.`,
            [input, source],
            {
              remedies: free
                ? [{ kind: 'move', label: `Move it to ${free.terminal.name}`, from: input.end, to: free.end }]
                : [],
            },
          );
        }
      }
    },
  },
  {
    id: 'adc-reference',
    title: 'Probes that follow their supply share it with the converter',
    why: 'A probe whose signal follows its supply reads true only against the same voltage: a sagging 5 V moves it, the board’s 3.3 V does not.',
    run: (circuit, report) => {
      for (const { input, source } of reads(circuit)) {
        if (!isType(source, 'analog out') || source.terminal.follows === undefined) continue;
        const supply = circuit.netOf({ part: source.end.part, terminal: source.terminal.follows }).level;
        const referenceV = fact(input.placed, 'adcReferenceV');
        if (!supply) continue;
        if (supply.volts === null || referenceV === null)
          report.unknown(
            `The reference of ${nameOf(input)} or the supply of ${source.placed.part.label} is not known.`,
            [input, source],
          );
        else if (Math.abs(supply.volts - referenceV) > 0.05)
          report.find(
            'caution',
            `${source.placed.part.label} follows its ${inV(supply.volts)}, but ${nameOf(input)} measures against ${inV(referenceV)}. When the supply sags, the reading moves. Feed it from the board’s own ${inV(referenceV)} if it bears that, and calibrate on this supply only.`,
            [input, source],
            { remedies: feedFrom(circuit, source, input.placed, referenceV) },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'source-impedance',
    title: 'Every signal is strong enough for its converter',
    why: 'A converter fills a tiny capacitor at each look; behind a large resistance it is not full in time, and neighbours mix.',
    run: (circuit, report) => {
      for (const { input, source } of reads(circuit)) {
        const limit = fact(input.placed, 'sourceLimitOhm');
        const ohm = sourceOhm(circuit, source);
        if (limit === null || ohm === null)
          report.unknown(
            `The source impedance of ${nameOf(source)}, or what ${nameOf(input)} bears, is not known.`,
            [input, source],
          );
        else if (ohm > limit)
          report.find(
            'caution',
            `${nameOf(source)} has ${inOhm(ohm)} behind it; ${nameOf(input)} wants at most ${inOhm(limit)}. A 100 nF capacitor from the input to ground helps, or smaller resistors.`,
            [input, source],
          );
        else report.fine();
      }
    },
  },
  {
    id: 'divider-load',
    title: 'No divider drags its probe down',
    why: 'A divider is a load: beside a probe of 10 kΩ a divider of 10 kΩ halves the signal before it divides it.',
    run: (circuit, report) => {
      for (const divider of partsWith(circuit, 'divider')) {
        const inlet = { part: divider.part.id, terminal: 'in' };
        const probe = circuit.netOf(inlet).spots.find((spot) => isType(spot, 'analog out'));
        if (!probe || !isType(probe, 'analog out')) continue;
        const upperOhm = fact(divider, 'upperOhm');
        const lowerOhm = fact(divider, 'lowerOhm');
        const { sourceOhm: probeOhm } = probe.terminal;
        if (upperOhm === null || lowerOhm === null || probeOhm === null) {
          report.unknown(
            `The resistors of ${divider.part.label} or the source impedance of ${nameOf(probe)} are not known.`,
            [probe],
          );
          continue;
        }
        const lostFrac = probeOhm / (probeOhm + upperOhm + lowerOhm);
        if (lostFrac > 0.1)
          report.find(
            'caution',
            `${divider.part.label} (${inOhm(upperOhm + lowerOhm)} in all) takes ${formatNumber(lostFrac * 100)} % of ${nameOf(probe)} away, because the probe has ${inOhm(probeOhm)} behind it. A calibration made through the divider still holds; one made without it does not.`,
            [probe],
          );
        else report.fine();
      }
    },
  },
  {
    id: 'thermistor-resistor',
    title: 'Every thermistor has a fixed resistor that suits it',
    why: 'Far from the thermistor’s own value the degrees crowd together at one end.',
    run: (circuit, report) => {
      for (const ntc of partsWith(circuit, 'thermometer')) {
        const r25Ohm = fact(ntc, 'r25Ohm');
        if (!ntc.entry.terminals.some((one) => one.type === 'analog out')) continue;
        const betaK = fact(ntc, 'betaK');
        const fixedOhm = fact(ntc, 'ohm');
        const spots = ntc.spots.filter((spot) => isType(spot, 'analog out'));
        if (r25Ohm === null || betaK === null || fixedOhm === null) {
          report.unknown(`Thermistor or fixed resistor of ${ntc.part.label} is not known.`, spots);
          continue;
        }
        const asked = {
          r25Ohm,
          betaK,
          lowC: GARDEN_RANGE.lowC,
          highC: GARDEN_RANGE.highC,
          series: 'E12',
          adcBits: 10,
        } as const;
        const best = bestNtcDivider(asked);
        const worst = Math.min(
          ...[GARDEN_RANGE.lowC, GARDEN_RANGE.highC].map((temperatureC) =>
            ntcCountsPerC({ ...asked, fixedOhm, temperatureC }),
          ),
        );
        if (worst < best.worstCountsPerC / 2)
          report.find(
            'caution',
            `With ${inOhm(fixedOhm)} the coarsest degree of ${ntc.part.label} between ${GARDEN_RANGE.lowC} and ${GARDEN_RANGE.highC} °C is less than half as fine as with ${inOhm(best.fixedOhm)}.`,
            spots,
            {
              worked: best.worked,
              remedies: [
                {
                  kind: 'set-fact',
                  label: `Take ${inOhm(best.fixedOhm)}`,
                  part: ntc.part.id,
                  key: 'ohm',
                  value: best.fixedOhm,
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
];

/** What soil and air of a garden usually do, °C. */
const GARDEN_RANGE = { lowC: -5, highC: 45 } as const;

/** Inputs of a board that can be used at all, and those of converters that report to it. */
function inputsOf(circuit: Circuit, board: Placed): number {
  const own = board.entry.terminals.filter(
    (one) => one.type === 'pin' && one.caps.includes('adc') && !isTakenByBus(circuit, board, one.id),
  ).length;
  const added = partsWith(circuit, 'converter').filter((one) => boardOf(circuit, one) === board);
  return (
    own +
    added.reduce((sum, one) => sum + one.entry.terminals.filter((t) => t.type === 'analog in').length, 0)
  );
}

/** An input that something else has taken, such as the bus. */
function isTakenByBus(circuit: Circuit, board: Placed, terminal: string): boolean {
  const spots = circuit.netOf({ part: board.part.id, terminal }).spots.filter((one) => one.placed !== board);
  const caps = spots.map((one) => capFor(circuit, one));
  return caps.some((cap) => cap !== null && cap !== 'adc') && !caps.includes('adc');
}

/** Feeds a probe from the supply output of its board that matches the converter's reference. */
function feedFrom(circuit: Circuit, source: Spot, of: Placed, referenceV: number): Remedy[] {
  const board = hasRole(of, 'board') ? of : boardOf(circuit, of);
  const supply = supplySpot(source.placed);
  const out = board?.entry.terminals.find((one) => one.type === 'supply out' && one.volts === referenceV);
  if (!board || !supply || !out || !isType(supply, 'supply in')) return [];
  if ((supply.terminal.minV ?? Infinity) > referenceV) return [];
  const feeder = feederOf(circuit.netOf(supply.end));
  if (!feeder) return [];
  return [
    {
      kind: 'feed',
      label: `Feed ${source.placed.part.label} from ${board.part.label} ${out.name}`,
      at: supply.end,
      from: { part: board.part.id, terminal: out.id },
    },
  ];
}
