/** Waterings on a chart of time. */
import { formatNumber, formatVolume } from '../quantity/format.ts';
import type { GardenEvent } from './event.ts';

export type WateringMark = {
  readonly atMs: number;
  /** Empty where a newer mark speaks for it. */ readonly label: string;
};

/** Share of a chart's width that the words of a mark need. */
const LEAST_APART = 0.14;

/**
 * Waterings as marks. Those that lie too near together for words of their own share those of the newest: what was given in all, in how many times.
 * @param spanMs length of the chart
 */
export function wateringMarks(events: readonly GardenEvent[], spanMs: number): WateringMark[] {
  const waterings = events
    .flatMap((event) =>
      event.kind === 'pump-stopped' || event.kind === 'poured'
        ? [{ atMs: event.atMs, volumeMl: event.volumeMl }]
        : [],
    )
    .toSorted((a, b) => b.atMs - a.atMs);
  const groups: { atMs: number; volumeMl: number }[][] = [];
  for (const watering of waterings) {
    const group = groups.at(-1);
    const newest = group?.[0];
    if (group && newest && newest.atMs - watering.atMs < spanMs * LEAST_APART) group.push(watering);
    else groups.push([watering]);
  }
  return groups.flatMap((group) => {
    const given = formatVolume(group.reduce((sum, { volumeMl }) => sum + volumeMl, 0));
    const words = group.length === 1 ? given : `${given} in ${formatNumber(group.length)}`;
    return group.map(({ atMs }, at) => ({ atMs, label: at === 0 ? words : '' }));
  });
}
