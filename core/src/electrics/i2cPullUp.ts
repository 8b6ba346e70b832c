import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { eValues, type ESeries } from './eSeries.ts';

/** Rise times and sink current of the I2C-bus specification (rev. 7, tables 9 and 10): standard mode 100 kHz, fast mode 400 kHz. */
export const I2C_SPEEDS = {
  'standard, 100 kHz': { riseNs: 1000, mostPf: 400 },
  'fast, 400 kHz': { riseNs: 300, mostPf: 400 },
} as const;
export type I2cSpeed = keyof typeof I2C_SPEEDS;

const LOW_V = 0.4;
const SINK_MA = 3;

export type PullUpAsked = {
  readonly supplyV: number;
  /** All wires, pins and modules of the bus together, pF. */
  readonly busPf: number;
  readonly speed: I2cSpeed;
  readonly series: ESeries;
};
export type PullUpWindow = {
  readonly leastOhm: number;
  readonly mostOhm: number;
  readonly ohm: number;
  readonly worked: Worked;
};
export type PullUpIssue = {
  readonly kind: 'bus-too-heavy';
  readonly busPf: number;
  readonly mostPf: number;
  readonly leastOhm: number;
  readonly mostOhm: number;
};

/**
 * The window for one I2C pull-up: at least (Vdd − 0.4 V) / 3 mA so that a chip can pull the line low, at most tr / (0.8473 × Cb) so that
 * it rises in time. The chosen value is the largest preferred one inside, which costs least current.
 * Source: I2C-bus specification, rev. 7, section 7.1.
 */
export function i2cPullUp({ supplyV, busPf, speed, series }: PullUpAsked): Result<PullUpWindow, PullUpIssue> {
  const { riseNs, mostPf } = I2C_SPEEDS[speed];
  const least = step(
    {
      name: 'least',
      unit: 'Ω',
      formula: '({supply} − 0.4) ÷ {sink} × 1000',
      inputs: {
        supply: input('bus voltage', supplyV, 'V', 1),
        sink: input('what a chip can sink', SINK_MA, 'mA'),
      },
    },
    ({ supply, sink }) => ((supply - LOW_V) / sink) * 1000,
  );
  const most = step(
    {
      name: 'most',
      unit: 'Ω',
      formula: '{rise} ÷ (0.8473 × {bus}) × 1000',
      inputs: { rise: input('rise time', riseNs, 'ns'), bus: input('bus capacitance', busPf, 'pF') },
    },
    ({ rise, bus }) => (rise / (0.8473 * bus)) * 1000,
  );
  const ohm =
    most.value > least.value ? eValues(series, least.value, Math.min(most.value, 10_000)).at(-1) : undefined;
  if (ohm === undefined || busPf > mostPf)
    return fail({ kind: 'bus-too-heavy', busPf, mostPf, leastOhm: least.value, mostOhm: most.value });
  const chosen = step(
    {
      name: 'pull-up to take',
      unit: 'Ω',
      formula: `largest ${series} value from {least} to {most}, at most 10 000`,
      inputs: { least: input('least', least.value, 'Ω'), most: input('most', most.value, 'Ω') },
    },
    () => ohm,
  );
  return ok({
    leastOhm: least.value,
    mostOhm: most.value,
    ohm,
    worked: worked('I2C pull-up', [least, most, chosen], {
      source: 'I2C-bus specification, rev. 7, section 7.1.',
      note: 'One pair for the whole bus. Modules that bring their own count side by side with it.',
      wouldChange: 'Longer cable (about 50 to 100 pF a metre), more modules, a slower clock.',
    }),
  });
}
