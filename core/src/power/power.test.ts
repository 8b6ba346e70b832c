import { describe, expect, test } from 'vitest';
import { coldFrac, fillDay, workAverage, workBatteryDays } from './battery.ts';
import { poweredShare, workProbeLife } from './probeLife.ts';
import {
  clearSkyMj,
  extraterrestrialMj,
  monthlyClearSkyKwh,
  workDarkDays,
  workPanel,
  worstMonth,
} from './solar.ts';

describe('average and battery', () => {
  // Every 10 minutes awake for 6 s at 40 mA and on the air for 2 s at 180 mA: 144 times a day.
  const { uses, overfull } = fillDay(
    [
      { state: 'wake', currentMa: 40, secondsPerDay: 864 },
      { state: 'radio', currentMa: 180, secondsPerDay: 288 },
    ],
    0.05,
  );
  test('sleep fills the day', () => {
    expect(uses[0]).toEqual({ state: 'sleep', currentMa: 0.05, secondsPerDay: 85_248 });
    expect(overfull).toBe(false);
    expect(fillDay([{ state: 'wake', currentMa: 1, secondsPerDay: 90_000 }], 1)).toMatchObject({
      overfull: true,
    });
  });
  test('1.05 mA on average', () => {
    // (40 × 864 + 180 × 288 + 0.05 × 85 248) / 86 400 = (34 560 + 51 840 + 4 262.4) / 86 400
    expect(workAverage(uses).value).toBeCloseTo(1.04933, 5);
  });
  test('7 Ah of lead-acid at 5 °C lasts 85 days', () => {
    // 7000 × 0.5 × (1 − 0.008 × 20) = 2940 mAh; self 7000 × 0.04 / 730.5 = 0.3833 mA; 2940 / 1.43263 / 24 = 85.5
    const days = workBatteryDays({
      averageMa: 1.04933,
      capacityMah: 7000,
      usableFrac: 0.5,
      temperatureC: 5,
      perCFrac: 0.008,
      selfDischargePerMonthFrac: 0.04,
    });
    expect(days.value).toBeCloseTo(2940 / (1.04933 + 280 / 730.5) / 24, 9);
    expect(days.value).toBeGreaterThan(85);
    expect(days.value).toBeLessThan(86);
  });
  test('warmth gives nothing, and deep cold leaves three tenths', () => {
    expect(coldFrac(35, 0.008)).toBe(1);
    expect(coldFrac(25, 0.008)).toBe(1);
    expect(coldFrac(-80, 0.01)).toBe(0.3);
  });
});

describe('sun by latitude', () => {
  test('FAO-56 example 8: 20° S on 3 September has 32.2 MJ/m²', () => {
    expect(extraterrestrialMj(-20, 246)).toBeCloseTo(32.2, 1);
  });
  test('FAO-56 example 10: 22°54′ S on 15 May has 25.1 MJ/m²', () => {
    expect(extraterrestrialMj(-22.9, 135)).toBeCloseTo(25.1, 1);
  });
  // FAO-56 annex 2, table 2.6, northern hemisphere, 15th of the month
  test.each([
    { latitude: 50, day: 15, mj: 8.9 },
    { latitude: 50, day: 166, mj: 41.6 },
    { latitude: 0, day: 74, mj: 37.9 },
    { latitude: 70, day: 349, mj: 0 },
  ])('table 2.6: $latitude° N on day $day has $mj MJ/m²', ({ latitude, day, mj }) => {
    expect(Math.abs(extraterrestrialMj(latitude, day) - mj)).toBeLessThan(0.35);
  });
  test('a clear sky lets three quarters through at sea level, a little more on a hill', () => {
    expect(clearSkyMj(50, 166, 0)).toBeCloseTo(0.75 * extraterrestrialMj(50, 166), 9);
    expect(clearSkyMj(50, 166, 1000)).toBeCloseTo(0.77 * extraterrestrialMj(50, 166), 9);
  });
  test('December is the worst month in the north, June in the south', () => {
    expect(worstMonth(52, 0)).toBe(11);
    expect(worstMonth(-35, 0)).toBe(5);
    expect(monthlyClearSkyKwh(52, 0)).toHaveLength(12);
  });
});

describe('panel and dark days', () => {
  const asked = {
    latitudeDeg: 52,
    altitudeM: 0,
    clearness: 0.35,
    averageMa: 20,
    systemV: 12,
    chainFrac: 0.6,
  };
  test('use over sun hours', () => {
    const sunH = (0.75 * extraterrestrialMj(52, 349) * 0.35) / 3.6;
    // 20 mA at 12 V is 5.76 Wh a day
    expect(workPanel(asked).value).toBeCloseTo(5.76 / (sunH * 0.6), 9);
  });
  test('where the sun does not rise no panel is large enough, and the number says so by not being one', () => {
    expect(workPanel({ ...asked, latitudeDeg: 75 }).value).toBe(Infinity);
  });
  test('4.8 Ah at 20 mA bridge ten days', () => {
    expect(workDarkDays(4800, 20).value).toBeCloseTo(10, 9);
  });
});

describe('probe life', () => {
  test('a fork that lasts half a year under power and five years idle: read for 1 s every 10 min it lasts nearly all of the five', () => {
    const share = poweredShare({ warmUpS: 0.5, measureS: 0.5, everyS: 600 });
    expect(share).toBeCloseTo(1 / 600, 12);
    // 1 / (0.0016667 / 0.5 + 0.9983333 / 5) = 4.926
    expect(workProbeLife({ share, poweredYears: 0.5, idleYears: 5 }).value).toBeCloseTo(4.926, 3);
  });
  test('powered all the time it lasts the powered life', () => {
    expect(workProbeLife({ share: 1, poweredYears: 0.5, idleYears: 5 }).value).toBeCloseTo(0.5, 12);
    expect(poweredShare({ warmUpS: 100, measureS: 10, everyS: 60 })).toBe(1);
  });
});
