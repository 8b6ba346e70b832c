/**
 * What the points of a calibration support by themselves, whichever curve was put through them: the best estimate of the percent at a raw value, and how far it may be off, cause by
 * cause. The ± of the curve in use is its own distance from that estimate and the estimate's own.
 *
 *     percent(x, T) = a + b·x + Σ bows + β·(T − T₀)
 *
 * a and b are free; how strongly probes bow away from a straight line, and what a degree is worth have a spread that was known before (`assumptions`), so a few points are neither believed blindly nor said to show nothing. Each prior is a row of its own beside the rows of the points, and the error of the
 * estimate is the sum of what each row is off by, times its share: so the parts add up to the whole exactly.
 * Points that define their scale (span percent) define the estimate too: straight between them, with nothing to bow.
 *
 * Source: Bishop 2006, Pattern Recognition and Machine Learning, 3.3 (Bayesian linear regression); JCGM 100:2008, 5.1.2 (propagation).
 */
import { inverseOf } from '../quantity/inverse.ts';
import { percentPerCount, type Curve } from './curve.ts';
import { pointSigma, type FitPoint } from './points.ts';

export type SupportSettings = {
  /** The points define the scale by themselves. */
  readonly isDefinition: boolean;
  /** Standard deviations: of the bow in the middle, percent; of the percent for a degree; of a temperature that nobody measured, °C. */
  readonly bendPercent: number;
  readonly driftPerDegree: number;
  readonly swingC: number;
};

/** Standard deviations of the estimate by cause, percent. */
export type SupportParts = {
  readonly repeatability: number;
  readonly unsettled: number;
  readonly known: number;
  readonly fit: number;
  readonly temperature: number;
};
export type Estimate = { readonly percent: number; readonly parts: SupportParts };

export type Support = {
  /** @param temperatureC of the soil; null where nobody measured it */
  readonly at: (counts: number, temperatureC: number | null) => Estimate;
  /** Mean temperature of the points, °C; null where none is known. */
  readonly atC: number | null;
  /** Percents between which a curve that does not turn back must stay at a raw value: those of the points next to it on either side. Null beyond the points. */
  readonly between: (counts: number) => { readonly low: number; readonly high: number } | null;
  /** How much more the points scatter than all that is said of them explains; 1 where they do not. */
  readonly excess: number;
};

/** The bows, over the way from the lowest to the highest raw value (0 to 1), each with its size beside the first: one arch, an S, a ripple. */
const BOWS: readonly { readonly of: (s: number) => number; readonly size: number }[] = [
  { of: (s) => 4 * s * (1 - s), size: 1 },
  { of: (s) => 10.392 * s * (1 - s) * (1 - 2 * s), size: 0.4 },
  { of: (s) => s * (1 - s) * Math.sin(3 * Math.PI * s) * 4, size: 0.12 },
];
/** No point is believed nearer than this share of the range. */
const LEAST_SIGMA_FRAC = 1e-4;
/** As many points as would have to speak before the scatter that was said of them is doubted by half. */
const TRUST_IN_SIGMA = 6;

export function supportOf(points: readonly FitPoint[], curve: Curve, settings: SupportSettings): Support {
  const known = points.flatMap((point) => (point.temperatureC === null ? [] : [point.temperatureC]));
  const atC = known.length === 0 ? null : known.reduce((sum, one) => sum + one, 0) / known.length;
  const seen = { points, curve, settings, atC, slopes: points.map((one) => slopeAt(curve, one.counts)) };
  const made = settings.isDefinition ? byDefinition(seen) : byWideEnough(seen);
  const sorted = [...points].sort((a, b) => a.counts - b.counts);
  return { ...made, atC, between: (counts) => neighbours(sorted, counts) };
}

const NEXT = 1;
function neighbours(sorted: readonly FitPoint[], counts: number) {
  const right = sorted.findIndex((one) => one.counts >= counts);
  if (right < 0 || (right === 0 && sorted[0]?.counts !== counts)) return null;
  const percents = sorted.slice(Math.max(0, right - NEXT), right + NEXT).map((one) => one.percent);
  return { low: Math.min(...percents), high: Math.max(...percents) };
}

type SeenPoints = {
  readonly points: readonly FitPoint[];
  readonly curve: Curve;
  readonly settings: SupportSettings;
  readonly atC: number | null;
  /** Percent for a count at each point. */
  readonly slopes: readonly number[];
};

