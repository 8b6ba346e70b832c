/**
 * What the ± of a calibration takes for granted because no capture shows it. Each is a standard deviation that a person who knows better may set for a run; where it
 * comes from, and how to measure one's own, stands with it. They are rules of thumb for cheap sticks and forks, checked on made-up probes that keep none of them
 * (`bench/calibration`), not measurements of one's own probe.
 */
import type { MethodId } from './conditions.ts';

export type Assumption = {
  readonly label: string;
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
  /** Where the number comes from, and how to find one's own. */
  readonly from: string;
};

export const ASSUMPTIONS = {
  pushingIn: {
    label: 'Pushing it in again',
    unit: '% of the span',
    usual: 0.6,
    least: 0.1,
    most: 10,
    from: 'A rule of thumb. Yours: push the probe into one pot five times, at five places; the standard deviation of the five, over the span. Repeats of a reference are counted in by themselves.',
  },
  staying: {
    label: 'The soil beside a probe that stays',
    unit: '% of the span',
    usual: 0.5,
    least: 0.05,
    most: 10,
    from: 'A rule of thumb: water lies a little differently each time that the soil has dried this far. Yours: the scatter about the curve of a long series.',
  },
  drift: {
    label: 'What a degree changes',
    unit: '% of the range per °C',
    usual: 0.17,
    least: 0,
    most: 2,
    from: 'A rule of thumb for cheap probes, up or down alike (0 to 0.3). Yours: leave the probe in a jar of damp soil, sealed, for a day in the shed, beside a thermometer.',
  },
  swing: {
    label: 'How far the soil is from a temperature that nobody measured',
    unit: '°C',
    usual: 5,
    least: 0,
    most: 20,
    from: 'Soil that warms and cools by 8 °C about its mean is 5 °C away from it, as a standard deviation. With a soil thermometer this falls away.',
  },
  bend: {
    label: 'How far the probe may bend away from a straight line',
    unit: '% of the range',
    usual: 10,
    least: 0,
    most: 40,
    from: 'A probe whose dry end is up to three and a half times as steep as its wet end bends by 10 % in the middle. Points between the ends show what yours does.',
  },
  meter: {
    label: 'What the meter itself may be off by',
    unit: '%',
    usual: 2,
    least: 0,
    most: 20,
    from: 'What hand-held meters of the better sort promise. Yours stands on its sheet; half of the ± there.',
  },
  volume: {
    label: 'Volume read off a line',
    unit: '% of the volume',
    usual: 2,
    least: 0,
    most: 20,
    from: 'Half a millimetre to either side in a jar of 5 cm. Yours: weigh the container empty and full of water.',
  },
  pressing: {
    label: 'Pressing down to the line again',
    unit: '% of the volume',
    usual: 3,
    least: 0,
    most: 20,
    from: 'A rule of thumb: damp soil does not come down to the same line each time. Yours: press one mixture down five times and measure how far the soil stands from the line.',
  },
  unitSpread: {
    label: 'Probes of one kind beside each other',
    unit: '% of the span',
    usual: 5,
    least: 0,
    most: 30,
    from: 'A rule of thumb for sticks of one batch. Yours: side by side, in one jar.',
  },
} as const satisfies Readonly<Record<string, Assumption>>;

export type AssumptionName = keyof typeof ASSUMPTIONS;
export const ASSUMPTION_NAMES = Object.keys(ASSUMPTIONS) as readonly AssumptionName[];

/** Under what key a run keeps a number of the person's own. */
export const keyOfAssumption = (name: AssumptionName): string => `assume ${name}`;

export type Assumed = Readonly<Record<AssumptionName, number>>;

/** The numbers that a run goes by: its own where they were set within their bounds, else the usual ones. */
export const assumedOf = (inputs: Readonly<Record<string, number | undefined>>): Assumed =>
  Object.fromEntries(
    ASSUMPTION_NAMES.map((name) => {
      const { usual, least, most } = ASSUMPTIONS[name];
      const own = inputs[keyOfAssumption(name)];
      return [name, own !== undefined && own >= least && own <= most ? own : usual];
    }),
  ) as Assumed;

/** Schools whose probe stays where it is from the first capture on, and goes on to be read there. */
const STAYS: readonly MethodId[] = ['pot', 'meter', 'feel', 'drain', 'cut-offs'];
export const staysIn = (method: MethodId): boolean => STAYS.includes(method);

/** Which of the numbers the ± of a school goes by. */
export const assumptionsOf = (method: MethodId): readonly AssumptionName[] => [
  staysIn(method) ? 'staying' : 'pushingIn',
  'drift',
  'swing',
  ...(method === 'mixing' ? (['volume', 'pressing'] as const) : []),
  ...(method === 'meter' ? (['meter'] as const) : []),
  ...(bendShare(method) > 0 ? (['bend'] as const) : []),
];

/**
 * Share of the bend that the references of a school can show. Span percent is straight between its references by definition; a maker's sheet has its bend in it, and its ± too; capacity and
 * wilting lie in the middle of what a probe can read, and over a part of the way it bends less.
 */
export function bendShare(method: MethodId): number {
  switch (method) {
    case 'mixing':
    case 'pot':
    case 'meter':
      return 1;
    case 'drain':
      return 0.48;
    default:
      return 0;
  }
}
