/** How a piece of text reads as a number; boards print decimal points, people's files sometimes decimal commas. */
export type NumberText =
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'not-finite' }
  | { readonly kind: 'decimal-comma' }
  | { readonly kind: 'not-a-number' };

const NUMBER = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i;
const NOT_FINITE = /^[+-]?(?:nan|inf|infinity)$/i;
const DECIMAL_COMMA = /^[+-]?\d+,\d+$/;

/**
 * Reads one number, strictly: no hex, no grouping, nothing behind it. Too large to hold (1e309) is `not-finite`.
 */
export function readNumber(text: string): NumberText {
  const trimmed = text.trim();
  if (NUMBER.test(trimmed)) {
    const value = Number(trimmed);
    return Number.isFinite(value) ? { kind: 'number', value } : { kind: 'not-finite' };
  }
  if (NOT_FINITE.test(trimmed)) return { kind: 'not-finite' };
  if (DECIMAL_COMMA.test(trimmed)) return { kind: 'decimal-comma' };
  return { kind: 'not-a-number' };
}
