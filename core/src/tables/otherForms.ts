/** Files that are no tables, written as one: SenML packs (RFC 8428) and serial logs whose lines have dates. Then they are looked at, asked about and read as every table is. */
import { isMoment, isoOf } from '../quantity/moment.ts';
import { parseJson } from '../quantity/parseJson.ts';
import { z } from '../quantity/schema.ts';
import { textLines } from '../quantity/textLines.ts';
import { initialLineParser, parseLine } from '../signal/line.ts';

export type FileForm = 'table' | 'senml' | 'serial-log';

const HEADER = 'time\tname\tunit\tvalue\n';

const row = (time: string, name: string, unit: string, value: number): string =>
  `${time}\t${name.replaceAll(/[\t\r\n"]/g, ' ').trim()}\t${unit.replaceAll(/[\t\r\n"]/g, ' ')}\t${value}\n`;

/** The text of a form as a table; null where it is not of that form, or says no dates. */
export function asTable(text: string, form: FileForm): string | null {
  switch (form) {
    case 'table':
      return text;
    case 'senml':
      return senmlTable(text);
    case 'serial-log':
      return logTable(text);
  }
}

/** RFC 8428, 4.5.3: below it a time is relative to a now that a file does not know. */
const RELATIVE_BELOW = 2 ** 28;

const record = z.looseObject({
  bn: z.string().max(200).optional(),
  bt: z.number().optional(),
  bu: z.string().max(40).optional(),
  bv: z.number().optional(),
  n: z.string().max(200).optional(),
  u: z.string().max(40).optional(),
  v: z.number().optional(),
  vb: z.boolean().optional(),
  t: z.number().optional(),
});

function senmlTable(text: string): string | null {
  if (!/^\ufeff?\s*\[/.test(text)) return null;
  const parsed = parseJson(text.replace(/^\ufeff/, ''));
  if (!Array.isArray(parsed)) return null;
  const rows = [HEADER];
  let [baseName, baseTime, baseUnit, baseValue] = ['', 0, '', 0];
  for (const one of parsed as readonly unknown[]) {
    const read = record.safeParse(one);
    // What ends so must be understood, or the pack is not.
    if (!read.success || Object.keys(read.data).some((key) => key.endsWith('_'))) return null;
    const { bn, bt, bu, bv, n = '', u, v, vb, t = 0 } = read.data;
    baseName = bn ?? baseName;
    baseTime = bt ?? baseTime;
    baseUnit = bu ?? baseUnit;
    baseValue = bv ?? baseValue;
    const value = vb === undefined ? (v === undefined ? null : v + baseValue) : vb ? 1 : 0;
    if (value === null) continue;
    const time = baseTime + t;
    if (time < RELATIVE_BELOW || !isMoment(time * 1000)) return null;
    rows.push(row(isoOf(time * 1000), `${baseName}${n}`, u ?? baseUnit, value));
  }
  return rows.length > 1 ? rows.join('') : null;
}

/** Lines with a full date each: what has only a time of day, or counts from a start, is no record of when. */
function logTable(text: string): string | null {
  const rows = [HEADER];
  let parser = initialLineParser;
  for (const line of textLines(text)) {
    const { state, result } = parseLine(parser, line);
    parser = state;
    if (result.kind !== 'values') continue;
    const { stamp, values } = result;
    // One number of it that can be read in two ways makes all of it a guess.
    if (result.asks !== undefined || stamp?.kind !== 'absolute') return null;
    const time = isoOf(stamp.ms);
    for (const { name, value, unit = '' } of values)
      rows.push(row(stamp.zoned ? time : time.slice(0, -1).replace('T', ' '), name, unit, value));
  }
  return rows.length > 1 ? rows.join('') : null;
}
