/** Bands by feel: raw values at which a finger found the soil dry, low, right, wet or flooded. No percent is claimed beyond an order. */
import {
  BAND_NAMES,
  bandsOf,
  FEEL_EDGES,
  LEAST_BAND_TENTHS,
  type BandEdges,
  type BandName,
} from '../quantity/bands.ts';

export type Felt = { readonly counts: number; readonly felt: BandName };

export type Feel = {
  /** Raw cut-offs between neighbouring feelings, dry first; null where one of the two was never felt. */
  readonly cuts: readonly (number | null)[];
  /** Findings that lie on the wrong side of a cut: a finger is no meter. */
  readonly astray: number;
};

/** Dry is 0, flooded 4. */
export const rankOf = (felt: BandName | undefined): number => (felt ? BAND_NAMES.indexOf(felt) : -1);

/** Of all pairs of different words at different numbers, so many more must go one way than the other, share. */
const LEAST_ORDER = 0.5;

/**
 * Which way the numbers run as the finger has it; null with fewer than two different words, or where they go neither way: then nothing can be cut.
 * Source: Goodman & Kruskal 1954 (agreeing less disagreeing pairs).
 */
export function directionByFeel(found: readonly Felt[]): 'falling' | 'rising' | null {
  let up = 0;
  let down = 0;
  for (const [at, one] of found.entries())
    for (const other of found.slice(at + 1)) {
      const way = (one.counts - other.counts) * (rankOf(one.felt) - rankOf(other.felt));
      if (way > 0) up += 1;
      if (way < 0) down += 1;
    }
  if (up + down === 0 || Math.abs(up - down) / (up + down) < LEAST_ORDER) return null;
  return up > down ? 'rising' : 'falling';
}

/** Where a word stands on the scale as long as nobody has moved the bands: the middle of its band, percent. */
export function middleOfBand(name: BandName): number {
  const band = bandsOf(FEEL_EDGES).find((one) => one.name === name);
  return band ? (band.fromTenths + band.toTenths) / 20 : 50;
}

/** Cut-offs that put the fewest findings on the wrong side; in the middle of the gap where several do equally well. */
export function cutsByFeel(found: readonly Felt[], direction: 'falling' | 'rising'): Feel {
  const sign = direction === 'falling' ? -1 : 1;
  const wetness = found
    .map((one) => ({ at: sign * one.counts, rank: rankOf(one.felt) }))
    .sort((a, b) => a.at - b.at);
  const present = new Set(wetness.map((one) => one.rank));
  const cuts: (number | null)[] = [];
  let astray = 0;
  for (let edge = 1; edge < BAND_NAMES.length; edge += 1) {
    const hasBoth = [...present].some((one) => one < edge) && present.has(edge);
    if (!hasBoth) {
      cuts.push(null);
      continue;
    }
    const wrongAt = (cut: number) =>
      wetness.filter((one) => (one.rank < edge ? one.at > cut : one.at <= cut)).length;
    const middles = wetness.slice(1).map((one, at) => (one.at + (wetness[at]?.at ?? one.at)) / 2);
    const fewest = Math.min(...middles.map(wrongAt));
    const best = middles.filter((cut) => wrongAt(cut) === fewest);
    astray += fewest;
    cuts.push(sign * ((Math.min(...best) + Math.max(...best)) / 2));
  }
  return { cuts, astray };
}

/** The cuts as band edges on a scale; edges that were never felt keep what they were, and all keep their distance. */
export function edgesByFeel(
  cuts: readonly (number | null)[],
  tenthsAt: (counts: number) => number,
  before: BandEdges,
): BandEdges {
  const wanted = before.map((edge, at) => {
    const cut = cuts[at];
    return cut === null || cut === undefined ? edge : Math.round(tenthsAt(cut));
  });
  const edges: number[] = [];
  for (const [at, edge] of wanted.entries()) {
    const least = (edges[at - 1] ?? 0) + LEAST_BAND_TENTHS;
    const most = 1000 - (wanted.length - at) * LEAST_BAND_TENTHS;
    edges.push(Math.min(most, Math.max(least, edge)));
  }
  const [a = 0, b = 0, c = 0, d = 0] = edges;
  return [a, b, c, d];
}
