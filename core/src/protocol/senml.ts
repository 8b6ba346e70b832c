/** Readings as SenML (RFC 8428): a pack of records that share their base fields. What belongs to the report and not to a reading comes from outside. */
import { parseJson } from '../quantity/parseJson.ts';
import { fail, type Result } from '../quantity/result.ts';
import { z } from '../quantity/schema.ts';
import { checkReport, MOST_AGO_S, MOST_REPORT_BYTES, type Report, type ReportIssue } from './report.ts';

/** RFC 8428, 4.5.3: below it a time is relative to now, from it on seconds since 1970. */
const RELATIVE_BELOW = 2 ** 28;
const VERSION = 10;

const number = z.number().min(-1e300).max(1e300);
const record = z.looseObject({
  bn: z.string().max(200).optional(),
  bt: number.optional(),
  bv: number.optional(),
  bver: z.literal(VERSION).optional(),
  n: z.string().max(200).optional(),
  v: number.optional(),
  vb: z.boolean().optional(),
  t: number.optional(),
});
const pack = z.array(record).min(1).max(500);

/**
 * Reads a pack. Texts, data and sums are no readings and are left out.
 *
 * @param nowS the receiver's own clock, seconds since 1970: times of a board are turned into ages by it; one in the future, or from before the board can remember,
 * is taken for now, for then its clock is wrong
 */
export function readSenml(
  text: string,
  about: Pick<Report, 'board' | 'boot' | 'seq' | 'upS'>,
  nowS: number,
): Result<Report, ReportIssue> {
  if (text.length > MOST_REPORT_BYTES) return fail({ kind: 'too-long' });
  const parsed = parseJson(text);
  if (parsed === undefined) return fail({ kind: 'not-json' });
  const read = pack.safeParse(parsed);
  if (!read.success) return fail({ kind: 'field', field: 'SenML', message: 'is no pack of records' });
  // What ends so must be understood, or the pack is not.
  const label = read.data.flatMap((one) => Object.keys(one)).find((key) => key.endsWith('_'));
  if (label !== undefined) return fail({ kind: 'not-understood', label: label.slice(0, 60) });
  let [baseName, baseTime, baseValue] = ['', 0, 0];
  const readings: unknown[] = [];
  for (const { bn, bt, bv, n = '', v, vb, t = 0 } of read.data) {
    baseName = bn ?? baseName;
    baseTime = bt ?? baseTime;
    baseValue = bv ?? baseValue;
    const value = vb === undefined ? (v === undefined ? null : v + baseValue) : vb ? 1 : 0;
    if (value === null) continue;
    readings.push({ n: nameOf(`${baseName}${n}`, about.board), v: value, agoS: ageOf(baseTime + t, nowS) });
  }
  return checkReport({ ...about, readings });
}

/** A name that is unique in the world begins with the board's; here it is known without. */
function nameOf(name: string, board: string): string {
  const [first = '', ...rest] = name.split(/[:/]/);
  const isBoards = rest.length > 0 && (first === board || first === 'urn');
  return isBoards ? (rest.at(-1) ?? '') : name;
}

function ageOf(time: number, nowS: number): number {
  const age = time >= RELATIVE_BELOW ? nowS - time : 0 - time;
  return age >= 0 && age <= MOST_AGO_S ? age : 0;
}
