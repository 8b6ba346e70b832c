/** Records as text with their own sum, so that damage is noticed, and so that a record can be found again in a file that is no store any more. */
import { crc32 } from 'node:zlib';

/** Begins every record; nothing else in the file looks like it. */
export const MARK = '\u0001trowel ';

const sumOf = (text: string): string => crc32(text).toString(16).padStart(8, '0');

/** One line: mark, sum, garden, JSON. */
export function toRecord(gardenId: string, value: unknown): string {
  const text = `${gardenId} ${JSON.stringify(value)}`;
  return `${MARK}${sumOf(text)} ${text}\n`;
}

/** What a record says, and whose it is; null for one that is damaged. */
export function fromRecord(record: string): { readonly gardenId: string; readonly value: unknown } | null {
  if (!record.startsWith(MARK)) return null;
  const end = record.indexOf('\n');
  const text = record.slice(MARK.length + 9, end);
  if (end < 0 || record.slice(MARK.length, MARK.length + 9) !== `${sumOf(text)} `) return null;
  const blank = text.indexOf(' ');
  try {
    return { gardenId: text.slice(0, blank), value: JSON.parse(text.slice(blank + 1)) as unknown };
  } catch {
    return null;
  }
}
