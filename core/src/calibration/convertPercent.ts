/**
 * One kind of percent turned into another, only where what it takes is known; what the inputs may be off by is carried along.
 *
 *     θ = w · ρ_b ÷ ρ_w        available = (θ − θ_wilt) ÷ (θ_capacity − θ_wilt)
 *
 * Source: Hillel 1998, Environmental Soil Physics, ch. 2; Allen et al. 1998, FAO-56 eq. 82.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import type { PercentKind } from '../quantity/percentKind.ts';

/** What is known of a soil. Water contents in percent by volume, bulk density in g/cm³; null where it is not known. */
export type SoilFacts = {
  readonly bulkDensity: number | null;
  readonly capacityVwc: number | null;
  readonly wiltingVwc: number | null;
};
export const NO_SOIL_FACTS: SoilFacts = { bulkDensity: null, capacityVwc: null, wiltingVwc: null };

/** A known percent, and what it may be off by: by itself, and together with all others of its series, one number for each cause that they share. */
export type Uncertain = {
  readonly percent: number;
  readonly sigmaPercent: number;
  readonly common: readonly number[];
};

/** All that a known percent may be off by, standard deviation. */
export const wholeSigma = (of: Omit<Uncertain, 'percent'>): number =>
  Math.hypot(of.sigmaPercent, ...of.common);

/** A percent times a factor plus an offset, with all it may be off by, and what the conversion adds for all alike. */
const turned = (of: Uncertain, factor: number, offset: number, added: readonly number[]): Uncertain => ({
  percent: factor * of.percent + offset,
  sigmaPercent: Math.abs(factor) * of.sigmaPercent,
  common: [...of.common.map((one) => factor * one), ...added],
});
export type ConvertIssue =
  | { readonly kind: 'relative-only'; readonly from: PercentKind }
  | { readonly kind: 'unknown'; readonly needs: readonly (keyof SoilFacts)[] }
  | { readonly kind: 'no-range' };

/** A bulk density from a pressed container is good to a twentieth, a water content of a soil to one percent by volume. */
const DENSITY_SIGMA_FRAC = 0.05;
const CONTENT_SIGMA = 1;

/** @param from of the value; span and factory percent know nothing of the soil and stay what they are */
export function convertPercent(
  value: Uncertain,
  from: PercentKind,
  to: PercentKind,
  soil: SoilFacts,
): Result<Uncertain, ConvertIssue> {
  if (from === to) return ok(value);
  if ([from, to].some((kind) => kind === 'span' || kind === 'factory'))
    return fail({ kind: 'relative-only', from });
  const volumetric = toVolumetric(value, from, soil);
  return volumetric.ok ? fromVolumetric(volumetric.value, to, soil) : volumetric;
}

function toVolumetric(value: Uncertain, from: PercentKind, soil: SoilFacts): Result<Uncertain, ConvertIssue> {
  if (from === 'volumetric') return ok(value);
  if (from === 'gravimetric') {
    const density = soil.bulkDensity;
    if (density === null) return fail({ kind: 'unknown', needs: ['bulkDensity'] });
    return ok(turned(value, density, 0, [DENSITY_SIGMA_FRAC * value.percent * density]));
  }
  const range = rangeOf(soil);
  if (!range.ok) return range;
  const { wilting, width } = range.value;
  const share = value.percent / 100;
  return ok(turned(value, width / 100, wilting, [share * CONTENT_SIGMA, (1 - share) * CONTENT_SIGMA]));
}

function fromVolumetric(value: Uncertain, to: PercentKind, soil: SoilFacts): Result<Uncertain, ConvertIssue> {
  if (to === 'volumetric') return ok(value);
  if (to === 'gravimetric') {
    const density = soil.bulkDensity;
    if (density === null) return fail({ kind: 'unknown', needs: ['bulkDensity'] });
    return ok(turned(value, 1 / density, 0, [(DENSITY_SIGMA_FRAC * value.percent) / density]));
  }
  const range = rangeOf(soil);
  if (!range.ok) return range;
  const { wilting, width } = range.value;
  const share = (value.percent - wilting) / width;
  const perContent = 100 / width;
  return ok(
    turned(value, perContent, -perContent * wilting, [
      perContent * share * CONTENT_SIGMA,
      perContent * (1 - share) * CONTENT_SIGMA,
    ]),
  );
}

function rangeOf(soil: SoilFacts): Result<{ wilting: number; width: number }, ConvertIssue> {
  const needs = (['capacityVwc', 'wiltingVwc'] as const).filter((key) => soil[key] === null);
  if (needs.length > 0) return fail({ kind: 'unknown', needs });
  const wilting = soil.wiltingVwc ?? 0;
  const width = (soil.capacityVwc ?? 0) - wilting;
  return width > CONTENT_SIGMA ? ok({ wilting, width }) : fail({ kind: 'no-range' });
}
