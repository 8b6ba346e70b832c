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
  /** How long all of them spoke, minutes. */
  readonly minutes: number;
};

export type ComparisonIssue =
  | { readonly kind: 'too-few' }
  | { readonly kind: 'too-short'; readonly hours: number; readonly neededHours: number };

const MINUTE_MS = 60_000;
const LEAST_HOURS = 4;

/** Usual time between two readings of a log, ms; 0 for fewer than two. */
function usualGapMs({ timesMs }: Stretch): number {
  const gaps = [...timesMs].slice(1).map((timeMs, at) => timeMs - (timesMs[at] ?? 0));
  return gaps.length > 0 ? medianOf(gaps) : 0;
}

/** Means of each slot of time, by its number. */
function bySlot({ timesMs, values }: Stretch, slotMs: number): Map<number, number> {
  const sums = new Map<number, { sum: number; count: number }>();
  for (const [at, timeMs] of timesMs.entries()) {
    const slot = Math.floor(timeMs / slotMs);
    const held = sums.get(slot) ?? { sum: 0, count: 0 };
    sums.set(slot, { sum: held.sum + (values[at] ?? 0), count: held.count + 1 });
  }
  return new Map([...sums].map(([slot, { sum, count }]) => [slot, sum / count]));
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
  // A log of one reading each ten minutes is compared by ten minutes.
  const slotMs = Math.max(MINUTE_MS, ...series.map((one) => usualGapMs(one.stretch)));
  const means = series.map((one) => ({ id: one.id, at: bySlot(one.stretch, slotMs) }));
  const trusted = byId(means, trustedId);
  const [first, ...others] = means;
  const common = [...(first?.at.keys() ?? [])].filter((slot) => others.every((one) => one.at.has(slot)));
  // Counted slot by slot: two hours in the evening and one in the morning are no night.
  const minutes = (common.length * slotMs) / MINUTE_MS;
  const hours = minutes / 60;
  if (hours < LEAST_HOURS)
    return { ok: false, issue: { kind: 'too-short', hours, neededHours: LEAST_HOURS } };
  const reference = common.map((slot) =>
    trusted ? (trusted.at.get(slot) ?? 0) : medianOf(means.map((one) => one.at.get(slot) ?? 0)),
  );
  const value = means.map(({ id, at }): Compared => {
    const differences = common.map((slot, place) => (at.get(slot) ?? 0) - (reference[place] ?? 0));
    const meanC = differences.reduce((sum, one) => sum + one, 0) / differences.length;
    const square = differences.reduce((sum, one) => sum + (one - meanC) ** 2, 0);
    const sigma = Math.sqrt(square / Math.max(1, differences.length - 1));
    return { id, meanC, withinC: 1.96 * sigma, offsetC: -meanC, minutes };
  });
  return { ok: true, value };
}
