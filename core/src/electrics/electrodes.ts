/** Home-made electrodes, or any resistance that changes, in a divider: the fixed resistor that spreads dry and wet the furthest. */
import { fullScaleCounts } from './converter.ts';
import { nextDown, nextUp, type ESeries } from './eSeries.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';

export type ElectrodesAsked = {
  /** Measured with the multimeter between the two, dry and wet, ohm. */
  readonly dryOhm: number;
  readonly wetOhm: number;
  readonly adcBits: number;
  readonly series: ESeries;
};
export type ElectrodesFound = {
  readonly fixedOhm: number;
  readonly dryCounts: number;
  readonly wetCounts: number;
  readonly spanCounts: number;
  readonly worked: Worked;
};

/** Share of the supply at the middle of a divider with the fixed resistor to the supply and the electrodes to ground. */
const share = (ohm: number, fixedOhm: number): number => ohm / (ohm + fixedOhm);

/**
 * The span share(dry) − share(wet) is largest where the fixed resistor is the geometric mean of the two: its derivative dry/(dry + R)² − wet/(wet + R)² is zero at
 * R² = dry × wet.
 * @throws RangeError unless both are above zero
 */
export function electrodesResistor({ dryOhm, wetOhm, adcBits, series }: ElectrodesAsked): ElectrodesFound {
  if (!(dryOhm > 0 && wetOhm > 0)) throw new RangeError('electrodesResistor: resistances must be above zero');
  const best = step(
    {
      name: 'best resistor',
      unit: 'Ω',
      formula: '√({dry} × {wet})',
      inputs: { dry: input('dry', dryOhm, 'Ω'), wet: input('wet', wetOhm, 'Ω') },
    },
    ({ dry, wet }) => Math.sqrt(dry * wet),
  );
  // By ratio, as the series goes: of the two beside it the nearer.
  const [below, above] = [nextDown(series, best.value), nextUp(series, best.value)];
  const fixedOhm = best.value / below < above / best.value ? below : above;
  const full = fullScaleCounts(adcBits);
  const span = step(
    {
      name: 'from wet to dry',
      unit: 'counts',
      formula: '{full} × ({dry} ÷ ({dry} + {fixed}) − {wet} ÷ ({wet} + {fixed}))',
      inputs: {
        full: input('full scale', full, 'counts'),
        dry: input('dry', dryOhm, 'Ω'),
        wet: input('wet', wetOhm, 'Ω'),
        fixed: input('resistor one can buy', fixedOhm, 'Ω'),
      },
    },
    ({ full, dry, wet, fixed }) => full * Math.abs(share(dry, fixed) - share(wet, fixed)),
  );
  return {
    fixedOhm,
    dryCounts: Math.round(full * share(dryOhm, fixedOhm)),
    wetCounts: Math.round(full * share(wetOhm, fixedOhm)),
    spanCounts: Math.round(span.value),
    worked: worked('Resistor for electrodes', [best, span], {
      source: 'Ohm’s law; the span is largest at the geometric mean of the two resistances.',
      note: 'The resistor goes from the supply to the input, the electrodes from the input to ground. Power them only while they are read, or they corrode.',
      wouldChange: 'Electrodes further apart or smaller, wetter or saltier soil.',
    }),
  };
}
