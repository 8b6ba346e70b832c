/**
 * When the sun rises and sets. Declination and equation of time by the low-precision formulas of the Astronomical Almanac, the hour angle at a zenith of 90.833°
 * (refraction of 34′ and half of the sun's disc): good to a minute or two where the sun does not graze the horizon.
 */

/** Refraction at the horizon and half of the disc. */
const ZENITH_DEG = 90.833;
const DAY_MS = 86_400_000;
const RAD = Math.PI / 180;
const J2000_MS = Date.UTC(2000, 0, 1, 12);

export type Place = {
  /** −90..90, north positive. */
  readonly latitudeDeg: number;
  /** −180..180, east positive. */
  readonly longitudeDeg: number;
};

/** Moments of one day, ms since 1970; null where the sun does not rise or set that day. @param noonMs about the local noon of the day, within some hours */
export function sunTimes(
  place: Place,
  noonMs: number,
): { readonly riseMs: number; readonly setMs: number } | null {
  const riseMs = crossing(place, noonMs, -1);
  const setMs = crossing(place, noonMs, 1);
  return riseMs === null || setMs === null ? null : { riseMs, setMs };
}

/** Found again with the sun as it stands then: its declination goes on by up to 0.4° a day. @param side −1 rise, 1 set */
function crossing({ latitudeDeg, longitudeDeg }: Place, noonMs: number, side: -1 | 1): number | null {
  let atMs = noonMs;
  for (let turn = 0; turn < 3; turn += 1) {
    const { declination, equationMin } = sunAt(atMs);
    const phi = latitudeDeg * RAD;
    const cosHour =
      (Math.cos(ZENITH_DEG * RAD) - Math.sin(phi) * Math.sin(declination)) /
      (Math.cos(phi) * Math.cos(declination));
    if (!(cosHour > -1 && cosHour < 1)) return null;
    const transitMs = (720 - 4 * longitudeDeg - equationMin) * 60_000;
    // The sun's own noon that lies nearest to the day's.
    const nearestMs = transitMs + Math.round((noonMs - transitMs) / DAY_MS) * DAY_MS;
    atMs = nearestMs + side * (Math.acos(cosHour) / RAD / 15) * 3_600_000;
  }
  return atMs;
}

/** The sun's declination, rad, and the equation of time, minutes. */
function sunAt(timeMs: number): { readonly declination: number; readonly equationMin: number } {
  const days = (timeMs - J2000_MS) / DAY_MS;
  const anomaly = (357.528 + 0.9856003 * days) * RAD;
  const meanDeg = 280.46 + 0.9856474 * days;
  const ecliptic = (meanDeg + 1.915 * Math.sin(anomaly) + 0.02 * Math.sin(2 * anomaly)) * RAD;
  const tilt = 23.439 * RAD;
  const ascension = Math.atan2(Math.cos(tilt) * Math.sin(ecliptic), Math.cos(ecliptic)) / RAD;
  const ahead = (((meanDeg - ascension + 180) % 360) + 360) % 360;
  return { declination: Math.asin(Math.sin(tilt) * Math.sin(ecliptic)), equationMin: 4 * (ahead - 180) };
}
