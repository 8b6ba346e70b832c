/** What the settings of a board's program are called in words. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  max_run_s: 'maximum run, s',
  daily_max_ml: 'daily maximum, ml',
  min_interval_s: 'minimum interval, s',
  rise_tenths: 'rise that a dose must bring',
  response_s: 'time for that rise, s',
  no_rise_times: 'doses without a rise until it locks',
  flow_ml_per_min: 'flow, ml a minute',
  tube_ms: 'time until the tube is full, ms',
  soak_s: 'pause to soak in, s',
  most_pulses: 'pulses at most',
  rest_s: 'rest after a round, s',
  interval_s: 'interval of the program, s',
  fallback_ml: 'fallback dose, ml',
  table: 'calibration table: raw value, tenths of a percent',
  minimum_raw: 'minimum of the tank, raw',
  stale_after_s: 'a reading is stale after, s',
  kind: 'kind of program',
  hours: 'hours in which it may water, s of the day',
  ADC_BITS: 'bits of the converter',
};

const valueText = (name: string, value: string): string =>
  /_tenths$/.test(name) && /^\d+$/.test(value) ? `${(Number(value) / 10).toFixed(1)} %` : value;

/** "maximum run, s: 17, and was 15" */
export const fieldText = (name: string, before: string, after: string): string =>
  `${FIELD_WORDS[name] ?? name}: ${valueText(name, after)}, and was ${valueText(name, before)}`;
