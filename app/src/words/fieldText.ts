/** What the settings of a board's program are called in words, and where each is set. */
import type { Worked } from '@plain-trowel/core/quantity/worked';

type Field = {
  readonly words: string;
  readonly unit: string;
  /** Whole numbers of this share of the unit. */
  readonly decimals?: 0 | 1;
  readonly from: string;
};

const PROGRAM = 'Rules, Limits, Program: the program of the line.';
const GUARD =
  'Rules, Limits, Program: a guard of the line. Nothing that is typed or sent to the board changes it.';
const LIMITS = 'Rules, Limits: the limits of the plot.';
const CALIBRATION = 'Bench, Calibrate: the calibration that is in use.';
const OUTPUT = 'Rules, Limits, Other outputs: a guard of the contact.';
const WORDS = 'Rules, Limits: the words and temperatures of the plot.';
const DOSE = 'Bench, Dose: the trials with the jug.';

const FIELDS: Readonly<Record<string, Field>> = {
  max_run_s: { words: 'maximum run', unit: 's', from: GUARD },
  daily_max_ml: { words: 'daily maximum', unit: 'ml', from: GUARD },
  min_interval_s: { words: 'minimum interval', unit: 's', from: GUARD },
  rise_tenths: { words: 'rise that a dose must bring', unit: '%', decimals: 1, from: GUARD },
  response_s: { words: 'time for that rise', unit: 's', from: GUARD },
  no_rise_times: { words: 'doses without a rise until it locks', unit: 'doses', from: GUARD },
  proves_below_tenths: {
    words: 'doses that begin below this prove something',
    unit: '%',
    decimals: 1,
    from: LIMITS,
  },
  flow_ml_per_min: { words: 'flow', unit: 'ml a minute', from: DOSE },
  tube_ms: { words: 'time until the tube is full', unit: 'ms', from: DOSE },
  start_tenths: { words: 'start limit', unit: '%', decimals: 1, from: LIMITS },
  stop_tenths: { words: 'stop limit', unit: '%', decimals: 1, from: LIMITS },
  dose_ml: { words: 'dose', unit: 'ml', from: PROGRAM },
  soak_s: { words: 'pause to soak in', unit: 's', from: PROGRAM },
  most_pulses: { words: 'pulses at most', unit: 'pulses', from: PROGRAM },
  rest_s: { words: 'rest after a round', unit: 's', from: PROGRAM },
  interval_s: { words: 'interval of the program', unit: 's', from: PROGRAM },
  fallback_ml: { words: 'fallback dose while the probe is faulty', unit: 'ml', from: PROGRAM },
  low_raw: { words: 'below this the plug is out or the cable broken', unit: 'raw', from: CALIBRATION },
  high_raw: { words: 'above this the plug is out or the cable broken', unit: 'raw', from: CALIBRATION },
  soil_low_raw: { words: 'below this it is out of the soil', unit: 'raw', from: CALIBRATION },
  soil_high_raw: { words: 'above this it is out of the soil', unit: 'raw', from: CALIBRATION },
  leap_tenths: {
    words: 'a leap by more than this lets nothing start for a while',
    unit: '%',
    decimals: 1,
    from: 'Six times the noise of the probe in its calibration, and 5 % at least.',
  },
  settle_s: { words: 'so long nothing starts after a leap', unit: 's', from: 'The same for every board.' },
  stale_after_s: { words: 'a reading older than this is not gone by', unit: 's', from: PROGRAM },
  most_on_s: { words: 'on at a stretch, at most', unit: 's', from: OUTPUT },
  least_off_s: { words: 'pause between two stretches', unit: 's', from: OUTPUT },
  day_max_s: { words: 'on in a day, at most', unit: 's', from: OUTPUT },
  dry: { words: 'the lamp says too dry below', unit: '%', decimals: 1, from: WORDS },
  wet: { words: 'the lamp says too wet from', unit: '%', decimals: 1, from: WORDS },
  soil_low: { words: 'the lamp says too cold, soil below', unit: '°C', decimals: 1, from: WORDS },
  soil_high: { words: 'the lamp says too hot, soil above', unit: '°C', decimals: 1, from: WORDS },
  air_low: { words: 'the lamp says too cold, air below', unit: '°C', decimals: 1, from: WORDS },
  air_high: { words: 'the lamp says too hot, air above', unit: '°C', decimals: 1, from: WORDS },
  minimum_raw: {
    words: 'minimum of the tank',
    unit: 'raw',
    from: 'Bench, Dose, Reservoir: its minimum by the levels.',
  },
};

const UNNAMED: Readonly<Record<string, string>> = {
  table: 'calibration table: raw value, tenths of a percent',
  kind: 'kind of program',
  hours: 'hours in which it may water, s of the day',
  ADC_BITS: 'bits of the converter',
};

/** A number of the settings as the slip shows it; null for a field that has no words. @param value whole, as it stands in the code */
export function fieldWorked(name: string, value: number): Worked | null {
  const field = FIELDS[name];
  if (!field) return null;
  const { decimals = 0 } = field;
  return {
    title: field.words,
    value: value / 10 ** decimals,
    unit: field.unit,
    decimals,
    steps: [],
    source: field.from,
    ...(field.unit === '%'
      ? {
          note: 'In percent of the kind that the calibration gives. In the code it stands in tenths, a whole number.',
        }
      : {}),
  };
}

const valueText = (name: string, value: string): string => {
  const field = FIELDS[name];
  if (!field || !/^-?\d+$/.test(value)) return value;
  const { decimals = 0 } = field;
  return `${(Number(value) / 10 ** decimals).toFixed(decimals)} ${field.unit}`;
};

/** "maximum run: 17 s, and was 15 s" */
export const fieldText = (name: string, before: string, after: string): string =>
  `${FIELDS[name]?.words ?? UNNAMED[name] ?? name}: ${valueText(name, after)}, and was ${valueText(name, before)}`;
