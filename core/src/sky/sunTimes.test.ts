/** Against almanacs of some towns, and against the sun's height by another method. */
import { expect, test } from 'vitest';
import { sunTimes } from './sunTimes.ts';

const minuteOf = (timeMs: number) => {
  const date = new Date(timeMs);
  return date.getUTCHours() * 60 + date.getUTCMinutes() + date.getUTCSeconds() / 60;
};
const at = (clock: string) => {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number);
  return hours * 60 + minutes;
};

/** Rise and set in UTC, as almanacs print them. */
test.each([
  ['London, midsummer', 51.51, -0.13, Date.UTC(2025, 5, 21, 12), '03:43', '20:21'],
  ['London, midwinter', 51.51, -0.13, Date.UTC(2025, 11, 21, 12), '08:04', '15:53'],
  ['Berlin, equinox of March', 52.52, 13.4, Date.UTC(2025, 2, 20, 11), '05:10', '17:20'],
  ['Sydney, December', -33.87, 151.21, Date.UTC(2025, 11, 21, 2), '18:41', '09:05'],
  ['on the equator', 0, 0, Date.UTC(2025, 2, 20, 12), '06:04', '18:11'],
])('%s', (_, latitudeDeg, longitudeDeg, noonMs, rise, set) => {
  const sun = sunTimes({ latitudeDeg, longitudeDeg }, noonMs);
  expect(Math.abs(minuteOf(sun?.riseMs ?? 0) - at(rise))).toBeLessThan(1.5);
  expect(Math.abs(minuteOf(sun?.setMs ?? 0) - at(set))).toBeLessThan(1.5);
  // Both belong to the day that was asked for.
  expect(noonMs - (sun?.riseMs ?? 0)).toBeGreaterThan(0);
  expect((sun?.setMs ?? 0) - noonMs).toBeGreaterThan(0);
});

/** Height of the sun in degrees, by the Fourier series of Spencer (1971) and mean solar time: a second method, good to half a day of the leap years. */
function heightDeg(latitudeDeg: number, longitudeDeg: number, timeMs: number): number {
  const year = new Date(timeMs).getUTCFullYear();
  const days = (timeMs - Date.UTC(year, 0, 1)) / 86_400_000;
  const g = (2 * Math.PI * (days - 0.5)) / 365;
  const declination =
    0.006918 -
    0.399912 * Math.cos(g) +
    0.070257 * Math.sin(g) -
    0.006758 * Math.cos(2 * g) +
    0.000907 * Math.sin(2 * g) -
    0.002697 * Math.cos(3 * g) +
    0.00148 * Math.sin(3 * g);
  const equationMin =
    229.18 *
    (0.000075 +
      0.001868 * Math.cos(g) -
      0.032077 * Math.sin(g) -
      0.014615 * Math.cos(2 * g) -
      0.040849 * Math.sin(2 * g));
  const solarMin = (days % 1) * 1440 + 4 * longitudeDeg + equationMin;
  const phi = (latitudeDeg * Math.PI) / 180;
  const sin =
    Math.sin(phi) * Math.sin(declination) +
    Math.cos(phi) * Math.cos(declination) * Math.cos(((solarMin - 720) / 720) * Math.PI);
  return (Math.asin(sin) * 180) / Math.PI;
}

// Where the sun goes down steeply the two agree to two minutes; at 64° a tenth of a degree is as much as two minutes.
test.each([
  [-60, 4],
  [-45, 2.5],
  [-20, 1.5],
  [0, 1.5],
  [10, 1.5],
  [35, 2],
  [50, 3],
  [60, 4],
  [64, 5.5],
])(
  'all through the year at %d° the sun stands at the horizon by another method too, to %d min',
  (latitudeDeg, most) => {
    for (let day = 5; day < 360; day += 6)
      for (const longitudeDeg of [-120, 8, 170]) {
        const noonMs = Date.UTC(2027, 0, day, 12) - (longitudeDeg / 15) * 3_600_000;
        const sun = sunTimes({ latitudeDeg, longitudeDeg }, noonMs);
        for (const atMs of [sun?.riseMs ?? 0, sun?.setMs ?? 0]) {
          const off = heightDeg(latitudeDeg, longitudeDeg, atMs) + 0.833;
          const perMinute = Math.abs(heightDeg(latitudeDeg, longitudeDeg, atMs + 60_000) + 0.833 - off);
          expect(Math.abs(off / perMinute)).toBeLessThan(most);
        }
      }
  },
);

test('beyond the circles there are days without a rise', () => {
  expect(sunTimes({ latitudeDeg: 70, longitudeDeg: 20 }, Date.UTC(2026, 5, 21, 11))).toBeNull();
  expect(sunTimes({ latitudeDeg: 70, longitudeDeg: 20 }, Date.UTC(2026, 11, 21, 11))).toBeNull();
  expect(sunTimes({ latitudeDeg: 70, longitudeDeg: 20 }, Date.UTC(2026, 2, 21, 11))).not.toBeNull();
});
