import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ntcOhm } from '../electrics/ntc.ts';
import type { Stretch } from '../signal/streamBuffer.ts';
import { compareThermometers } from './comparison.ts';
import {
  correctionSchema,
  lineOf,
  meantOf,
  offsetOf,
  trimOf,
  workCorrection,
  type Correction,
} from './correction.ts';
import { BATH_SPAN_C, pointAtRest } from './pointAtRest.ts';
import { sunSigns } from './sunBias.ts';
import { fromBeta, fromThreePoints, ohmOfCounts, temperatureOfOhm } from './thermistor.ts';

const soilOf = (correction: Correction, value: number) =>
  meantOf({ quantity: 'soil temperature', correction }, value, 4095);
const made = { madeAt: '2026-03-01T10:00:00Z', against: 'a trusted thermometer' };

describe('thermistor', () => {
  const beta = fromBeta({ r25Ohm: 10_000, betaK: 3950 });
  test('the beta equation turns resistance back into temperature', () => {
    for (const temperatureC of [-10, 0, 25, 60])
      expect(temperatureOfOhm(beta, ntcOhm({ r25Ohm: 10_000, betaK: 3950, temperatureC }))).toBeCloseTo(
        temperatureC,
        9,
      );
  });
  test('three points of a published table give a curve that holds between them', () => {
    // A common 10 kΩ curve (10 kΩ at 25 °C): 0 °C 32 650 Ω, 25 °C 10 000 Ω, 50 °C 3603 Ω; between, 10 °C 19 900 Ω, 40 °C 5327 Ω.
    const fit = fromThreePoints([
      { temperatureC: 25, ohm: 10_000 },
      { temperatureC: 0, ohm: 32_650 },
      { temperatureC: 50, ohm: 3603 },
    ]);
    if (!fit.ok) throw new Error('refused');
    expect(temperatureOfOhm(fit.value, 19_900)).toBeCloseTo(10, 1);
    expect(temperatureOfOhm(fit.value, 5327)).toBeCloseTo(40, 1);
  });
  test('the curve goes through its three points, whatever they are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -20, max: 10 }),
        fc.integer({ min: 6, max: 30 }),
        fc.integer({ min: 6, max: 40 }),
        fc.double({ min: 2500, max: 4500, noNaN: true }),
        (cold, up, more, betaK) => {
          const at = (temperatureC: number) => ({
            temperatureC,
            ohm: ntcOhm({ r25Ohm: 10_000, betaK, temperatureC }),
          });
          const points = [at(cold), at(cold + up), at(cold + up + more)] as const;
          const fit = fromThreePoints(points);
          if (!fit.ok) return false;
          return points.every(
            (one) => Math.abs(temperatureOfOhm(fit.value, one.ohm) - one.temperatureC) < 1e-6,
          );
        },
      ),
    );
  });
  test.each([
    [[0, 30_000], [3, 27_000], [50, 3600], { kind: 'too-close', apartC: 3, neededC: 5 }],
    [[0, 30_000], [25, 31_000], [50, 3600], { kind: 'not-falling' }],
    [[0, 0], [25, 10_000], [50, 3600], { kind: 'not-positive' }],
  ] as const)('points that carry no curve are refused: %o %o %o', (a, b, c, issue) => {
    const point = ([temperatureC, ohm]: readonly [number, number]) => ({ temperatureC, ohm });
    expect(fromThreePoints([point(a), point(b), point(c)])).toEqual({ ok: false, issue });
  });
  test('half of full scale is the fixed resistor itself, on either side; a rail is no resistance', () => {
    const at = (counts: number, side: 'ground' | 'supply') =>
      ohmOfCounts(counts, { fixedOhm: 10_000, fullScaleCounts: 4000, side });
    expect(at(2000, 'ground')).toBe(10_000);
    // A quarter of the voltage across the thermistor: a third of the fixed resistor; above: three times.
    expect(at(1000, 'ground')).toBeCloseTo(3333.33, 2);
    expect(at(1000, 'supply')).toBe(30_000);
    expect(at(0, 'ground')).toBeNull();
    expect(at(4000, 'supply')).toBeNull();
  });
});

