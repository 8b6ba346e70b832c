import { percentUnit, shownCounts, tensionOf, type PercentKind, type PercentScale } from './percentKind.ts';

/** Narrow no-break space: digits group without ever wrapping in the middle of a number. */
const GROUP = '\u202f';
/** A true minus sign, as wide as a digit in a tabular face. */
const MINUS = '−';

/**
 * A number as people read it: grouped in threes from four digits up, fixed decimals, a true minus, no "-0".
 *
 * @param decimals 0..6
 * @returns "–" when the value is not finite: a wrong number that looks right costs most.
 */
export function formatNumber(value: number, decimals = 0): string {
  if (!Number.isFinite(value)) return '–';
  const fixed = Math.abs(value).toFixed(decimals);
  const [whole = '', fraction] = fixed.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, GROUP);
  const negative = value < 0 && Number(fixed) !== 0;
  return `${negative ? MINUS : ''}${grouped}${fraction === undefined ? '' : `.${fraction}`}`;
}

/** Raw counts: whole when the board sends whole numbers, else up to three decimals (a board may print volts). */
export function formatCounts(counts: number): string {
  if (Number.isInteger(counts)) return formatNumber(counts);
  const decimals = Math.abs(counts) >= 100 ? 1 : 3;
  return formatNumber(counts, decimals);
}

/**
 * A percent as "31.4 % span"; a tension as "35.0 kPa", raw counts as "3 000 counts", a switch as the side it is on.
 * @param of its scale; its kind alone will do but where raw counts decide
 */
export function formatPercent(percent: number, of: PercentScale | Exclude<PercentKind, 'counts'>): string {
  const kind = typeof of === 'string' ? of : of.percentKind;
  if (kind === 'switch') return percent < 50 ? 'dry side' : 'wet side';
  if (typeof of !== 'string' && kind === 'counts') return `${formatNumber(shownCounts(of, percent))} counts`;
  return `${formatNumber(kind === 'tension' ? tensionOf(percent) : percent, 1)} ${percentUnit(kind)}`;
}

/** A stretch of time in the two largest sensible units: "8 s", "3 min 20 s", "2 h 5 min", "4 d 3 h". */
export function formatDuration(durationS: number): string {
  if (!Number.isFinite(durationS)) return '–';
  const total = Math.max(0, Math.round(durationS));
  const pairs: readonly (readonly [string, number])[] = [
    ['d', 86_400],
    ['h', 3_600],
    ['min', 60],
    ['s', 1],
  ];
  const first = pairs.findIndex(([, seconds]) => total >= seconds);
  if (first < 0) return '0 s';
  const parts: string[] = [];
  let rest = total;
  for (const [unit, seconds] of pairs.slice(first, first + 2)) {
    const count = Math.floor(rest / seconds);
    rest -= count * seconds;
    if (count > 0) parts.push(`${count} ${unit}`);
  }
  return parts.join(' ');
}

/** A volume, "120 ml". Temperatures, litres and depths follow the person's choice (`units`, `app/words/unitText`). */
export const formatVolume = (volumeMl: number): string => `${formatNumber(volumeMl)} ml`;

/** What a pump gives, "9.13 ml/s". */
export const formatFlow = (mlPerS: number): string => `${formatNumber(mlPerS, 2)} ml/s`;
