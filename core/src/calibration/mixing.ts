/**
 * Mixing series: soil of known dry mass, water added step by step, weighed, read. What counts is what was weighed, not what was poured: so what
 * evaporates, sticks to the spoon or was misread on the jug does no harm.
 *
 *     w = water ÷ dry soil        θ = water ÷ (volume · ρ_w)        ρ_b = dry soil ÷ volume        porosity = 1 − ρ_b ÷ ρ_s
 *
 * Masses in g, volumes in ml (water: 1 g/ml), densities in g/cm³.
 * Source: Dane & Topp 2002, Methods of Soil Analysis part 4, ch. 2.1 (bulk density), 2.3 (porosity) and 3.1 (water content by weighing).
 */
import { fail, ok, type Result } from '../quantity/result.ts';

export type MixingInputs = {
  /** Inner volume that the soil fills when it is pressed down, ml. */
  readonly volumeMl: number;
  /** The container alone, with all that will stand on the scale beside the soil, g. */
  readonly emptyG: number;
  /** A small sample of the soil as it is, and the same after the oven (a night at 105 °C), g. */
  readonly sampleWetG: number;
  readonly sampleDryG: number;
  /** Soil as it is that goes into the container, g. */
  readonly soilG: number;
  /** Smallest step of the scale, g. */
  readonly scaleStepG: number;
  /** What the volume may be off by for the whole series, and each time that the soil is pressed down to it: standard deviations, shares. */
  readonly volumeSigmaFrac: number;
  readonly pressingSigmaFrac: number;
  /** Steps of the series, the first one without added water included, 3..6. */
  readonly steps: number;
  /** Density of the solid grains, g/cm³: 2.65 for mineral soil, about 1.5 for peat and bark. */
  readonly grainDensity: number;
};

export type MixingIssue =
  | { readonly kind: 'not-positive'; readonly field: keyof MixingInputs }
  | { readonly kind: 'sample-gained' }
  | { readonly kind: 'steps' }
  /** So dense that grains would have to overlap: a weight or the volume is wrong. */
  | { readonly kind: 'too-dense'; readonly bulkDensity: number }
  /** Already as wet as the pores allow: nothing can be added. */
  | { readonly kind: 'full'; readonly volumetric: number; readonly porosity: number };

export type MixingPlan = {
  /** Water ÷ dry soil of the soil as it is, share. */
  readonly startGravimetric: number;
  readonly drySoilG: number;
  readonly bulkDensity: number;
  readonly porosity: number;
  readonly steps: readonly {
    /** Water in the soil that is aimed at, g, and the share of the volume that it fills. */
    readonly waterG: number;
    readonly volumetric: number;
    /** What the container should weigh then, g. */
    readonly weightG: number;
    /** To add to the step before, g. */
    readonly addG: number;
  }[];
};

/** The wettest step fills this share of the pores: beyond it water stands on the soil and the mixture is no longer even. */
export const WETTEST_OF_PORES = 0.85;
const POSITIVE = [
  'volumeMl',
  'sampleWetG',
  'sampleDryG',
  'soilG',
  'scaleStepG',
  'grainDensity',
] as const satisfies readonly (keyof MixingInputs)[];

/** What to add at each step, and what the container should weigh then. */
export function planMixing(inputs: MixingInputs): Result<MixingPlan, MixingIssue> {
  for (const field of POSITIVE)
    if (!(Number.isFinite(inputs[field]) && inputs[field] > 0)) return fail({ kind: 'not-positive', field });
  if (!(Number.isFinite(inputs.emptyG) && inputs.emptyG >= 0))
    return fail({ kind: 'not-positive', field: 'emptyG' });
  if (!Number.isInteger(inputs.steps) || inputs.steps < 3 || inputs.steps > 6) return fail({ kind: 'steps' });
  if (inputs.sampleDryG > inputs.sampleWetG) return fail({ kind: 'sample-gained' });
  const startGravimetric = (inputs.sampleWetG - inputs.sampleDryG) / inputs.sampleDryG;
  const drySoilG = inputs.soilG / (1 + startGravimetric);
  const bulkDensity = drySoilG / inputs.volumeMl;
  const porosity = 1 - bulkDensity / inputs.grainDensity;
  if (porosity <= 0.05) return fail({ kind: 'too-dense', bulkDensity });
  const startG = inputs.soilG - drySoilG;
  const wettestG = WETTEST_OF_PORES * porosity * inputs.volumeMl;
  if (startG >= wettestG) return fail({ kind: 'full', volumetric: startG / inputs.volumeMl, porosity });
  const stepG = (wettestG - startG) / (inputs.steps - 1);
  const steps = Array.from({ length: inputs.steps }, (_, at) => {
    const waterG = startG + at * stepG;
    return {
      waterG,
      volumetric: waterG / inputs.volumeMl,
      weightG: inputs.emptyG + drySoilG + waterG,
      addG: at === 0 ? 0 : stepG,
    };
  });
  return ok({ startGravimetric, drySoilG, bulkDensity, porosity, steps });
}

export type MixedStep = {
  /** Shares, and their standard deviations. */
  readonly gravimetric: number;
  readonly volumetric: number;
  /** What the weighing of this step may be off by, and what the series shares: the dry mass, the volume. */
  readonly gravimetricSigma: number;
  readonly volumetricSigma: number;
  readonly gravimetricCommon: readonly number[];
  readonly volumetricCommon: readonly number[];
  readonly waterG: number;
};
export type MixedIssue =
  /** Lighter than container and dry soil: one of the weights is wrong. */
  | { readonly kind: 'lighter-than-dry'; readonly byG: number }
  /** More water than there are pores: not pressed down to the volume, or a wrong volume. */
  | { readonly kind: 'over-porosity'; readonly volumetric: number; readonly porosity: number };

/** Water content by what the container weighs now. @param weightG container, soil and water, g */
export function weighMixed(
  inputs: MixingInputs,
  plan: MixingPlan,
  weightG: number,
): Result<MixedStep, MixedIssue> {
  const waterG = weightG - inputs.emptyG - plan.drySoilG;
  // Rounding of the scale: of this weight by itself; of the sample's two, as a share of the dry mass, for the whole series.
  const scaleSigma = inputs.scaleStepG / Math.sqrt(12);
  const drySigma = (plan.drySoilG * Math.SQRT2 * scaleSigma) / inputs.sampleDryG;
  if (waterG < -2 * Math.hypot(scaleSigma, drySigma)) return fail({ kind: 'lighter-than-dry', byG: -waterG });
  const gravimetric = waterG / plan.drySoilG;
  const volumetric = waterG / inputs.volumeMl;
  if (volumetric > 1.03 * plan.porosity)
    return fail({ kind: 'over-porosity', volumetric, porosity: plan.porosity });
  return ok({
    gravimetric,
    volumetric,
    gravimetricSigma: scaleSigma / plan.drySoilG,
    volumetricSigma: Math.hypot(scaleSigma / inputs.volumeMl, inputs.pressingSigmaFrac * volumetric),
    // Less dry soil is more water: both move the share one way.
    gravimetricCommon: [((1 + gravimetric) * drySigma) / plan.drySoilG],
    volumetricCommon: [drySigma / inputs.volumeMl, inputs.volumeSigmaFrac * volumetric],
    waterG,
  });
}

/** Water to add to reach a step of the plan from what the container weighs now, g; what evaporated since is made good with it. */
export const waterToAdd = (plan: MixingPlan, step: number, weightNowG: number): number =>
  Math.max(0, (plan.steps[step]?.weightG ?? weightNowG) - weightNowG);
