/** The sums of the wiring as forms: what is asked, with sound first values, and how the answer reads. The arithmetic itself sits in core. */
import { byId } from '@plain-trowel/core/quantity/byId';
import type { Facts } from '@plain-trowel/core/catalogue/facts';
import { mm2FromAwg, thinnestCableMm2, workCableDrop } from '@plain-trowel/core/electrics/cable';
import { bestDivider, trimMultiplier } from '@plain-trowel/core/electrics/divider';
import { electrodesResistor } from '@plain-trowel/core/electrics/electrodes';
import type { ESeries } from '@plain-trowel/core/electrics/eSeries';
import { fuseFor } from '@plain-trowel/core/electrics/fuse';
import { i2cPullUp } from '@plain-trowel/core/electrics/i2cPullUp';
import { ledResistor } from '@plain-trowel/core/electrics/led';
import { bestNtcDivider } from '@plain-trowel/core/electrics/ntc';
import { shuntFor } from '@plain-trowel/core/electrics/shunt';
import { baseResistor, gateResistor } from '@plain-trowel/core/electrics/switches';
import { workBatteryDays } from '@plain-trowel/core/power/battery';
import { workDarkDays, workPanel } from '@plain-trowel/core/power/solar';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Worked } from '@plain-trowel/core/quantity/worked';
import { sumText, type SumIssue } from '../../../../words/sumText.ts';

type SumField = {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly decimals: number;
};
export type SumValues = Readonly<Record<string, number>>;
export type SumAnswer =
  | {
      readonly ok: true;
      readonly worked: Worked;
      readonly lines: readonly string[];
      readonly use: Facts | null;
    }
  | { readonly ok: false; readonly says: string };
export type Sum = {
  readonly id: SumId;
  readonly name: string;
  readonly asks: string;
  readonly fields: readonly SumField[];
  readonly series: boolean;
  /** @param of reads a field's value; the form holds all of them */
  readonly solve: (of: (key: string) => number, series: ESeries) => SumAnswer;
};
export const SUM_IDS = [
  'led',
  'divider',
  'ntc',
  'electrodes',
  'base',
  'gate',
  'i2c',
  'shunt',
  'cable',
  'battery',
  'solar',
  'fuse',
] as const;
export type SumId = (typeof SUM_IDS)[number];

const field = (
  key: string,
  label: string,
  unit: string,
  value: number,
  least: number,
  most: number,
  decimals = 0,
): SumField => ({ key, label, unit, value, least, most, decimals });
const n = formatNumber;
const answer = (worked: Worked, lines: readonly string[], use: Facts | null = null): SumAnswer => ({
  ok: true,
  worked,
  lines,
  use,
});
const refused = (issue: SumIssue): SumAnswer => ({ ok: false, says: sumText(issue) });

