/**
 * Weather as a choice, with the reference evapotranspiration that goes with it, mm a day. Outdoors after FAO-56 (Allen et al. 1998), table 2 (averages by
 * climate and warmth); indoors there is no such table, and the numbers are rules of thumb: little sun, no wind.
 */
export const WEATHER = {
  'indoors-dim': { name: 'Indoors, away from the window', et0MmPerDay: 0.8, basis: 'rule of thumb' },
  'indoors-bright': { name: 'Indoors, at a bright window', et0MmPerDay: 1.8, basis: 'rule of thumb' },
  cool: { name: 'Cool and overcast, about 10 °C', et0MmPerDay: 1.5, basis: 'FAO-56, table 2' },
  mild: { name: 'Mild, about 20 °C', et0MmPerDay: 3.5, basis: 'FAO-56, table 2' },
  warm: { name: 'Warm and sunny, about 25 °C', et0MmPerDay: 5, basis: 'FAO-56, table 2' },
  hot: { name: 'Hot, above 30 °C', et0MmPerDay: 7, basis: 'FAO-56, table 2' },
} as const;
export type WeatherId = keyof typeof WEATHER;
export const WEATHER_IDS = Object.keys(WEATHER) as [WeatherId, ...WeatherId[]];
