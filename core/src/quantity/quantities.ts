/** What a channel measures. A reading is raw; what it means comes from a calibration (moisture) or a correction (everything else). */
export const QUANTITIES = [
  'moisture',
  'factory moisture',
  'soil tension',
  'moisture switch',
  'soil humidity',
  'soil temperature',
  'air temperature',
  'conductivity',
  'pH',
  'nitrogen',
  'phosphorus',
  'potassium',
  'battery voltage',
  'distance',
  'level',
  'weight',
  'probe supply',
  'light',
  'rain',
  'skip switch',
  'other',
] as const;
export type Quantity = (typeof QUANTITIES)[number];

/** Unit of a channel's value after its correction, and decimals worth showing. Soil and air temperature are kept apart on purpose. */
export const UNIT_OF: Readonly<Record<Quantity, { readonly unit: string; readonly decimals: number }>> = {
  moisture: { unit: 'raw counts', decimals: 0 },
  'factory moisture': { unit: '% factory', decimals: 1 },
  'soil tension': { unit: 'kPa', decimals: 1 },
  'moisture switch': { unit: '0 or 1', decimals: 0 },
  'soil humidity': { unit: '% RH', decimals: 1 },
  'soil temperature': { unit: '°C', decimals: 1 },
  'air temperature': { unit: '°C', decimals: 1 },
  conductivity: { unit: 'µS/cm', decimals: 0 },
  pH: { unit: 'pH', decimals: 1 },
  nitrogen: { unit: 'mg/kg', decimals: 0 },
  phosphorus: { unit: 'mg/kg', decimals: 0 },
  potassium: { unit: 'mg/kg', decimals: 0 },
  'battery voltage': { unit: 'V', decimals: 2 },
  distance: { unit: 'raw distance', decimals: 0 },
  level: { unit: 'raw counts', decimals: 0 },
  weight: { unit: 'g', decimals: 0 },
  'probe supply': { unit: 'on or off', decimals: 0 },
  light: { unit: 'raw counts', decimals: 0 },
  rain: { unit: 'wet or dry', decimals: 0 },
  'skip switch': { unit: 'on or off', decimals: 0 },
  other: { unit: 'as printed', decimals: 1 },
};

export const isTemperature = (quantity: Quantity): boolean =>
  quantity === 'soil temperature' || quantity === 'air temperature';

/** Measured by a board itself, not by a probe in a plot. */
export const OF_BOARD: readonly Quantity[] = [
  'air temperature',
  'battery voltage',
  'distance',
  'level',
  'weight',
  'probe supply',
  'light',
  'rain',
  'skip switch',
  'other',
];
