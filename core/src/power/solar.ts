/**
 * Sun on a flat panel through the year, from the garden's latitude alone. Extraterrestrial and clear-sky radiation follow FAO Irrigation and
 * Drainage Paper 56 (Allen et al. 1998), equations 21 to 25 and 37; a clearness says how much of a clear day a usual day of the worst month brings.
 */
import { input, step, worked, type Worked } from '../quantity/worked.ts';

const SOLAR_CONSTANT_MJ = 0.082;
const KWH_PER_MJ = 1 / 3.6;
/** The 15th of each month, as day of the year. */
const MID_MONTH = [15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349] as const;

/**
 * Extraterrestrial radiation, MJ/m² a day (FAO-56 eq. 21).
 * @param latitudeDeg −90..90, north positive
 * @param dayOfYear 1..366
 */
export function extraterrestrialMj(latitudeDeg: number, dayOfYear: number): number {
  const phi = (latitudeDeg * Math.PI) / 180;
  const turn = (2 * Math.PI * dayOfYear) / 365;
  const nearness = 1 + 0.033 * Math.cos(turn);
  const declination = 0.409 * Math.sin(turn - 1.39);
  // Beyond the polar circles the sun stays up or down for the whole day.
  const sunset = Math.acos(Math.min(1, Math.max(-1, -Math.tan(phi) * Math.tan(declination))));
  const sum =
    sunset * Math.sin(phi) * Math.sin(declination) + Math.cos(phi) * Math.cos(declination) * Math.sin(sunset);
  return Math.max(0, ((24 * 60) / Math.PI) * SOLAR_CONSTANT_MJ * nearness * sum);
}

/** Clear-sky radiation at the ground, MJ/m² a day: (0.75 + 2·10⁻⁵ z) × Ra (FAO-56 eq. 37). */
export const clearSkyMj = (latitudeDeg: number, dayOfYear: number, altitudeM: number): number =>
  (0.75 + 2e-5 * altitudeM) * extraterrestrialMj(latitudeDeg, dayOfYear);

/** Clear-sky energy on a flat panel in the middle of each month, January first, kWh/m² a day. */
export const monthlyClearSkyKwh = (latitudeDeg: number, altitudeM: number): number[] =>
  MID_MONTH.map((day) => clearSkyMj(latitudeDeg, day, altitudeM) * KWH_PER_MJ);

/** The month with least sun: 0 is January. */
export function worstMonth(latitudeDeg: number, altitudeM: number): number {
  const months = monthlyClearSkyKwh(latitudeDeg, altitudeM);
  return months.indexOf(Math.min(...months));
}

export type SolarAsked = {
  readonly latitudeDeg: number;
  readonly altitudeM: number;
  /** What a usual day of the worst month brings of a clear day, 0..1. */
  readonly clearness: number;
  readonly averageMa: number;
  readonly systemV: number;
  /** What is left after charging, battery, dirt, heat and a flat mounting, 0..1. */
  readonly chainFrac: number;
};

/** Rated power of a flat panel that covers the use in the worst month, W; not finite where the worst month has no sun. */
export function workPanel(asked: SolarAsked): Worked {
  const month = worstMonth(asked.latitudeDeg, asked.altitudeM);
  const day = MID_MONTH[month] ?? 1;
  const outside = step(
    {
      name: 'above the air',
      unit: 'MJ/m² a day',
      decimals: 2,
      formula: 'Ra for latitude {lat}, day {day} of the year',
      inputs: { lat: input('latitude', asked.latitudeDeg, '°', 1), day: input('day', day, '') },
    },
    ({ lat, day }) => extraterrestrialMj(lat, day),
  );
  const sun = step(
    {
      name: 'full sun hours of a usual day',
      unit: 'kWh/m² a day',
      decimals: 2,
      formula: '(0.75 + 0.00002 × {z}) × {ra} ÷ 3.6 × {clear}',
      inputs: {
        z: input('altitude', asked.altitudeM, 'm'),
        ra: input('above the air', outside.value, 'MJ/m² a day', 2),
        clear: input('clearness', asked.clearness, '', 2),
      },
    },
    ({ z, ra, clear }) => (0.75 + 2e-5 * z) * ra * KWH_PER_MJ * clear,
  );
  const use = step(
    {
      name: 'used a day',
      unit: 'Wh',
      decimals: 2,
      formula: '{average} ÷ 1000 × {volts} × 24',
      inputs: {
        average: input('average current', asked.averageMa, 'mA', 2),
        volts: input('battery voltage', asked.systemV, 'V', 1),
      },
    },
    ({ average, volts }) => (average / 1000) * volts * 24,
  );
  const panel = step(
    {
      name: 'panel',
      unit: 'W',
      decimals: 1,
      formula: '{use} ÷ ({sun} × {chain})',
      inputs: {
        use: input('used a day', use.value, 'Wh', 2),
        sun: input('full sun hours', sun.value, 'h', 2),
        chain: input('what is left after charging, dirt and heat', asked.chainFrac, '', 2),
      },
    },
    ({ use, sun, chain }) => (sun > 0 ? use / (sun * chain) : Infinity),
  );
  return worked('Solar panel', [outside, sun, use, panel], {
    source: 'FAO Irrigation and Drainage Paper 56, equations 21–25 and 37.',
    note: 'For a flat panel without shade. A panel that leans towards the noon sun gives more in winter; a railing’s shadow takes most of it.',
    wouldChange: 'Clearness of the worst month, the interval of readings, shade.',
  });
}

/** Days that the battery alone carries the garden: usable capacity over a day's use. */
export const workDarkDays = (usableMah: number, averageMa: number): Worked =>
  worked(
    'Days without sun',
    [
      step(
        {
          name: 'days',
          unit: 'days',
          decimals: 1,
          formula: '{usable} ÷ ({average} × 24)',
          inputs: {
            usable: input('usable capacity', usableMah, 'mAh'),
            average: input('average current', averageMa, 'mA', 2),
          },
        },
        ({ usable, average }) => usable / (average * 24),
      ),
    ],
    {
      source: 'Charge over current.',
      note: 'Three to five days bridge a usual grey spell; in a northern winter plan for ten.',
    },
  );