export const SUMS: readonly Sum[] = [
  {
    id: 'led',
    name: 'LED resistor',
    asks: 'Which resistor keeps the LED and the pin safe?',
    series: true,
    fields: [
      field('pinV', 'Pin or supply', 'V', 3.3, 0.5, 60, 2),
      field('forwardV', 'Forward voltage', 'V', 2, 0.5, 12, 2),
      field('currentMa', 'Wanted current', 'mA', 5, 0.1, 1000, 1),
    ],
    solve: (of, series) => {
      const found = ledResistor({
        pinV: of('pinV'),
        forwardV: of('forwardV'),
        currentMa: of('currentMa'),
        series,
      });
      if (!found.ok) return refused(found.issue);
      const { ohm, actualMa, heatMw, worked } = found.value;
      const heat = `the resistor turns ${n(heatMw)} mW into heat, a quarter-watt one ${heatMw < 200 ? 'is enough' : 'is too small'}`;
      return answer(worked, [`With it ${n(actualMa, 1)} mA flow; ${heat}.`], { ohm });
    },
  },
  {
    id: 'divider',
    name: 'Divider',
    asks: 'Which pair brings a voltage down to what a pin bears?',
    series: true,
    fields: [
      field('inV', 'Highest voltage in', 'V', 5, 0.1, 60, 2),
      field('targetV', 'May come out', 'V', 3.3, 0.1, 60, 2),
      field('sourceLimitOhm', 'At most behind it', 'Ω', 10_000, 10, 1e7),
      field('leastSumOhm', 'At least in all', 'Ω', 10_000, 20, 1e7),
      field('loadOhm', 'Load on its output', 'Ω', 10_000_000, 100, 1e9),
      field('meterV', 'Meter shows (0: not yet)', 'V', 0, 0, 60, 3),
      field('boardV', 'Board makes of it', 'V', 0, 0, 60, 3),
    ],
    solve: (of, series) => {
      const found = bestDivider({
        inV: of('inV'),
        targetV: of('targetV'),
        sourceLimitOhm: of('sourceLimitOhm'),
        leastSumOhm: of('leastSumOhm'),
        loadOhm: of('loadOhm'),
        series,
      });
      if (!found.ok) return refused(found.issue);
      const { upperOhm, lowerOhm, outV, sourceOhm, multiplier, worked } = found.value;
      const trim = trimMultiplier(of('meterV'), of('boardV'));
      return answer(
        worked,
        [
          `${n(upperOhm)} Ω above, ${n(lowerOhm)} Ω below: ${n(outV, 3)} V at most, with ${n(sourceOhm)} Ω behind it.`,
          trim === null
            ? `In code multiply by ${n(multiplier, 4)}.`
            : `Trimmed with the meter: multiply what the board makes of it by ${n(trim, 4)} more.`,
        ],
        { upperOhm, lowerOhm },
      );
    },
  },
  {
    id: 'ntc',
    name: 'Thermistor divider',
    asks: 'Which fixed resistor makes the degrees finest where they matter?',
    series: true,
    fields: [
      field('r25Ohm', 'Thermistor at 25 °C', 'Ω', 10_000, 10, 1e7),
      field('betaK', 'Beta', 'K', 3950, 1000, 10_000),
      field('lowC', 'Coldest', '°C', -5, -60, 150, 1),
      field('highC', 'Warmest', '°C', 45, -60, 150, 1),
      field('adcBits', 'Converter', 'bits', 12, 8, 24),
    ],
    solve: (of, series) => {
      if (of('highC') <= of('lowC')) return { ok: false, says: 'The warmest must lie above the coldest.' };
      const found = bestNtcDivider({
        r25Ohm: of('r25Ohm'),
        betaK: of('betaK'),
        lowC: of('lowC'),
        highC: of('highC'),
        adcBits: of('adcBits'),
        series,
      });
      return answer(
        found.worked,
        [
          `Take ${n(found.fixedOhm)} Ω. The coarsest degree has ${n(found.worstCountsPerC, 1)} counts; one count is ${n(1 / found.worstCountsPerC, 3)} °C.`,
          ...found.rows.map(
            (row) =>
              `${n(row.temperatureC, 1)} °C: ${n(row.ohm)} Ω, ${n(row.counts)} counts, ${n(row.countsPerC, 1)} counts/°C`,
          ),
        ],
        { ohm: found.fixedOhm },
      );
    },
  },
  {
    id: 'electrodes',
    name: 'Electrodes in a divider',
    asks: 'Measured dry and wet with the multimeter: which fixed resistor spreads the two the furthest?',
    series: true,
    fields: [
      field('dryOhm', 'Dry', 'Ω', 200_000, 1, 1e7),
      field('wetOhm', 'Wet', 'Ω', 8000, 1, 1e7),
      field('adcBits', 'Converter', 'bits', 10, 8, 24),
    ],
    solve: (of, series) => {
      const found = electrodesResistor({
        dryOhm: of('dryOhm'),
        wetOhm: of('wetOhm'),
        adcBits: of('adcBits'),
        series,
      });
      return answer(
        found.worked,
        [
          `With ${n(found.fixedOhm)} Ω dry soil reads ${n(found.dryCounts)} counts and wet soil ${n(found.wetCounts)}: ${n(found.spanCounts)} counts between them.`,
        ],
        { ohm: found.fixedOhm },
      );
    },
  },
  {
    id: 'base',
    name: 'Transistor base',
    asks: 'Which base resistor switches the load fully?',
    series: true,
    fields: [
      field('pinV', 'Pin', 'V', 3.3, 0.5, 24, 2),
      field('loadMa', 'Load', 'mA', 180, 1, 10_000),
      field('hfe', 'Gain at that load', '', 100, 5, 5000),
      field('overdrive', 'Overdrive', '×', 3, 1, 20, 1),
      field('pinMa', 'Pin may give', 'mA', 12, 0.5, 500, 1),
    ],
    solve: (of, series) => {
      const found = baseResistor({
        pinV: of('pinV'),
        loadMa: of('loadMa'),
        hfe: of('hfe'),
        overdrive: of('overdrive'),
        pinMa: of('pinMa'),
        series,
      });
      return found.ok
        ? answer(
            found.value.worked,
            [`The pin gives ${n(found.value.baseMa, 1)} mA. Put a diode across the load.`],
            { ohm: found.value.ohm },
          )
        : refused(found.issue);
    },
  },
  {
    id: 'gate',
    name: 'MOSFET gate',
    asks: 'Which gate resistor, and is the MOSFET fully on?',
    series: true,
    fields: [
      field('pinV', 'Pin', 'V', 3.3, 0.5, 24, 2),
      field('pinMa', 'Pin may give', 'mA', 20, 0.5, 500, 1),
      field('gateFullOnV', 'Fully on from', 'V', 2.5, 0.5, 20, 1),
      field('onOhm', 'On-resistance', 'Ω', 0.04, 0.0001, 10, 3),
      field('loadMa', 'Load', 'mA', 900, 1, 50_000),
      field('pullDownOhm', 'Pull-down', 'Ω', 100_000, 100, 1e7),
    ],
    solve: (of, series) => {
      const found = gateResistor({
        pinV: of('pinV'),
        pinMa: of('pinMa'),
        gateFullOnV: of('gateFullOnV'),
        onOhm: of('onOhm'),
        loadMa: of('loadMa'),
        pullDownOhm: of('pullDownOhm'),
        series,
      });
      return found.ok
        ? answer(
            found.value.worked,
            [
              `${n(found.value.gateV, 2)} V reach the gate; switched on it makes ${n(found.value.heatMw)} mW of heat.`,
            ],
            { ohm: found.value.ohm },
          )
        : refused(found.issue);
    },
  },
  {
    id: 'i2c',
    name: 'I2C pull-up',
    asks: 'Between which values must the pull-ups lie?',
    series: true,
    fields: [
      field('supplyV', 'Bus voltage', 'V', 3.3, 1, 5.5, 1),
      field('busPf', 'Load of the bus', 'pF', 100, 1, 1000),
      field('fast', 'Fast, 400 kHz (1 yes, 0 no)', '', 0, 0, 1),
    ],
    solve: (of, series) => {
      const found = i2cPullUp({
        supplyV: of('supplyV'),
        busPf: of('busPf'),
        speed: of('fast') === 1 ? 'fast, 400 kHz' : 'standard, 100 kHz',
        series,
      });
      if (!found.ok) return refused(found.issue);
      const { leastOhm, mostOhm, ohm, worked } = found.value;
      return answer(
        worked,
        [
          `From ${n(leastOhm)} Ω to ${n(mostOhm)} Ω. Count about 70 pF for each metre of cable and 10 to 20 pF for each module.`,
        ],
        { ohm },
      );
    },
  },
  {
    id: 'shunt',
    name: 'Shunt, 4–20 mA',
    asks: 'Which shunt fits the input, and is the loop’s voltage enough?',
    series: true,
    fields: [
      field('inputV', 'Input reads up to', 'V', 3.3, 0.1, 24, 2),
      field('loopV', 'Loop supply', 'V', 12, 3, 40, 1),
      field('probeV', 'Probe needs at least', 'V', 8, 0, 36, 1),
      field('cableOhm', 'Cable, both wires', 'Ω', 2, 0, 1000, 1),
      field('adcBits', 'Converter', 'bits', 12, 8, 24),
    ],
    solve: (of, series) => {
      const found = shuntFor({
        inputV: of('inputV'),
        loopV: of('loopV'),
        probeV: of('probeV'),
        cableOhm: of('cableOhm'),
        adcBits: of('adcBits'),
        series,
      });
      if (!found.ok) return refused(found.issue);
      const { ohm, fullV, zeroV, brokenCounts, spareV, worked } = found.value;
      return answer(
        worked,
        [
          `4 mA is ${n(zeroV, 2)} V, 20 mA is ${n(fullV, 2)} V. Below ${n(brokenCounts)} counts the wire is broken. ${n(spareV, 1)} V are left over in the loop.`,
        ],
        { ohm },
      );
    },
  },
  {
    id: 'cable',
    name: 'Cable drop',
    asks: 'What does a cable lose, and how thick must it be?',
    series: false,
    fields: [
      field('lengthM', 'Length, one way', 'm', 5, 0.1, 1500, 1),
      field('currentMa', 'Current', 'mA', 900, 0.1, 100_000),
      field('areaMm2', 'Cross-section', 'mm²', 0.5, 0, 50, 2),
      field('awg', 'or gauge (0: use mm²)', 'AWG', 0, 0, 40),
      field('mostDropV', 'May lose', 'V', 0.6, 0.001, 60, 2),
    ],
    solve: (of) => {
      const areaMm2 = of('awg') > 0 ? mm2FromAwg(of('awg')) : of('areaMm2');
      if (!(areaMm2 > 0)) return { ok: false, says: 'Give a cross-section in mm² or a gauge.' };
      const cable = { lengthM: of('lengthM'), currentMa: of('currentMa') };
      const thin = thinnestCableMm2({ ...cable, mostDropV: of('mostDropV') });
      const may = n(of('mostDropV'), 2);
      return answer(workCableDrop({ ...cable, areaMm2 }), [
        thin === null
          ? `No cable up to 6 mm² stays within ${may} V: shorten it, or raise the voltage.`
          : `To lose at most ${may} V, ${n(thin, 2)} mm² is enough.`,
      ]);
    },
  },
  {
    id: 'battery',
    name: 'Battery life',
    asks: 'How long does a battery last?',
    series: false,
    fields: [
      field('averageMa', 'Average current', 'mA', 1, 0.0001, 100_000, 3),
      field('capacityMah', 'Capacity', 'mAh', 7000, 1, 1e7),
      field('usablePercent', 'May be used', '% of capacity', 50, 5, 100),
      field('temperatureC', 'Temperature', '°C', 10, -40, 60, 1),
      field('coldPercent', 'Lost per degree below 25 °C', '% of capacity', 0.8, 0, 5, 1),
      field('selfPercent', 'Lost by itself', '% a month', 4, 0, 90, 1),
    ],
    solve: (of) =>
      answer(
        workBatteryDays({
          averageMa: of('averageMa'),
          capacityMah: of('capacityMah'),
          usableFrac: of('usablePercent') / 100,
          temperatureC: of('temperatureC'),
          perCFrac: of('coldPercent') / 100,
          selfDischargePerMonthFrac: of('selfPercent') / 100,
        }),
        ['Without any sun or charger. A lithium battery must not be charged below 0 °C.'],
      ),
  },
  {
    id: 'solar',
    name: 'Solar panel',
    asks: 'Which panel carries the garden through its worst month?',
    series: false,
    fields: [
      field('latitudeDeg', 'Latitude, north +', '°', 52, -90, 90, 1),
      field('altitudeM', 'Altitude', 'm', 0, -400, 6000),
      field('clearPercent', 'Clearness, worst month', '% of a clear day', 35, 5, 100),
      field('averageMa', 'Average current', 'mA', 20, 0.001, 100_000, 2),
      field('systemV', 'Battery voltage', 'V', 12, 1, 60, 1),
      field('chainPercent', 'Left after the chain', '% of the sun’s', 60, 5, 100),
      field('usableMah', 'Usable capacity', 'mAh', 3500, 1, 1e7),
    ],
    solve: (of) => {
      const worked = workPanel({
        latitudeDeg: of('latitudeDeg'),
        altitudeM: of('altitudeM'),
        clearness: of('clearPercent') / 100,
        averageMa: of('averageMa'),
        systemV: of('systemV'),
        chainFrac: of('chainPercent') / 100,
      });
      if (!Number.isFinite(worked.value))
        return {
          ok: false,
          says: 'In the worst month the sun does not rise there: no panel is large enough.',
        };
      return answer(worked, [
        `The battery alone bridges ${n(workDarkDays(of('usableMah'), of('averageMa')).value, 1)} days without sun.`,
      ]);
    },
  },
  {
    id: 'fuse',
    name: 'Fuse',
    asks: 'Which fuse bears the load and saves the cable?',
    series: false,
    fields: [
      field('currentMa', 'Everything at once', 'mA', 3000, 1, 100_000),
      field('areaMm2', 'Thinnest cable behind it', 'mm²', 1, 0.05, 50, 2),
    ],
    solve: (of) => {
      const found = fuseFor({ currentMa: of('currentMa'), areaMm2: of('areaMm2') });
      return found.ok
        ? answer(
            found.value.worked,
            [
              `The cable bears ${n(found.value.cableA, 1)} A for long. The fuse sits within a hand’s breadth of the battery.`,
            ],
            { fuseA: found.value.fuseA },
          )
        : refused(found.issue);
    },
  },
];

export const sumOf = (id: SumId): Sum => byId(SUMS, id) ?? (SUMS[0] as Sum);

/** A sum with a form's values; a field that was not set has its first value. */
export function solveSum(sum: Sum, values: SumValues, series: ESeries): SumAnswer {
  const first = new Map(sum.fields.map((one) => [one.key, one.value]));
  return sum.solve((key) => values[key] ?? first.get(key) ?? Number.NaN, series);
}
