/** The end of the scale. A last edge here leaves no room for “flooded”: what reads the end may be the end itself. */
const TOP = 1000;

/** Named stretches of a plot's scale. They tile it by construction: four edges, five bands, no gap and no overlap. */
export const BAND_NAMES = ['dry', 'low', 'right', 'wet', 'flooded'] as const;
export type BandName = (typeof BAND_NAMES)[number];

/** Two schools of words: five, or the target range alone. */
export const WORD_SCHOOLS = ['five', 'three'] as const;
export type WordSchool = (typeof WORD_SCHOOLS)[number];

/** A band as its school calls it. */
export const bandWord = (name: BandName, school: WordSchool): string =>
  school === 'five' ? name : THREE_WORDS[name];

const THREE_WORDS: Readonly<Record<BandName, string>> = {
  dry: 'too dry',
  low: 'too dry',
  right: 'good',
  wet: 'too wet',
  flooded: 'too wet',
};

/** Upper edges of dry, low, right and wet, tenths of a percent, rising. */
export type BandEdges = readonly [number, number, number, number];

export type Band = { readonly name: BandName; readonly fromTenths: number; readonly toTenths: number };

/** The scale of bands by feel, where a finger has given words and no percent: a rough order, no more. */
export const FEEL_EDGES: BandEdges = [200, 350, 700, 850];

/** The bands over 0..1000 tenths, dry to flooded; in the school of three the target range with one word on either side. */
export function bandsOf(edges: BandEdges, school: WordSchool = 'five'): readonly Band[] {
  if (school === 'three')
    return [
      { name: 'low', fromTenths: 0, toTenths: edges[1] },
      { name: 'right', fromTenths: edges[1], toTenths: edges[2] },
      { name: 'wet', fromTenths: edges[2], toTenths: TOP },
    ];
  const starts = [0, ...edges];
  const ends = [...edges, 1000];
  return BAND_NAMES.map((name, at) => ({ name, fromTenths: starts[at] ?? 0, toTenths: ends[at] ?? 1000 }));
}

/** The band of a moisture; an edge belongs to the wetter side, but for one at the end of the scale. */
export function bandAt(edges: BandEdges, tenths: number): BandName {
  const passed = edges.filter((edge) => (edge < TOP ? tenths >= edge : tenths > edge)).length;
  return BAND_NAMES[passed] ?? 'flooded';
}

export type EdgeIssue = { readonly kind: 'edge-order'; readonly at: number; readonly leastTenths: number };

/** Least width of a band, tenths of a percent: narrower ones would flicker with the noise. */
export const LEAST_BAND_TENTHS = 10;

/** Least width of a band under a noise: a reading may stray by it to either side. @param noiseTenths ≥ 0 */
export const leastBandTenths = (noiseTenths: number): number =>
  Math.max(LEAST_BAND_TENTHS, Math.ceil(2 * noiseTenths));

/** Edges must rise by at least the least width, within 0..1000; the last may stand at the end. Null when they do. `at` is the first edge that does not. */
export function checkEdges(edges: BandEdges, noiseTenths = 0): EdgeIssue | null {
  const width = leastBandTenths(noiseTenths);
  const all = edges[3] === TOP ? [0, ...edges] : [0, ...edges, TOP];
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
    const most = TOP - (wanted.length - 1 - at) * LEAST_BAND_TENTHS;
    const near = Math.min(most, Math.max(least, Math.round(edge)));
    // Between the end and a band's width below it there is no place for the last edge.
    kept.push(at === 3 && near > TOP - LEAST_BAND_TENTHS ? TOP : near);
  }
  const [dry = 0, low = 0, right = 0, wet = 0] = kept;
  return checkEdges([dry, low, right, wet]) ? FEEL_EDGES : [dry, low, right, wet];
}

/** What is known of the scale beside its limits, tenths; null where nothing is. */
export type ScaleMarks = {
  /** Where plants wilt, and what the soil holds after it has drained. */
  readonly wiltingTenths: number | null;
  readonly capacityTenths: number | null;
};

/**
 * The words that two limits give: right between them, wet from stop to capacity, flooded above; below start it is low, and dry from half way to where plants wilt.
 * Where nobody knows the capacity, flooded begins half way from stop to the end of the scale.
 */
export function edgesByLimits(startTenths: number, stopTenths: number, marks: ScaleMarks): BandEdges {
  const { wiltingTenths: wilting, capacityTenths: capacity } = marks;
  const floor = wilting !== null && wilting < startTenths ? Math.max(0, wilting) : 0;
  const flooded = capacity !== null && capacity > stopTenths ? capacity : (stopTenths + TOP) / 2;
  return edgesNear([(floor + startTenths) / 2, startTenths, stopTenths, flooded]);
}

/** Moves one edge to a place, as far as its neighbours let it: for dragging and keys, where nothing may be refused. */
export function moveEdge(edges: BandEdges, at: number, toTenths: number, noiseTenths: number): BandEdges {
  const width = leastBandTenths(noiseTenths);
  const all = [0, ...edges, TOP];
  const least = (all[at] ?? 0) + width;
  const most = (all[at + 2] ?? TOP) - width;
  if (most < least) return edges;
  const moved = [...edges];
  const isAtEnd = at === 3 && toTenths > TOP - width / 2;
  moved[at] = isAtEnd ? TOP : Math.min(most, Math.max(least, Math.round(toTenths)));
  const [dry = 0, low = 0, right = 0, wet = 0] = moved;
  return [dry, low, right, wet];
}
