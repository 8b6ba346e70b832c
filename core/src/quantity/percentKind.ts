/** What "percent" can mean. A bare % is never shown: the short label stands next to every one of them. */
export const PERCENT_KINDS = {
  span: {
    short: 'span',
    long: 'Span percent: 0 is the dry reference, 100 the wet one. Comparable only with itself.',
  },
  gravimetric: {
    short: 'GWC',
    long: 'Gravimetric water content: mass of the water per mass of the oven-dry soil.',
  },
  volumetric: {
    short: 'VWC',
    long: 'Volumetric water content: volume of the water per volume of the soil.',
  },
  available: {
    short: 'available',
    long: 'Available water: 0 is where the plant wilts, 100 is what this soil holds after it has drained.',
  },
  tension: {
    short: 'kPa',
    long: 'Soil water tension: how hard roots must pull, kPa (the same number as cbar). 0 is saturated; the drier, the higher.',
  },
  switch: {
    short: 'dry or wet',
    long: 'Dry or wet: the comparator only says on which side of its screw the soil is.',
  },
  counts: {
    short: 'counts',
    long: 'Raw counts alone, and no percent: two cut-offs say when to water and when it is enough.',
  },
  factory: {
    short: 'factory',
    long: 'Factory percent: what the probe itself says. Its maker’s curve decides; check it against one or two points.',
  },
} as const;

export type PercentKind = keyof typeof PERCENT_KINDS;
export const PERCENT_KIND_IDS = Object.keys(PERCENT_KINDS) as [PercentKind, ...PercentKind[]];

/** Kinds whose percent only serves to reckon with: a person sees the probe's own number, or a word. */
export const isShownRaw = (kind: PercentKind): boolean =>
  kind === 'tension' || kind === 'switch' || kind === 'counts';

/** "% span": the unit as it stands behind a number. */
export const percentUnit = (kind: PercentKind): string =>
  isShownRaw(kind) ? PERCENT_KINDS[kind].short : `% ${PERCENT_KINDS[kind].short}`;

/** What a percent stands on: its kind, and between which raw values it runs straight. */
export type PercentScale = {
  readonly percentKind: PercentKind;
  readonly dryCounts: number;
  readonly wetCounts: number;
  readonly dryPercent: number;
  readonly wetPercent: number;
};

/** The tension that stands behind a percent, kPa: it rises as the soil dries. */
export const tensionOf = (percent: number): number => 100 - percent;

/** Raw counts that a percent of a straight scale is worth; below zero where they fall as it gets wetter. */
export const countsPerPercent = (scale: PercentScale): number =>
  (scale.wetCounts - scale.dryCounts) / (scale.wetPercent - scale.dryPercent);

/** The raw value that stands behind a percent where raw counts decide alone. */
export const shownCounts = (scale: PercentScale, percent: number): number =>
  scale.dryCounts + (percent - scale.dryPercent) * countsPerPercent(scale);

/** Whether the number that a person sees rises as the soil dries: water is given above a limit then, not below it. */
export const risesDrying = (scale: PercentScale): boolean =>
  scale.percentKind === 'tension' || (scale.percentKind === 'counts' && scale.dryCounts > scale.wetCounts);
