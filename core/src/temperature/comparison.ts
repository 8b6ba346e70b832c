/**
 * Several thermometers side by side for a night: what each is off by, and how much they scatter about one another. In the shade and without sun they
 * should all say the same; what remains is theirs. Offsets are against the middle of all, or against a trusted one among them.
 * Source: the mean difference and its limits of agreement, Bland & Altman 1986.
 */
import { byId } from '../quantity/byId.ts';
import { medianOf } from '../signal/noise.ts';
import type { Stretch } from '../signal/streamBuffer.ts';

export type Compared = {
  readonly id: string;
  /** Mean difference from the reference, °C, and the half width that holds 95 % of the differences. */
  readonly meanC: number;
  readonly withinC: number;
  /** What to add so that it agrees. */
  readonly offsetC: number;
  readonly minutes: number;
};

export type ComparisonIssue =
  | { readonly kind: 'too-few' }
  | { readonly kind: 'too-short'; readonly hours: number; readonly neededHours: number };

const MINUTE_MS = 60_000;
const LEAST_HOURS = 4;

/** Means of each minute, by minute. */
function byMinute({ timesMs, values }: Stretch): Map<number, number> {
  const sums = new Map<number, { sum: number; count: number }>();
  for (const [at, timeMs] of timesMs.entries()) {
    const minute = Math.floor(timeMs / MINUTE_MS);
    const held = sums.get(minute) ?? { sum: 0, count: 0 };
    sums.set(minute, { sum: held.sum + (values[at] ?? 0), count: held.count + 1 });
  }
  return new Map([...sums].map(([minute, { sum, count }]) => [minute, sum / count]));
}

/**
 * @param series each thermometer's values over the same night, °C
 * @param trustedId the one that the others are to agree with; null: the middle of all
 * @returns an issue with fewer than two, or less than four hours of common time
 */
export function compareThermometers(
  series: readonly { readonly id: string; readonly stretch: Stretch }[],
  trustedId: string | null,
): { ok: true; value: readonly Compared[] } | { ok: false; issue: ComparisonIssue } {
  if (series.length < 2) return { ok: false, issue: { kind: 'too-few' } };
  const minutes = series.map((one) => ({ id: one.id, at: byMinute(one.stretch) }));
  const trusted = byId(minutes, trustedId);
  const [first, ...others] = minutes;
  const common = [...(first?.at.keys() ?? [])].filter((minute) => others.every((one) => one.at.has(minute)));
  // Counted minute by minute: two hours in the evening and one in the morning are no night.
  const hours = common.length / 60;
  if (hours < LEAST_HOURS)
    return { ok: false, issue: { kind: 'too-short', hours, neededHours: LEAST_HOURS } };
  const reference = common.map((minute) =>
    trusted ? (trusted.at.get(minute) ?? 0) : medianOf(minutes.map((one) => one.at.get(minute) ?? 0)),
  );
  const value = minutes.map(({ id, at }): Compared => {
    const differences = common.map((minute, place) => (at.get(minute) ?? 0) - (reference[place] ?? 0));
    const meanC = differences.reduce((sum, one) => sum + one, 0) / differences.length;
    const square = differences.reduce((sum, one) => sum + (one - meanC) ** 2, 0);
    const sigma = Math.sqrt(square / Math.max(1, differences.length - 1));
    return { id, meanC, withinC: 1.96 * sigma, offsetC: -meanC, minutes: common.length };
  });
  return { ok: true, value };
}
