import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { formulaInNumbers } from '../quantity/worked.ts';
import { cableOhm, mm2FromAwg, thinnestCableMm2, workCableDrop } from './cable.ts';
import { bestDivider, dividerShare, trimMultiplier } from './divider.ts';
import { fuseFor } from './fuse.ts';
import { i2cPullUp } from './i2cPullUp.ts';
import { ledResistor } from './led.ts';
import { bestNtcDivider, ntcCountsPerC, ntcOhm } from './ntc.ts';
import { loopNeededV, shuntFor } from './shunt.ts';
import { baseResistor, gateResistor } from './switches.ts';

const valueOf = <T>(result: { ok: true; value: T } | { ok: false; issue: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  return result.value;
};

describe('LED resistor', () => {
  test.each([
    // (3.3 − 2.0) / 10 mA = 130 Ω: the next E12 value is 150 Ω and gives 8.67 mA, the E24 value 130 Ω itself
    { series: 'E12', pinV: 3.3, forwardV: 2.0, currentMa: 10, ohm: 150, actualMa: 8.667 },
    { series: 'E24', pinV: 3.3, forwardV: 2.0, currentMa: 10, ohm: 130, actualMa: 10 },
    // (5 − 3.1) / 15 mA = 126.7 Ω
    { series: 'E12', pinV: 5, forwardV: 3.1, currentMa: 15, ohm: 150, actualMa: 12.667 },
  ] as const)('$pinV V, LED of $forwardV V at $currentMa mA: $ohm Ω of $series', (row) => {
    const found = valueOf(ledResistor(row));
    expect(found.ohm).toBe(row.ohm);
    expect(found.actualMa).toBeCloseTo(row.actualMa, 3);
    expect(found.worked.value).toBe(row.ohm);
  });
  test('a blue LED of 3.4 V does not light from 3.3 V', () => {
    expect(ledResistor({ series: 'E12', pinV: 3.3, forwardV: 3.4, currentMa: 5 })).toEqual({
      ok: false,
      issue: { kind: 'led-needs-more', pinV: 3.3, forwardV: 3.4 },
    });
  });
});

describe('divider', () => {
  test('10 kΩ over 20 kΩ hands on two thirds; a load of 20 kΩ beside the lower one leaves a half', () => {
    expect(dividerShare({ upperOhm: 10_000, lowerOhm: 20_000 })).toBeCloseTo(2 / 3, 12);
    expect(dividerShare({ upperOhm: 10_000, lowerOhm: 20_000 }, 20_000)).toBeCloseTo(0.5, 12);
  });

  const asked = { inV: 5, targetV: 3.3, sourceLimitOhm: 10_000, leastSumOhm: 1000 } as const;
  test.each(['E12', 'E24', 'E96'] as const)(
    'no %s pair that is allowed comes nearer than the one found',
    (series) => {
      const found = valueOf(bestDivider({ ...asked, series }));
      // Second method: every pair of the series between 100 Ω and 100 kΩ.
      const values = [100, 1000, 10_000].flatMap((decade) =>
        [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2].map((one) => one * decade),
      );
      let best = 0;
      for (const upperOhm of values)
        for (const lowerOhm of values) {
          const outV = (5 * lowerOhm) / (upperOhm + lowerOhm);
          const sourceOhm = (upperOhm * lowerOhm) / (upperOhm + lowerOhm);
          if (outV <= 3.3 && sourceOhm <= 10_000 && upperOhm + lowerOhm >= 1000) best = Math.max(best, outV);
        }
      expect(found.outV).toBeLessThanOrEqual(3.3);
      expect(found.outV).toBeGreaterThan(best - 5e-4 - 1e-9);
      expect(found.sourceOhm).toBeLessThanOrEqual(10_000);
      expect(found.multiplier).toBeCloseTo(5 / found.outV, 9);
    },
  );
  test('a one-volt input behind 3.3 V, with the module’s own 320 kΩ of load taken into account', () => {
    const found = valueOf(
      bestDivider({
        inV: 3.3,
        targetV: 1,
        series: 'E96',
        sourceLimitOhm: 10_000,
        leastSumOhm: 1000,
        loadOhm: 320_000,
      }),
    );
    const low = (found.lowerOhm * 320_000) / (found.lowerOhm + 320_000);
    expect(found.outV).toBeCloseTo((3.3 * low) / (found.upperOhm + low), 9);
    expect(found.outV).toBeGreaterThan(0.99);
    expect(found.outV).toBeLessThanOrEqual(1);
  });
  test('nothing to divide, and limits that exclude each other, are said', () => {
    expect(bestDivider({ ...asked, series: 'E12', inV: 3 })).toMatchObject({
      issue: { kind: 'divider-not-needed' },
    });
    expect(bestDivider({ ...asked, series: 'E12', sourceLimitOhm: 100, leastSumOhm: 1e6 })).toMatchObject({
      issue: { kind: 'divider-no-pair' },
    });
  });
  test('never above the target, whatever is asked', () => {
    const volts = fc.double({ min: 0.5, max: 24, noNaN: true });
    fc.assert(
      fc.property(
        volts,
        volts,
        fc.constantFrom('E12' as const, 'E24' as const, 'E96' as const),
        (inV, targetV, series) => {
          const found = bestDivider({ inV, targetV, series, sourceLimitOhm: 10_000, leastSumOhm: 1000 });
          fc.pre(found.ok);
          expect(found.value.outV).toBeLessThanOrEqual(targetV * (1 + 1e-9));
        },
      ),
    );
  });
  test('a multimeter trims the multiplier', () => {
    expect(trimMultiplier(12.6, 1.05)).toBeCloseTo(12, 12);
    expect(trimMultiplier(12.6, 0)).toBeNull();
  });
});

describe('thermistor', () => {
  const ntc = { r25Ohm: 10_000, betaK: 3950 };
  test('a 10 kΩ thermistor has 10 kΩ at 25 °C and about 33.6 kΩ at 0 °C', () => {
    expect(ntcOhm({ ...ntc, temperatureC: 25 })).toBe(10_000);
    // 3950 × (1/273.15 − 1/298.15) = 1.21258; e^1.21258 = 3.3621
    expect(ntcOhm({ ...ntc, temperatureC: 0 })).toBeCloseTo(33_621, -1);
  });
  test('counts per degree are the slope of the counts themselves', () => {
    const counts = (temperatureC: number) => {
      const ohm = ntcOhm({ ...ntc, temperatureC });
      return (4095 * ohm) / (ohm + 10_000);
    };
    const slope = Math.abs(counts(20.01) - counts(19.99)) / 0.02;
    expect(ntcCountsPerC({ ...ntc, fixedOhm: 10_000, temperatureC: 20, adcBits: 12 })).toBeCloseTo(slope, 2);
  });
  test('the fixed resistor found is near the thermistor’s value in mid-range, and no other value is finer at its worst', () => {
    const found = bestNtcDivider({ ...ntc, lowC: 0, highC: 40, series: 'E12', adcBits: 12 });
    expect(found.fixedOhm).toBeGreaterThan(6000);
    expect(found.fixedOhm).toBeLessThan(16_000);
    const worst = (fixedOhm: number) =>
      Math.min(
        ...[0, 10, 20, 30, 40].map((temperatureC) =>
          ntcCountsPerC({ ...ntc, fixedOhm, temperatureC, adcBits: 12 }),
        ),
      );
    for (const other of [4700, 5600, 6800, 8200, 10_000, 12_000, 15_000, 18_000, 22_000])
      expect(worst(other)).toBeLessThanOrEqual(worst(found.fixedOhm) + 1e-9);
    expect(found.rows.map((row) => row.temperatureC)).toEqual([0, 10, 20, 30, 40]);
    expect(found.worked.value).toBeCloseTo(found.worstCountsPerC, 9);
  });
});

describe('transistor and MOSFET', () => {
  test('a 200 mA load, gain 100, overdriven five times from 5 V: 430 Ω exact, 390 Ω taken', () => {
    // (5 − 0.7) × 100 / (0.2 × 5) = 430 Ω; 4.3 / 390 = 11.03 mA
    const found = valueOf(
      baseResistor({ pinV: 5, loadMa: 200, hfe: 100, overdrive: 5, pinMa: 20, series: 'E12' }),
    );
    expect(found.ohm).toBe(390);
    expect(found.baseMa).toBeCloseTo(11.03, 2);
  });
  test('a load that asks more base current than the pin may give is refused', () => {
    expect(
      baseResistor({ pinV: 3.3, loadMa: 800, hfe: 100, overdrive: 5, pinMa: 12, series: 'E12' }),
    ).toMatchObject({ issue: { kind: 'base-too-much', pinMa: 12 } });
    expect(
      baseResistor({ pinV: 0.6, loadMa: 10, hfe: 100, overdrive: 5, pinMa: 12, series: 'E12' }),
    ).toMatchObject({ issue: { kind: 'base-no-voltage' } });
  });
  const gate = {
    pinV: 3.3,
    pinMa: 20,
    gateFullOnV: 2.5,
    onOhm: 0.04,
    loadMa: 1500,
    pullDownOhm: 10_000,
    series: 'E12',
  } as const;
  test('3.3 V and 20 mA: 165 Ω exact, 180 Ω taken; 1.5 A through 40 mΩ is 90 mW', () => {
    const found = valueOf(gateResistor(gate));
    expect(found.ohm).toBe(180);
    expect(found.gateV).toBeCloseTo((3.3 * 10_000) / 10_180, 9);
    expect(found.heatMw).toBeCloseTo(90, 9);
  });
  test('a MOSFET that wants 4.5 V at its gate is not fully on from 3.3 V', () => {
    expect(gateResistor({ ...gate, gateFullOnV: 4.5 })).toMatchObject({
      issue: { kind: 'gate-not-full-on', gateFullOnV: 4.5 },
    });
  });
});

describe('I2C pull-up', () => {
  test('3.3 V, 100 pF, 100 kHz: from 967 Ω to 11.8 kΩ; 10 kΩ taken', () => {
    const found = valueOf(i2cPullUp({ supplyV: 3.3, busPf: 100, speed: 'standard, 100 kHz', series: 'E12' }));
    expect(found.leastOhm).toBeCloseTo(966.67, 2);
    expect(found.mostOhm).toBeCloseTo(11_802, 0);
    expect(found.ohm).toBe(10_000);
  });
  test('5 V, 200 pF, 400 kHz: from 1 533 Ω to 1 770 Ω leaves no E12 value, but E24 has 1.6 kΩ', () => {
    const asked = { supplyV: 5, busPf: 200, speed: 'fast, 400 kHz' } as const;
    expect(i2cPullUp({ ...asked, series: 'E12' })).toMatchObject({ issue: { kind: 'bus-too-heavy' } });
    expect(valueOf(i2cPullUp({ ...asked, series: 'E24' })).ohm).toBe(1600);
  });
  test('more than 400 pF is outside the specification whatever the resistor', () => {
    expect(i2cPullUp({ supplyV: 3.3, busPf: 450, speed: 'standard, 100 kHz', series: 'E24' })).toMatchObject({
      issue: { kind: 'bus-too-heavy', busPf: 450, mostPf: 400 },
    });
  });
});

describe('4–20 mA shunt', () => {
  const asked = { inputV: 3.3, loopV: 12, probeV: 8, cableOhm: 2, adcBits: 12, series: 'E24' } as const;
  test('3.3 V over 21 mA is 157 Ω; 150 Ω taken, 3.0 V at 20 mA, 0.6 V at 4 mA', () => {
    const found = valueOf(shuntFor(asked));
    expect(found.ohm).toBe(150);
    expect(found.fullV).toBeCloseTo(3, 12);
    expect(found.zeroV).toBeCloseTo(0.6, 12);
    // 3.6 mA × 150 Ω = 0.54 V of 3.3 V: 670.09 counts
    expect(found.brokenCounts).toBe(670);
    // 12 − (0.02 × 152 + 8) = 0.96 V left
    expect(found.spareV).toBeCloseTo(0.96, 9);
  });
  test('a probe that needs 10 V does not work from 12 V with that shunt', () => {
    expect(shuntFor({ ...asked, probeV: 10 })).toMatchObject({
      issue: { kind: 'loop-voltage-short', neededV: loopNeededV({ shuntOhm: 150, cableOhm: 2, probeV: 10 }) },
    });
  });
});

describe('cable and fuse', () => {
  // ASTM B258: 24 AWG is 0.205 mm², 18 AWG 0.823 mm², 12 AWG 3.31 mm²
  test.each([
    [24, 0.205],
    [18, 0.823],
    [12, 3.309],
  ])('%d AWG is %d mm²', (awg, mm2) => {
    expect(mm2FromAwg(awg)).toBeCloseTo(mm2, 3);
  });
  test('1 A over 10 m of 0.5 mm² loses 0.7 V', () => {
    const drop = workCableDrop({ lengthM: 10, currentMa: 1000, areaMm2: 0.5 });
    expect(drop.value).toBeCloseTo(0.7, 12);
    expect(drop.steps.map(formulaInNumbers)[0]).toBe('2 × 10.0 × 1\u202f000 ÷ 1000 × 0.0175 ÷ 0.50');
    expect(cableOhm({ lengthM: 10, areaMm2: 0.5 })).toBeCloseTo(0.7, 12);
  });
  test('to lose at most 0.6 V, 0.75 mm² is the thinnest that does; 100 m at 10 A has none', () => {
    expect(thinnestCableMm2({ lengthM: 10, currentMa: 1000, mostDropV: 0.6 })).toBe(0.75);
    expect(thinnestCableMm2({ lengthM: 100, currentMa: 10_000, mostDropV: 0.5 })).toBeNull();
  });
  test('1.2 A asks for 1.6 A at least, and 0.5 mm² bears 3 A', () => {
    expect(valueOf(fuseFor({ currentMa: 1200, areaMm2: 0.5 }))).toMatchObject({ fuseA: 1.6, cableA: 3 });
  });
  test('6 A through 0.5 mm² would burn the cable before the fuse', () => {
    expect(fuseFor({ currentMa: 6000, areaMm2: 0.5 })).toMatchObject({
      issue: { kind: 'cable-too-thin', neededA: 10, cableA: 3 },
    });
  });
});
