/** Differences between two states of a garden, in words. */
import type { Difference } from '@plain-trowel/core/garden/document/differences';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { fieldWords, unitOf } from './gardenFaultText.ts';

/** "Chilli pump, daily max": the thing by its name, then what of it. */
export function differencePlace({ path, of }: Difference): string {
  const [list = '', ...fields] = path;
  const inside = fields.map(fieldWords).join(', ');
  if (of === null) return [list, ...fields].map(fieldWords).join(', ');
  const what = fieldWords(list);
  return inside === '' ? `${what} ${of}` : `${of}, ${inside}`;
}

const MOST_LETTERS = 60;
/** A value as it would be read aloud; `field` tells its unit. */
export function valueText(value: unknown, field: string, timeZone: string): string {
  if (value === undefined) return 'not there';
  if (value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string' && /^\d{4}-\d\d-\d\dT/.test(value))
    return dayTime(Date.parse(value), timeZone, 's');
  if (typeof value === 'string') return value === '' ? 'empty' : value.slice(0, MOST_LETTERS);
  if (typeof value === 'number') {
    if (/Tenths$/.test(field)) return `${formatNumber(value / 10, 1)} %`;
    const unit = unitOf(field);
    return `${formatNumber(value, Number.isInteger(value) ? 0 : 2)}${unit === '' ? '' : ` ${unit}`}`;
  }
  if (Array.isArray(value))
    return value.every((one) => typeof one === 'number')
      ? value
          .map((one) => valueText(one, field, timeZone))
          .join(' · ')
          .slice(0, MOST_LETTERS)
      : `${value.length} entries`;
  return 'there';
}
