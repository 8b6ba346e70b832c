import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { nextUp, type ESeries } from './eSeries.ts';

export type LedAsked = {
  /** What the pin or supply gives, V, > 0. */
  readonly pinV: number;
  /** Forward voltage of the LED, V: red about 2.0, green and blue about 3.0. */
  readonly forwardV: number;
  /** Wanted current, mA, > 0. */
  readonly currentMa: number;
  readonly series: ESeries;
};
export type LedResistor = {
  readonly ohm: number;
  readonly actualMa: number;
  readonly heatMw: number;
  readonly worked: Worked;
};
export type LedIssue = { readonly kind: 'led-needs-more'; readonly pinV: number; readonly forwardV: number };

/**
 * Series resistor of an LED: (Vpin − Vf) / I, rounded up to the next preferred value, so that the current stays below the wanted one.
 * Source: Ohm's law; IEC 60063 for the values.
 */
export function ledResistor(asked: LedAsked): Result<LedResistor, LedIssue> {
  const { pinV, forwardV, currentMa, series } = asked;
  if (!(pinV > forwardV)) return fail({ kind: 'led-needs-more', pinV, forwardV });
  const volts = {
    pin: input('supply of the LED', pinV, 'V', 2),
    led: input('forward voltage', forwardV, 'V', 2),
  };
  const exact = step(
    {
      name: 'exact resistor',
      unit: 'Ω',
      decimals: 1,
      formula: '({pin} − {led}) ÷ {current} × 1000',
      inputs: { ...volts, current: input('wanted current', currentMa, 'mA', 1) },
    },
    ({ pin, led, current }) => ((pin - led) / current) * 1000,
  );
  const ohm = nextUp(series, exact.value);
  const actual = step(
    {
      name: 'current with it',
      unit: 'mA',
      decimals: 2,
      formula: '({pin} − {led}) ÷ {ohm} × 1000',
      inputs: { ...volts, ohm: input(`next ${series} value above`, ohm, 'Ω') },
    },
    ({ pin, led, ohm }) => ((pin - led) / ohm) * 1000,
  );
  const chosen = step(
    {
      name: 'resistor to take',
      unit: 'Ω',
      formula: `next ${series} value not below {exact}`,
      inputs: { exact: input('exact resistor', exact.value, 'Ω', 1) },
    },
    () => ohm,
  );
  return ok({
    ohm,
    actualMa: actual.value,
    heatMw: actual.value * (pinV - forwardV),
    worked: worked('LED resistor', [exact, actual, chosen], {
      source: 'Ohm’s law; preferred values of IEC 60063.',
      note: 'Rounded up: a little darker, never too much current. The pin’s own limit and the sum over all pins count too.',
      wouldChange: 'Another LED colour, a lower current, another supply.',
    }),
  });
}
