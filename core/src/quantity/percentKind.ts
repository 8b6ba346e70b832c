/**
 * What "percent" can mean. A bare % is never shown: the short label stands next to every one of them.
 * The slice knows span and factory percent; the kinds that need soil weights come with their methods.
 */
export const PERCENT_KINDS = {
  span: {
    short: 'span',
    long: 'Span percent: 0 is the dry reference, 100 the wet one. Comparable only with itself.',
  },
} as const;

export type PercentKind = keyof typeof PERCENT_KINDS;
