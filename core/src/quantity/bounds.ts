/** How many of each a garden may hold: far more than anybody has, and few enough that no sheet is held up. The schema and the forms both go by these. */
export const MOST = {
  plots: 200,
  boards: 50,
  probes: 500,
  channels: 500,
  calibrations: 5000,
  runs: 200,
  waterLines: 50,
  reservoirs: 20,
  contacts: 50,
  levels: 12,
  outlets: 60,
  cups: 100,
  trials: 200,
  /** Times of a timer. */
  slots: 8,
  /** Captures of one reference, and references of one calibration. */
  captures: 20,
  points: 100,
  registerMaps: 50,
  registerFields: 24,
  terminals: 80,
  parts: 400,
  wires: 2000,
  cables: 400,
} as const;

/** A raw value and a volume of a reservoir's level. */
export const LEVEL_RAW = { least: -1e6, most: 1e6 } as const;
export const MOST_LEVEL_ML = 1e8;