describe('corrections', () => {
  const all: Correction[] = [
    { kind: 'none' },
    { kind: 'offset', offset: -0.6, ...made },
    { kind: 'line', gain: 1.02, offset: -0.4, ...made },
    {
      kind: 'thermistor',
      ...fromBeta({ r25Ohm: 10_000, betaK: 3950 }),
      fixedOhm: 10_000,
      side: 'ground',
      offset: 0.3,
      ...made,
    },
  ];
  test('each does what it says', () => {
    // 2047.5 of 4095 is 10 kΩ, which is 25 °C.
    expect(all.map((one) => soilOf(one, one.kind === 'thermistor' ? 2047.5 : 20))).toEqual([
      20,
      19.4,
      20,
      expect.closeTo(25.3, 6),
    ]);
  });
  test('the working ends at the same value, and fits the schema', () => {
    for (const one of all) {
      const value = one.kind === 'thermistor' ? 1800 : 20;
      const work = workCorrection(one, value, {
        fullScaleCounts: 4095,
        title: 'Soil',
        unit: '°C',
        decimals: 1,
      });
      expect(work.value).toBeCloseTo(soilOf(one, value) ?? Number.NaN, 9);
      expect(correctionSchema.safeParse(one).success).toBe(true);
    }
  });
  test('a thermistor within half a percent of a rail is open or shorted: no temperature', () => {
    const thermistor = all[3] ?? { kind: 'none' };
    expect([4095, 4090, 4076, 0, 3, 19].map((counts) => soilOf(thermistor, counts))).toEqual(
      Array.from({ length: 6 }, () => null),
    );
    // 3900 counts of a thermistor on the ground side are 200 kΩ, some 30 °C of frost.
    expect(soilOf(thermistor, 3900)).toBeLessThan(-20);
  });
  test('fault codes are no reading, with an offset or without; what meets "air below 3 °C" has been measured', () => {
    const offset: Correction = { kind: 'offset', offset: 0.6, ...made };
    for (const code of [-127, 85, 127.94, -56]) {
      expect(soilOf({ kind: 'none' }, code)).toBeNull();
      expect(soilOf(offset, code)).toBeNull();
    }
    expect(soilOf({ kind: 'none' }, -12)).toBe(-12);
    expect(soilOf({ kind: 'none' }, 84.5)).toBe(84.5);
    // Of a battery 85 is a number like any other.
    expect(meantOf({ quantity: 'battery voltage', correction: { kind: 'none' } }, 85, 4095)).toBe(85);
  });
  test('one point gives an offset, two give gain and offset', () => {
    expect(offsetOf({ read: 0.8, trusted: 0 })).toBe(-0.8);
    // Ice 0 read 0.8, bath 40.0 read 39.8: gain 40/39, offset −0.8·40/39.
    const line = lineOf({ read: 0.8, trusted: 0 }, { read: 39.8, trusted: 40 });
    expect(line).toEqual({
      ok: true,
      value: { gain: expect.closeTo(1.02564, 5) as number, offset: expect.closeTo(-0.82051, 5) as number },
    });
  });
  test('points too near to each other or to belief are refused', () => {
    expect(lineOf({ read: 20, trusted: 20 }, { read: 25, trusted: 25 })).toMatchObject({
      issue: { kind: 'too-close' },
    });
    expect(lineOf({ read: 0, trusted: 0 }, { read: 20, trusted: 40 })).toMatchObject({
      issue: { kind: 'odd-gain', gain: 2 },
    });
  });
  test('a battery monitor is trimmed by the multimeter', () => {
    expect(trimOf({ meterV: 12.6, reported: 12.0, now: 4 })).toEqual({
      ok: true,
      value: expect.closeTo(4.2, 9) as number,
    });
    expect(trimOf({ meterV: 12.6, reported: 3.1, now: 1 })).toMatchObject({ ok: true });
    expect(trimOf({ meterV: 12.6, reported: 3.1, now: 4 })).toMatchObject({ issue: { kind: 'far-off' } });
    expect(trimOf({ meterV: 0, reported: 3, now: 1 })).toMatchObject({ issue: { kind: 'not-positive' } });
  });
});

const night = (value: (minute: number) => number, minutes = 480): Stretch => ({
  timesMs: Float64Array.from({ length: minutes * 2 }, (_, at) => at * 30_000),
  values: Float64Array.from({ length: minutes * 2 }, (_, at) => value(at / 2)),
});

