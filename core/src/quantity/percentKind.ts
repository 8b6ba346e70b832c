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
  factory: {
    short: 'factory',
    long: 'Factory percent: what the probe itself says. Its maker’s curve decides; check it against one or two points.',
  },
} as const;

export type PercentKind = keyof typeof PERCENT_KINDS;
export const PERCENT_KIND_IDS = Object.keys(PERCENT_KINDS) as [PercentKind, ...PercentKind[]];

/** Kinds whose percent only serves to reckon with: a person sees the probe's own number, or a word. */
export const isShownRaw = (kind: PercentKind): boolean => kind === 'tension' || kind === 'switch';

/** "% span": the unit as it stands behind a number. */
export const percentUnit = (kind: PercentKind): string =>
  isShownRaw(kind) ? PERCENT_KINDS[kind].short : `% ${PERCENT_KINDS[kind].short}`;

/** The number that a person sees for a percent: of a tension its kPa, which rises as the soil dries; else the percent itself. */
export const shownPercent = (kind: PercentKind, percent: number): number =>
  kind === 'tension' ? 100 - percent : percent;