/** A curve may lie flat where it ends; a count there is still worth something. */
const slopeAt = (curve: Curve, counts: number): number =>
  Math.max(percentPerCount(curve, counts), (0.25 * (curve.wetPercent - curve.dryPercent)) / curve.spanCounts);

/** How warm a point was, beside the mean; of an unknown one nothing but that it may be anywhere. */
const warmth = (temperatureC: number | null, atC: number | null) =>
  temperatureC === null || atC === null ? 0 : temperatureC - atC;

/** Shares of the points in the value straight between the two on either side. */
function between(sorted: readonly { readonly counts: number; readonly at: number }[], counts: number) {
  const found = sorted.findIndex((one) => one.counts >= counts);
  const right = Math.max(1, found < 0 ? sorted.length - 1 : found);
  const [a, b] = [sorted[right - 1], sorted[right]];
  if (!a || !b || a.counts === b.counts) return [];
  const share = (counts - a.counts) / (b.counts - a.counts);
  return [
    { at: a.at, share: 1 - share },
    { at: b.at, share },
  ];
}

function byDefinition({ points, settings, atC, slopes }: SeenPoints): Pick<Support, 'at' | 'excess'> {
  const sorted = points.map(({ counts }, at) => ({ counts, at })).sort((a, b) => a.counts - b.counts);
  const drift = settings.driftPerDegree;
  return {
    excess: 1,
    at: (counts, temperatureC) => {
      const shares = between(sorted, counts);
      const sum = (of: (point: FitPoint, slope: number) => number) =>
        shares.reduce((all, { at, share }) => {
          const point = points[at];
          return point ? all + share * of(point, slopes[at] ?? 0) : all;
        }, 0);
      const root = (of: (point: FitPoint, slope: number) => number) =>
        Math.hypot(
          ...shares.map(({ at, share }) => {
            const point = points[at];
            return point ? share * of(point, slopes[at] ?? 0) : 0;
          }),
        );
      const apart = warmth(temperatureC, atC) - sum((point) => warmth(point.temperatureC, atC));
      const unknown = root((point) => (point.temperatureC === null ? settings.swingC : 0));
      const own = temperatureC === null ? settings.swingC : 0;
      return {
        percent: sum((point) => point.percent),
        parts: {
          repeatability: root((point, slope) => slope * point.sigma.repeat),
          unsettled: root((point, slope) => slope * point.sigma.unsettled),
          known: root((point) => point.sigmaPercent),
          fit: 0,
          temperature: drift * Math.hypot(apart, unknown, own),
        },
      };
    },
  };
}

/** A probe that bends more than is usual shows it: where the points scatter more than they should, the bows are let loose step by step. */
const LOOSER = [2, 4];
const SCATTERS = 1.25;

function byWideEnough(seen: SeenPoints): Pick<Support, 'at' | 'excess'> {
  const { settings } = seen;
  let best = byRegression(seen);
  for (const times of LOOSER) {
    if (best.excess <= SCATTERS || settings.bendPercent === 0) return best;
    const looser = { ...settings, bendPercent: times * settings.bendPercent };
    best = byRegression({ ...seen, settings: looser });
  }
  return best;
}

