/** How a part on I2C is asked, in words. */
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { I2cRead, I2cTalk } from '@plain-trowel/core/catalogue/i2cTalk';

const hex = (bytes: readonly number[]): string =>
  bytes.map((one) => one.toString(16).toUpperCase().padStart(2, '0')).join(' ');

const UNITS: Readonly<Record<I2cRead['gives'], string>> = {
  moisture: 'counts',
  humidity: '% RH',
  temperature: '°C',
  light: 'light',
  input: 'counts',
};

/** "24 00 is written; after 16 ms 6 bytes are read, each two with their check." */
function askText({ ask, waitMs, from, read, check }: I2cRead): string {
  const written = ask.length > 0 ? `${hex(ask)} is written; after ${waitMs} ms, ` : '';
  const place = from.length > 0 ? ` from ${hex(from)} on` : '';
  return `${written}${read} ${read === 1 ? 'byte is' : 'bytes are'} read${place}${check === 'each two' ? ', each two with their check' : ''}.`;
}

/** "Bytes 4 and 5, high first, × 10000 / 65535, are hundredths of % RH; 0 to 100 are believed." */
function valueText(read: I2cRead): string {
  const { at, bytes, order, signed, times, per, plus, decimals, least, most, gives } = read;
  const where = bytes === 1 ? `Byte ${at + 1}` : `Bytes ${at + 1} and ${at + 2}, ${order}`;
  const scale = times === 1 && per === 1 ? '' : `, × ${times} / ${per}`;
  const shift = plus === 0 ? '' : plus > 0 ? ` + ${plus}` : ` − ${-plus}`;
  const steps = ['', 'tenths of ', 'hundredths of ', 'thousandths of '][decimals] ?? '';
  const unit = 10 ** decimals;
  return `${where}${signed ? ', with a sign' : ''}${scale}${shift}: ${steps}${UNITS[gives]}; ${formatNumber(least / unit)} to ${formatNumber(most / unit)} are believed.`;
}

/** A line for each thing that it gives. */
export const i2cTexts = ({ begin, reads }: I2cTalk): readonly string[] => [
  ...(begin.length > 0
    ? [`Once it is fed, ${begin.map(hex).join(', then ')} is written; half a second later it is asked.`]
    : []),
  ...reads.map(
    (read) =>
      `${read.terminal === null ? read.gives : `at ${read.terminal}`}: ${askText(read)} ${valueText(read)}`,
  ),
];
