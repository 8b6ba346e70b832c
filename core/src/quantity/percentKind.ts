/**
 * What "percent" can mean. A bare % is never shown: the short label stands next to every one of them.
 * The kinds that need soil weights come with their methods.
 */
export const PERCENT_KINDS = {
  span: {
    short: 'span',
    long: 'Span percent: 0 is the dry reference, 100 the wet one. Comparable only with itself.',
  },
  factory: {
    short: 'factory',
    long: 'Factory percent: what the probe itself says. Its maker’s curve decides; check it against one or two points.',
  },
} as const;

export type PercentKind = keyof typeof PERCENT_KINDS;
