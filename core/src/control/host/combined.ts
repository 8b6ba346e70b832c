/** Several probes as one: the driest of them, their mean, or their median. */
import { tenthsFromTable, type BoardTable } from '../../calibration/boardTable.ts';

export const DECIDED_BY = ['one', 'driest', 'mean', 'median'] as const;
export type DecidedBy = (typeof DECIDED_BY)[number];

/** Of several together at least this share must count; the driest may stand alone. */
const ENOUGH = 0.5;

/**
 * What several probes come to, tenths; null where too few of them count. Half of a tenth is rounded down, to the drier.
 * @param votes tenths of each; null for one that dropped out
 */
export function combine(by: DecidedBy, votes: readonly (number | null)[]): number | null {
  const counted = votes.flatMap((one) => one ?? []).sort((a, b) => a - b);
  const [driest] = counted;
  if (driest === undefined) return null;
  if (by === 'one' || by === 'driest') return driest;
  if (counted.length <= ENOUGH * votes.length && votes.length > 1) return null;
  if (by === 'mean') return Math.floor(counted.reduce((sum, one) => sum + one, 0) / counted.length);
  const middle = Math.floor((counted.length - 1) / 2);
  const [low = 0, high = 0] =
    counted.length % 2 === 1 ? [counted[middle], counted[middle]] : counted.slice(middle);
  return Math.floor((low + high) / 2);
}

/** One probe of a sensor: its channel, and how its numbers become tenths. */
export type SensorMember = {
  readonly channelId: string;
  /** The engine's whole raw values are so many times the channel's numbers. */
  readonly factor: number;
  readonly table: BoardTable;
  readonly lowRaw: number;
  readonly highRaw: number;
};

/** What stands at a sensor's place in an engine's settings: a probe, or several that are combined before the engine sees them. */
export type SensorSource = { readonly by: DecidedBy; readonly members: readonly SensorMember[] };

type Read = { readonly raw: number; readonly atS: number };

/** The reading of a sensor: of one probe its own whole raw value, of several their tenths at the time of the newest that counts. */
export function readSensor(
  { by, members }: SensorSource,
  read: (channelId: string) => Read | null,
  nowS: number,
  staleAfterS: number,
): Read | null {
  const [only] = members;
  if (!only) return null;
  if (by === 'one') {
    const one = read(only.channelId);
    return one && { raw: Math.round(one.raw * only.factor), atS: one.atS };
  }
  let newestS = -Infinity;
  const votes = members.map(({ channelId, factor, table, lowRaw, highRaw }) => {
    const one = read(channelId);
    const raw = one && Math.round(one.raw * factor);
    if (!one || raw === null || nowS - one.atS > staleAfterS || raw < lowRaw || raw > highRaw) return null;
    newestS = Math.max(newestS, one.atS);
    return tenthsFromTable(table, raw);
  });
  const raw = combine(by, votes);
  return raw === null ? null : { raw, atS: newestS };
}

/** Tenths as they are: the table of what was combined before. */
export const TENTHS_TABLE: BoardTable = [
  { raw: 0, tenths: 0 },
  { raw: 1000, tenths: 1000 },
];
