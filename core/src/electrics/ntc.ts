/** A thermistor (NTC) in a divider: its resistance, and the fixed resistor that makes the coarsest degree in the range as fine as it can be. */
import { fullScaleCounts } from './converter.ts';
import { eValues, type ESeries } from './eSeries.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';

const ZERO_K = 273.15;
const T25_K = 298.15;

/**
 * Resistance by the beta equation, ohm: R = R25 × exp(β × (1/T − 1/298.15 K)). Good to about 1 °C within ±40 °C of 25 °C.
 * Source: two-constant form of the Steinhart–Hart relation (1968).
 */
export const ntcOhm = (of: { r25Ohm: number; betaK: number; temperatureC: number }): number =>
  of.r25Ohm * Math.exp(of.betaK * (1 / (of.temperatureC + ZERO_K) - 1 / T25_K));

export type NtcAsked = {
  readonly r25Ohm: number;
  readonly betaK: number;
  readonly lowC: number;
  readonly highC: number;
  readonly series: ESeries;
  readonly adcBits: number;
};
export type NtcRow = {
  readonly temperatureC: number;
  readonly ohm: number;
  readonly counts: number;
  readonly countsPerC: number;
};
export type NtcDivider = {
  readonly fixedOhm: number;
  readonly worstCountsPerC: number;
  readonly rows: readonly NtcRow[];
  readonly worked: Worked;
};

/**
 * Steps of the converter per degree, with supply and reference the same (ratiometric): full scale × Rf·Rt/(Rf+Rt)² × β/T².
 * It is the slope of the divider's curve, the same whether the thermistor is above or below.
 */
export function ntcCountsPerC(of: {
  fixedOhm: number;
  r25Ohm: number;
  betaK: number;
  temperatureC: number;
  adcBits: number;
}): number {
  const ohm = ntcOhm(of);
  const kelvin = of.temperatureC + ZERO_K;
  return (
    ((fullScaleCounts(of.adcBits) * of.fixedOhm * ohm) / (of.fixedOhm + ohm) ** 2) * (of.betaK / kelvin ** 2)
  );
}

/** The preferred value with the finest worst degree between `lowC` and `highC` (lowC < highC), thermistor to ground. */
export function bestNtcDivider(asked: NtcAsked): NtcDivider {
  const { lowC, highC, adcBits } = asked;
  const ends = [lowC, (lowC + highC) / 2, highC];
  const worst = (fixedOhm: number) =>
    Math.min(...ends.map((temperatureC) => ntcCountsPerC({ ...asked, fixedOhm, temperatureC })));
  const hottest = ntcOhm({ ...asked, temperatureC: highC });
  const coldest = ntcOhm({ ...asked, temperatureC: lowC });
  const fixedOhm = eValues(asked.series, hottest / 2, coldest * 2).reduce((best, ohm) =>
    worst(ohm) > worst(best) ? ohm : best,
  );
  const rows = [0, 0.25, 0.5, 0.75, 1].map((share): NtcRow => {
    const temperatureC = lowC + share * (highC - lowC);
    const ohm = ntcOhm({ ...asked, temperatureC });
    return {
      temperatureC,
      ohm,
      counts: Math.round((fullScaleCounts(adcBits) * ohm) / (ohm + fixedOhm)),
      countsPerC: ntcCountsPerC({ ...asked, fixedOhm, temperatureC }),
    };
  });
  const atC = ends.reduce((best, temperatureC) =>
    ntcCountsPerC({ ...asked, fixedOhm, temperatureC }) <
    ntcCountsPerC({ ...asked, fixedOhm, temperatureC: best })
      ? temperatureC
      : best,
  );
  return { fixedOhm, worstCountsPerC: worst(fixedOhm), rows, worked: workNtc({ ...asked, fixedOhm, atC }) };
}

function workNtc(of: NtcAsked & { fixedOhm: number; atC: number }): Worked {
  const temperature = input('coarsest temperature of the range', of.atC, '°C', 1);
  const resistance = step(
    {
      name: 'thermistor there',
      unit: 'Ω',
      formula: '{r25} × exp({beta} × (1 ÷ ({t} + 273.15) − 1 ÷ 298.15))',
      inputs: {
        r25: input('thermistor at 25 °C', of.r25Ohm, 'Ω'),
        beta: input('beta', of.betaK, 'K'),
        t: temperature,
      },
    },
    ({ r25, beta, t }) => ntcOhm({ r25Ohm: r25, betaK: beta, temperatureC: t }),
  );
  const fine = step(
    {
      name: 'resolution there',
      unit: 'counts/°C',
      decimals: 1,
      formula: '{full} × {fixed} × {ntc} ÷ ({fixed} + {ntc})² × {beta} ÷ ({t} + 273.15)²',
      inputs: {
        full: input('full scale', fullScaleCounts(of.adcBits), 'counts'),
        fixed: input('fixed resistor', of.fixedOhm, 'Ω'),
        ntc: input('thermistor there', resistance.value, 'Ω'),
        beta: input('beta', of.betaK, 'K'),
        t: temperature,
      },
    },
    ({ full, fixed, ntc, beta, t }) =>
      ((full * fixed * ntc) / (fixed + ntc) ** 2) * (beta / (t + ZERO_K) ** 2),
  );
  return worked('Thermistor divider', [resistance, fine], {
    source: 'Beta equation (two-constant form of Steinhart & Hart 1968) and the slope of a divider.',
    note: 'The fixed resistor is the one whose coarsest degree in the range is finest. Supply and converter reference are taken as the same.',
    wouldChange: 'A narrower range, a converter with more bits, a thermistor with another beta.',
  });
}
