/** How a table writes its numbers: which mark stands before the decimals, and which parts thousands. */

export type Decimal = '.' | ',';

/** Words and signs that stand where nothing was measured. */
const NOTHING =
  /^(?:|n\/?a|nan|nil|null|none|no data|missing|err(?:or)?|unavailable|unknown|-+|–|—|\?+|\.)$/i;

export const isNothing = (cell: string): boolean => NOTHING.test(cell.trim());

const POINTED = /^[+-]?(?:\d{1,3}(?:[,\s'’\u00a0\u202f]\d{3})+|\d+)?(?:\.\d*)?$/;
const COMMAED = /^[+-]?(?:\d{1,3}(?:[.\s'’\u00a0\u202f]\d{3})+|\d+)?(?:,\d*)?$/;
const SCIENCE = /^[+-]?\d+(?:[.,]\d+)?e[+-]?\d{1,3}$/i;
const WITH_UNIT =
  /^([+-]?[\d.,'’ \u00a0\u202f]*\d(?:e[+-]?\d{1,3})?)\s*([%°a-zµμΩ][^\d]*(?:\/[a-z0-9]+)?)?$/i;

/** A cell's number as text, and the unit that stands behind it; null for what is no number by any mark. */
export function splitUnit(cell: string): { readonly number: string; readonly unit: string } | null {
  // A typeset minus is one.
  const found = cell.length > 40 ? null : WITH_UNIT.exec(cell.trim().replace('\u2212', '-'));
  return found ? { number: (found[1] ?? '').trim(), unit: (found[2] ?? '').trim() } : null;
}

/** The number of a cell without its unit; null for a text that is none under this mark. */
export function numberBy(number: string, decimal: Decimal): number | null {
  const isForm = (decimal === '.' ? POINTED : COMMAED).test(number);
  if (!/\d/.test(number) || !(isForm || SCIENCE.test(number))) return null;
  const plain =
    decimal === '.' ? number.replaceAll(/[,\s'’]/g, '') : number.replaceAll(/[.\s'’]/g, '').replace(',', '.');
  const value = Number(plain);
  return Number.isFinite(value) ? value : null;
}

export type DecimalVerdict =
  | { readonly kind: 'sure'; readonly decimal: Decimal }
  /** Every number reads as thousands under one mark and as thousandths under the other. */
  | { readonly kind: 'unsure'; readonly example: string }
  /** The same in both: whole numbers. */
  | { readonly kind: 'either' };

/**
 * The decimal mark of a table's numbers.
 * @param numbers cells without their units, of columns that hold numbers @param isCommaSeparated the table's own separator is the comma
 */
export function decimalOf(numbers: readonly string[], isCommaSeparated: boolean): DecimalVerdict {
  const readable = (decimal: Decimal) => numbers.filter((one) => numberBy(one, decimal) !== null).length;
  const [pointed, commaed] = [readable('.'), readable(',')];
  if (pointed !== commaed) return { kind: 'sure', decimal: pointed > commaed ? '.' : ',' };
  const unlike = numbers.filter((one) => numberBy(one, '.') !== numberBy(one, ','));
  const [example] = unlike;
  if (example === undefined) return { kind: 'either' };
  // Whoever parts cells by commas writes decimals with a point, unless the cells say otherwise.
  if (isCommaSeparated && unlike.every((one) => !one.includes(','))) return { kind: 'sure', decimal: '.' };
  const mark: Decimal = example.includes('.') ? '.' : ',';
  const isThousandth = unlike.some((one) => /^[+-]?0[.,]/.test(one));
  // Beside a number of four digits without a mark nobody parts thousands.
  const isUnparted = numbers.some((one) => /^[+-]?\d{4,}(?:$|[.,])/.test(one));
  return isThousandth || isUnparted ? { kind: 'sure', decimal: mark } : { kind: 'unsure', example };
}
