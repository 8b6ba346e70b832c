/** What the settings of a board's program are called in words. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  max_run_s: 'maximum run, s',
  daily_max_ml: 'daily maximum, ml',
  min_interval_s: 'minimum interval, s',
  rise_tenths: 'rise that a dose must bring, tenths of a percent',
  response_s: 'time for that rise, s',
  no_rise_times: 'doses without a rise until it locks',
  proves_below_tenths: 'doses prove something below, tenths of a percent',
  flow_ml_per_min: 'flow, ml a minute',
  tube_ms: 'time until the tube is full, ms',
  start_tenths: 'start limit, tenths of a percent',
  stop_tenths: 'stop limit, tenths of a percent',
  dose_ml: 'dose, ml',
  soak_s: 'pause to soak in, s',
  most_pulses: 'pulses at most',
  rest_s: 'rest after a round, s',
  interval_s: 'interval of the program, s',
  fallback_ml: 'fallback dose, ml',
  table: 'calibration table, raw value and tenths of a percent',
  minimum_raw: 'minimum of the tank, raw',
  stale_after_s: 'a reading is stale after, s',
  enabled: 'waters by itself',
  kind: 'kind of program',
  hours: 'hours in which it may water, s of the day',
  ADC_BITS: 'bits of the converter',
};

/** "maximum run, s: 15, and was 20 on the board" */
export const fieldText = (name: string, before: string, after: string): string =>
  `${FIELD_WORDS[name] ?? name}: ${after}, and was ${before}`;