function byRegression(seen: SeenPoints): Pick<Support, 'at' | 'excess'> {
  const { points, curve, settings, atC, slopes } = seen;
  const range = curve.wetPercent - curve.dryPercent;
  const counts = points.map((one) => one.counts);
  const low = Math.min(...counts);
  const width = Math.max(...counts) - low || 1;
  const together = Array.from(
    { length: Math.max(0, ...points.map((one) => one.common.length)) },
    (_, cause) => cause,
  );
  const bows = BOWS.map((bow) => ({ of: bow.of, sigma: bow.size * settings.bendPercent })).filter(
    (bow) => bow.sigma > 0,
  );
  const shapeAt = (raw: number) => {
    const s = (raw - low) / width;
    return [1, s, ...bows.map((bow) => bow.of(s))];
  };
  const unmeasured = settings.driftPerDegree * settings.swingC;
  const sigmas = points.map((point, at) =>
    Math.hypot(
      pointSigma(point, slopes[at] ?? 0),
      point.temperatureC === null ? unmeasured : 0,
      LEAST_SIGMA_FRAC * range,
    ),
  );
  const ofPoint = (point: FitPoint) => [...shapeAt(point.counts), warmth(point.temperatureC, atC)];
  const BEND_AT = 2;
  const DRIFT_AT = BEND_AT + bows.length;
  const priors = [
    ...bows.map((bow, at) => ({ column: BEND_AT + at, sigma: bow.sigma, cause: 'fit' as const })),
    {
      column: DRIFT_AT,
      sigma: Math.max(settings.driftPerDegree, 1e-6 * range),
      cause: 'temperature' as const,
    },
  ];
  const size = DRIFT_AT + 1;
  const rows = points.map(ofPoint);
  const matrix = Array.from({ length: size }, (_, i) =>
    Array.from({ length: size }, (_, j) =>
      rows.reduce(
        (sum, row, at) => sum + ((row[i] ?? 0) * (row[j] ?? 0)) / (sigmas[at] ?? 1) ** 2,
        i === j ? priors.reduce((sum, one) => (one.column === i ? sum + one.sigma ** -2 : sum), 0) : 0,
      ),
    ),
  );
  const inverse = inverseOf(matrix);
  if (!inverse) return nothingSure(range);
  const dot = (a: readonly number[], b: readonly number[]) =>
    a.reduce((sum, one, at) => sum + one * (b[at] ?? 0), 0);
  const right = Array.from({ length: size }, (_, i) =>
    rows.reduce(
      (sum, row, at) => sum + ((row[i] ?? 0) * (points[at]?.percent ?? 0)) / (sigmas[at] ?? 1) ** 2,
      0,
    ),
  );
  const mean = inverse.map((row) => dot(row, right));
  const squares =
    rows.reduce(
      (sum, row, at) => sum + (((points[at]?.percent ?? 0) - dot(row, mean)) / (sigmas[at] ?? 1)) ** 2,
      0,
    ) + priors.reduce((sum, one) => sum + ((mean[one.column] ?? 0) / one.sigma) ** 2, 0);
  const freedom = Math.max(0, points.length - 2);
  const excess = Math.sqrt(Math.max(1, (TRUST_IN_SIGMA + squares) / (TRUST_IN_SIGMA + freedom)));
  const drift = Math.hypot(mean[DRIFT_AT] ?? 0, Math.sqrt(inverse[DRIFT_AT]?.[DRIFT_AT] ?? 0));
  return {
    excess,
    at: (raw, temperatureC) => {
      const asked = [...shapeAt(raw), warmth(temperatureC, atC)];
      const carried = inverse.map((row) => dot(row, asked));
      const shares = rows.map((row, at) => dot(row, carried) / (sigmas[at] ?? 1) ** 2);
      const ofPoints = (of: (point: FitPoint, slope: number) => number) =>
        Math.hypot(...points.map((point, at) => (shares[at] ?? 0) * of(point, slopes[at] ?? 0)));
      // What all points share moves them all at once, and they cannot tell of it.
      const sharedBy = (cause: number) =>
        points.reduce((sum, point, at) => sum + (shares[at] ?? 0) * (point.common[cause] ?? 0), 0);
      const ofPriors = (cause: (typeof priors)[number]['cause']) =>
        Math.hypot(
          ...priors.map((one) => (one.cause === cause ? (carried[one.column] ?? 0) / one.sigma : 0)),
        );
      return {
        percent: dot(asked, mean),
        parts: {
          repeatability: excess * ofPoints((point, slope) => slope * point.sigma.repeat),
          unsettled: ofPoints((point, slope) => slope * point.sigma.unsettled),
          known: Math.hypot(
            excess * ofPoints((point) => point.sigmaPercent),
            ...together.map((cause) => sharedBy(cause)),
          ),
          fit: excess * ofPriors('fit'),
          temperature: Math.hypot(
            ofPriors('temperature'),
            ofPoints((point) => (point.temperatureC === null ? unmeasured : 0)),
            temperatureC === null ? drift * settings.swingC : 0,
          ),
        },
      };
    },
  };
}

/** Points that cannot be told from each other support nothing. */
const nothingSure = (range: number): Pick<Support, 'at' | 'excess'> => ({
  excess: 1,
  at: () => ({
    percent: Number.NaN,
    parts: { repeatability: 0, unsettled: 0, known: 0, fit: range, temperature: 0 },
  }),
});
