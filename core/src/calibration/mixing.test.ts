import { describe, expect, test } from 'vitest';
import { planMixing, waterToAdd, weighMixed, type MixingInputs } from './mixing.ts';

/**
 * Worked by hand. Sample 115 g wet, 100 g dry: 15 g of water on 100 g, 0.15. 1265 g of that soil are 1265 ÷ 1.15 = 1100 g dry and 165 g of water. In one
 * litre: bulk density 1.10, pores 1 − 1.10 ÷ 2.65 = 0.5849. The wettest of five steps fills 0.85 of them, 497.2 g; four additions of 83.0 g.
 */
const inputs: MixingInputs = {
  volumeMl: 1000,
  emptyG: 85,
  sampleWetG: 115,
  sampleDryG: 100,
  soilG: 1265,
  scaleStepG: 1,
  steps: 5,
  volumeSigmaFrac: 0.02,
  pressingSigmaFrac: 0,
  grainDensity: 2.65,
};
const planOf = (change: Partial<MixingInputs> = {}) => {
  const plan = planMixing({ ...inputs, ...change });
  if (!plan.ok) throw new Error(plan.issue.kind);
  return plan.value;
};

describe('the plan', () => {
  test('agrees with the sums by hand, to the gram', () => {
    const plan = planOf();
    expect(plan.startGravimetric).toBeCloseTo(0.15, 9);
    expect(plan.drySoilG).toBeCloseTo(1100, 9);
    expect(plan.bulkDensity).toBeCloseTo(1.1, 9);
    expect(plan.porosity).toBeCloseTo(0.5849, 4);
    expect(plan.steps.map((step) => Math.round(step.addG))).toEqual([0, 83, 83, 83, 83]);
    expect(plan.steps.map((step) => Math.round(step.weightG))).toEqual([1350, 1433, 1516, 1599, 1682]);
    expect(plan.steps[0]?.volumetric).toBeCloseTo(0.165, 9);
    expect(plan.steps[4]?.volumetric).toBeCloseTo(0.4972, 4);
  });
  test('oven-dry soil begins at zero', () => {
    const plan = planOf({ sampleWetG: 100, soilG: 1100 });
    expect(plan.steps[0]).toMatchObject({ waterG: 0, volumetric: 0, weightG: 1185 });
  });
  test.each([
    [{ volumeMl: 0 }, { kind: 'not-positive', field: 'volumeMl' }],
    [{ emptyG: -1 }, { kind: 'not-positive', field: 'emptyG' }],
    [{ sampleDryG: Number.NaN }, { kind: 'not-positive', field: 'sampleDryG' }],
    [{ sampleDryG: 120 }, { kind: 'sample-gained' }],
    [{ steps: 2 }, { kind: 'steps' }],
    [{ steps: 7 }, { kind: 'steps' }],
    [{ volumeMl: 420 }, { kind: 'too-dense' }],
    [{ sampleWetG: 300 }, { kind: 'full' }],
  ])('%j is refused', (change, issue) => {
    expect(planMixing({ ...inputs, ...change })).toMatchObject({ ok: false, issue });
  });
});

describe('weighing a step', () => {
  test('what counts is the weight: 1433 g are 248 g of water, 0.2255 by mass and 0.248 by volume', () => {
    const mixed = weighMixed(inputs, planOf(), 1433);
    if (!mixed.ok) throw new Error(mixed.issue.kind);
    expect(mixed.value.waterG).toBeCloseTo(248, 9);
    expect(mixed.value.gravimetric).toBeCloseTo(0.22545, 4);
    expect(mixed.value.volumetric).toBeCloseTo(0.248, 9);
  });
  test('the volume is good to one part in fifty, the scale to a gram', () => {
    const mixed = weighMixed(inputs, planOf(), 1433);
    // 0.02 · 0.248 = 0.00496; the dry mass 1100 · √2 · 0.2887 ÷ 100 = 4.49 g, by 1000 ml 0.0045: together 0.0067.
    if (!mixed.ok) throw new Error(mixed.issue.kind);
    expect(Math.hypot(...mixed.value.volumetricCommon)).toBeCloseTo(0.0067, 4);
    // This weight by itself: 1 ÷ √12 g of 1000.
    expect(mixed.value.volumetricSigma).toBeCloseTo(0.000289, 6);
  });
  test('a finer scale gives a finer content by mass', () => {
    const sigma = (scaleStepG: number) => {
      const mixed = weighMixed({ ...inputs, scaleStepG }, planOf(), 1433);
      return mixed.ok ? mixed.value.gravimetricSigma : 0;
    };
    expect(sigma(1) / sigma(0.1)).toBeCloseTo(10, 1);
  });
  test('lighter than everything dry, and wetter than the pores allow, are told', () => {
    expect(weighMixed(inputs, planOf(), 1150)).toMatchObject({
      ok: false,
      issue: { kind: 'lighter-than-dry', byG: 35 },
    });
    // 1.03 · 584.9 = 602.5 g of water; 1795 g hold 610.
    expect(weighMixed(inputs, planOf(), 1795)).toMatchObject({ ok: false, issue: { kind: 'over-porosity' } });
    expect(weighMixed(inputs, planOf(), 1785).ok).toBe(true);
  });
});

test('what evaporated is made good at the next step', () => {
  const plan = planOf();
  // The third mixture should weigh 1516 g; after 83 g were added it weighs 1509.
  expect(waterToAdd(plan, 2, 1509)).toBeCloseTo(7.1, 1);
  expect(waterToAdd(plan, 2, 1600)).toBe(0);
});