describe('a night side by side', () => {
  const fall = (minute: number) => 18 - minute / 80;
  const three = [
    { id: 'a', stretch: night(fall) },
    { id: 'b', stretch: night((minute) => fall(minute) + 0.5) },
    { id: 'c', stretch: night((minute) => fall(minute) - 0.9 + (Math.floor(minute) % 2 === 0 ? 0.2 : -0.2)) },
  ];
  test('each is told what it is off by, from the middle of all', () => {
    const compared = compareThermometers(three, null);
    if (!compared.ok) throw new Error('refused');
    expect(compared.value.map((one) => Number(one.offsetC.toFixed(2)))).toEqual([0, -0.5, 0.9]);
    // ± 0.2 in turn: a standard deviation of 0.2, 95 % within 0.39.
    expect(compared.value[2]?.withinC).toBeCloseTo(0.392, 2);
    expect(compared.value[1]?.withinC).toBeCloseTo(0, 9);
    expect(compared.value[0]?.minutes).toBe(480);
  });
  test('or from one that is trusted', () => {
    const compared = compareThermometers(three, 'b');
    expect(compared.ok && compared.value.map((one) => Number(one.offsetC.toFixed(2)))).toEqual([0.5, 0, 1.4]);
  });
  test('one alone, or an hour, is not enough', () => {
    expect(compareThermometers(three.slice(0, 1), null)).toMatchObject({ issue: { kind: 'too-few' } });
    const hour = three.map((one) => ({ ...one, stretch: night(fall, 60) }));
    expect(compareThermometers(hour, null)).toMatchObject({ issue: { kind: 'too-short', neededHours: 4 } });
    // Ten hours from the first to the last common minute, but common only in the first and the last.
    const apart = three.map(({ id, stretch }) => {
      const kept = [...stretch.timesMs].flatMap((timeMs, at) => {
        const hour = (timeMs - (stretch.timesMs[0] ?? 0)) / 3_600_000;
        return hour < 1 || hour > 7 ? [at] : [];
      });
      return {
        id,
        stretch: {
          timesMs: Float64Array.from(kept, (at) => stretch.timesMs[at] ?? 0),
          values: Float64Array.from(kept, (at) => stretch.values[at] ?? 0),
        },
      };
    });
    const short = compareThermometers(apart, null);
    expect(short).toMatchObject({ issue: { kind: 'too-short' } });
    expect(short.ok ? 9 : short.issue.kind === 'too-short' && short.issue.hours).toBeLessThan(3);
  });
});

test('a night logged each ten minutes is a night too, whatever the second of each reading', () => {
  const logged = (offset: number, laterMs: number): Stretch => ({
    timesMs: Float64Array.from({ length: 49 }, (_, at) => at * 600_000 + laterMs),
    values: Float64Array.from({ length: 49 }, (_, at) => 15 - at / 20 + offset),
  });
  const two = [
    { id: 'a', stretch: logged(0, 1000) },
    { id: 'b', stretch: logged(0.4, 250_000) },
  ];
  const compared = compareThermometers(two, 'a');
  if (!compared.ok) throw new Error('refused');
  expect(compared.value[1]?.offsetC).toBeCloseTo(-0.4, 9);
  expect(compared.value[1]?.minutes).toBe(490);
});

describe('sun on the thermometer', () => {
  test('shade warms slowly and stays near the soil', () => {
    expect(
      sunSigns(
        night((minute) => 10 + minute / 30),
        night(() => 12),
      ),
    ).toEqual([]);
  });
  test('ten degrees in half an hour are the sun', () => {
    const [sign] = sunSigns(
      night((minute) => (minute < 240 ? 12 : Math.min(22, 12 + (minute - 240) / 3))),
      null,
    );
    expect(sign).toMatchObject({ kind: 'too-fast' });
    // A third of a degree a minute is 20 an hour.
    expect(sign?.kind === 'too-fast' && sign.ratePerHour).toBeCloseTo(20, 0);
  });
  test('so is air far above a soil that has not followed', () => {
    expect(
      sunSigns(
        night((minute) => 10 + minute / 20),
        night(() => 12),
      ),
    ).toEqual([
      { kind: 'too-far-above', aboveC: expect.closeTo(22, 0) as number, atMs: expect.any(Number) as number },
    ]);
  });
});

describe('a point in ice or in the bath', () => {
  const stretch = (valueAt: (second: number) => number, seconds: number): Stretch => ({
    timesMs: Float64Array.from({ length: seconds }, (_, at) => at * 1000),
    values: Float64Array.from({ length: seconds }, (_, at) => valueAt(at)),
  });
  /** Noise of ± 0.05 °C, the same each time. */
  const ripple = (at: number) => 0.1 * ((Math.sin(at * 12.9898) * 43_758.5453) % 1) * 0.5;
  test('on its way it is not at rest; having come down to 0.3 °C it is the middle of what came after', () => {
    const cooling = (at: number) => 0.3 + 19 * Math.exp(-at / 12) + ripple(at);
    expect(pointAtRest(stretch(cooling, 15), BATH_SPAN_C)?.isAtRest ?? false).toBe(false);
    const rested = pointAtRest(stretch(cooling, 240), BATH_SPAN_C);
    expect(rested?.isAtRest).toBe(true);
    expect(Math.abs((rested?.value ?? 9) - 0.3)).toBeLessThan(0.05);
  });
  test('one wild value does not move it', () => {
    const wild = (at: number) => (at === 200 ? -127 : 0.3 + ripple(at));
    expect(Math.abs((pointAtRest(stretch(wild, 240), BATH_SPAN_C)?.value ?? 9) - 0.3)).toBeLessThan(0.05);
  });
  test('fewer than five readings are no point', () => {
    expect(
      pointAtRest(
        stretch(() => 0, 4),
        BATH_SPAN_C,
      ),
    ).toBeNull();
    expect(
      pointAtRest(
        stretch(() => 0, 0),
        BATH_SPAN_C,
      ),
    ).toBeNull();
  });
});
