/** Named stretches of a plot's scale. They tile it by construction: four edges, five bands, no gap and no overlap. */
export const BAND_NAMES = ['dry', 'low', 'right', 'wet', 'flooded'] as const;
export type BandName = (typeof BAND_NAMES)[number];

/** Upper edges of dry, low, right and wet, tenths of a percent, rising. */
export type BandEdges = readonly [number, number, number, number];

export type Band = { readonly name: BandName; readonly fromTenths: number; readonly toTenths: number };

/**
 * A cautious start for span percent when nothing is known about plant and soil; it claims no more than a rough order.
 * Span percent is not plant-available water: the person is asked to look at the plant and move the edges.
 */
export const DEFAULT_EDGES: BandEdges = [200, 350, 700, 850];

/** The five bands, dry to flooded, over 0..1000 tenths. */
export function bandsOf(edges: BandEdges): readonly Band[] {
  const starts = [0, ...edges];
  const ends = [...edges, 1000];
  return BAND_NAMES.map((name, at) => ({ name, fromTenths: starts[at] ?? 0, toTenths: ends[at] ?? 1000 }));
}

/** The band of a moisture; an edge belongs to the wetter side. */
export function bandAt(edges: BandEdges, tenths: number): BandName {
  const passed = edges.filter((edge) => tenths >= edge).length;
  return BAND_NAMES[passed] ?? 'flooded';
}

export type EdgeIssue = { readonly kind: 'edge-order'; readonly at: number; readonly leastTenths: number };

/** Least width of a band, tenths of a percent: narrower ones would flicker with the noise. */
export const LEAST_BAND_TENTHS = 20;

/** Least width of a band under a noise: a reading may stray by it to either side. @param noiseTenths ≥ 0 */
export const leastBandTenths = (noiseTenths: number): number =>
  Math.max(LEAST_BAND_TENTHS, Math.ceil(2 * noiseTenths));

/** Edges must rise by at least the least width, within 0..1000; null when they do. `at` is the first edge that does not. */
export function checkEdges(edges: BandEdges, noiseTenths = 0): EdgeIssue | null {
  const width = leastBandTenths(noiseTenths);
  const all = [0, ...edges, 1000];
  for (let at = 1; at < all.length; at += 1) {
    const leastTenths = (all[at - 1] ?? 0) + width;
    if (!((all[at] ?? 0) >= leastTenths)) return { kind: 'edge-order', at: Math.min(at - 1, 3), leastTenths };
  }
  return null;
}

/** Four edges as near to those wanted as the least width of a band lets them, tenths. */
export function edgesNear(wanted: BandEdges): BandEdges {
  const kept: number[] = [];
  for (const [at, edge] of wanted.entries()) {
    const least = (kept[at - 1] ?? 0) + LEAST_BAND_TENTHS;
    kept.push(Math.min(1000 - (wanted.length - at) * LEAST_BAND_TENTHS, Math.max(least, edge)));
  }
  const [dry = 0, low = 0, right = 0, wet = 0] = kept;
  return checkEdges([dry, low, right, wet]) ? DEFAULT_EDGES : [dry, low, right, wet];
}

/** How far beyond a cut-off the words “dry” and “flooded” begin, tenths: about half of the usual way between the two. */
const BEYOND_CUT_OFF = 140;

/** The words that two cut-offs give: right between them, low and wet beyond them, and far beyond them dry and flooded. */
export const edgesByCutOffs = (startTenths: number, stopTenths: number): BandEdges =>
  edgesNear([startTenths - BEYOND_CUT_OFF, startTenths, stopTenths, stopTenths + BEYOND_CUT_OFF]);

/** Moves one edge to a place, as far as its neighbours let it: for dragging and keys, where nothing may be refused. */
export function moveEdge(edges: BandEdges, at: number, toTenths: number, noiseTenths: number): BandEdges {
  const width = leastBandTenths(noiseTenths);
  const all = [0, ...edges, 1000];
  const least = (all[at] ?? 0) + width;
  const most = (all[at + 2] ?? 1000) - width;
  if (most < least) return edges;
  const moved = [...edges];
  moved[at] = Math.min(most, Math.max(least, Math.round(toTenths)));
  const [dry = 0, low = 0, right = 0, wet = 0] = moved;
  return [dry, low, right, wet];
}
