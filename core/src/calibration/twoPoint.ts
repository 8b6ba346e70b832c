/**
 * Two references and a straight line: span percent, 0 at the dry reference and 100 at the wet one.
 *
 * The direction is never asked for. Most probes read LOWER in water and surprise everyone; here it follows from the references.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';

/** The part of a captured reference that the sums need. */
export type ReferenceValue = { readonly rawCounts: number; readonly noiseCounts: number };

export type TwoPoint = {
  readonly dryCounts: number;
  readonly wetCounts: number;
  /** `falling`: more water means a lower number. */
  readonly direction: 'falling' | 'rising';
  /** Distance of the references, raw counts, > 0. */
  readonly spanCounts: number;
  /** The larger of the two references' noise, at least one converter step, raw counts. */
  readonly noiseCounts: number;
};

export type TwoPointIssue =
  | { readonly kind: 'not-finite'; readonly at: 'dry' | 'wet' }
  | {
      readonly kind: 'too-close';
      readonly spanCounts: number;
      readonly neededCounts: number;
      readonly noiseCounts: number;
    };

/** References closer than this many times the noise cannot carry a scale: each percent would be noise. */
export const LEAST_SPAN_IN_NOISE = 10;
/** No stream is calmer than its converter's step; a motionless one would otherwise count as noiseless. */
const LEAST_NOISE_COUNTS = 1;

/** Fits the line, or says why there is none. References exactly ten times the noise apart are accepted. */
export function fitTwoPoint(dry: ReferenceValue, wet: ReferenceValue): Result<TwoPoint, TwoPointIssue> {
  for (const [at, reference] of [
    ['dry', dry],
    ['wet', wet],
  ] as const) {
    if (!Number.isFinite(reference.rawCounts) || !Number.isFinite(reference.noiseCounts))
      return fail({ kind: 'not-finite', at });
  }
  const noiseCounts = Math.max(dry.noiseCounts, wet.noiseCounts, LEAST_NOISE_COUNTS);
  const spanCounts = Math.abs(wet.rawCounts - dry.rawCounts);
  const neededCounts = LEAST_SPAN_IN_NOISE * noiseCounts;
  if (spanCounts < neededCounts) return fail({ kind: 'too-close', spanCounts, neededCounts, noiseCounts });
  return ok({
    dryCounts: dry.rawCounts,
    wetCounts: wet.rawCounts,
    direction: wet.rawCounts < dry.rawCounts ? 'falling' : 'rising',
    spanCounts,
    noiseCounts,
  });
}

export type SpanReading = {
  /** 0..100, clamped to the references. */
  readonly percent: number;
  /** How far the raw value lies outside the references, raw counts; 0 inside. */
  readonly beyondCounts: number;
  readonly clampedAt: 'dry' | 'wet' | null;
};

/** Span percent of a raw value; outside the references it is clamped, and says at which one and by how much. */
export function spanReading(fit: TwoPoint, rawCounts: number): SpanReading {
  const share = (fit.dryCounts - rawCounts) / (fit.dryCounts - fit.wetCounts);
  const clampedAt = share < 0 ? 'dry' : share > 1 ? 'wet' : null;
  const reference = clampedAt === 'dry' ? fit.dryCounts : fit.wetCounts;
  return {
    percent: 100 * Math.min(1, Math.max(0, share)),
    beyondCounts: clampedAt ? Math.abs(rawCounts - reference) : 0,
    clampedAt,
  };
}

/** The raw value that stands for a span percent: the inverse line, not rounded. */
export const countsAtPercent = (fit: TwoPoint, percent: number): number =>
  fit.dryCounts + (percent / 100) * (fit.wetCounts - fit.dryCounts);

/** What a stretch of raw counts is worth in span percent. */
export const percentOfCounts = (fit: TwoPoint, counts: number): number => (100 * counts) / fit.spanCounts;

const LINE_SOURCE = 'Straight line through the two references; span percent is comparable only with itself.';

/** Span percent of a raw value, with its working. */
export function workSpanPercent(fit: TwoPoint, rawCounts: number, noiseCounts: number): Worked {
  const reading = spanReading(fit, rawCounts);
  const line = step(
    {
      name: 'span percent',
      unit: '% span',
      decimals: 1,
      formula: '({dry} − {now}) ÷ ({dry} − {wet}) × 100',
      inputs: {
        dry: input('dry reference', fit.dryCounts, 'counts'),
        now: input('reading now', rawCounts, 'counts'),
        wet: input('wet reference', fit.wetCounts, 'counts'),
      },
    },
    ({ dry, now, wet }) => ((dry - now) / (dry - wet)) * 100,
  );
  const clamp = step(
    {
      name: 'kept within the references',
      unit: '% span',
      decimals: 1,
      formula: 'between 0 and 100: {percent}',
      inputs: { percent: input('span percent', line.value, '%', 1) },
    },
    ({ percent }) => Math.min(100, Math.max(0, percent)),
  );
  const noise = percentOfCounts(fit, Math.max(noiseCounts, 0));
  return worked('Moisture now', reading.clampedAt ? [line, clamp] : [line], {
    source: LINE_SOURCE,
    note: reading.clampedAt
      ? `Clamped: the reading lies ${Math.round(reading.beyondCounts)} counts beyond the ${reading.clampedAt} reference.`
      : `Noise of single readings is worth ± ${noise.toFixed(1)} % span here.`,
    wouldChange: 'Another dry or wet reference, another supply voltage or another board.',
  });
}

/** A limit in raw counts, with its working: the number that the board compares. */
export function workLimitCounts(fit: TwoPoint, title: string, percent: number): Worked {
  const counts = step(
    {
      name: 'limit in raw counts',
      unit: 'counts',
      formula: '{dry} + {percent} ÷ 100 × ({wet} − {dry})',
      inputs: {
        dry: input('dry reference', fit.dryCounts, 'counts'),
        percent: input(title.toLowerCase(), percent, '% span', 1),
        wet: input('wet reference', fit.wetCounts, 'counts'),
      },
    },
    ({ dry, percent: share, wet }) => dry + (share / 100) * (wet - dry),
  );
  return worked(title, [counts], {
    source: LINE_SOURCE,
    note: 'The board compares raw counts, so the limit stands in both scales.',
    wouldChange: 'A new calibration moves the raw counts; the percent stays.',
  });
}

/** Distance of the references and what one percent is worth, with the working. */
export function workSpan(fit: TwoPoint): Worked {
  const span = step(
    {
      name: 'span',
      unit: 'counts',
      formula: '|{wet} − {dry}|',
      inputs: {
        wet: input('wet reference', fit.wetCounts, 'counts'),
        dry: input('dry reference', fit.dryCounts, 'counts'),
      },
    },
    ({ wet, dry }) => Math.abs(wet - dry),
  );
  const perPercent = step(
    {
      name: 'counts per percent',
      unit: 'counts per % span',
      decimals: 1,
      formula: '{span} ÷ 100',
      inputs: { span: input('span', span.value, 'counts') },
    },
    ({ span: counts }) => counts / 100,
  );
  return worked('Counts per percent', [span, perPercent], {
    source: LINE_SOURCE,
    note: `The references must be at least ${LEAST_SPAN_IN_NOISE} times the noise apart: ${Math.ceil(LEAST_SPAN_IN_NOISE * fit.noiseCounts)} counts here.`,
    wouldChange: 'A probe with more span, or a calmer signal.',
  });
}
