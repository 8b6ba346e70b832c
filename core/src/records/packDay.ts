/**
 * A day of readings as it lies in storage: times as steps, values as whole multiples of a power of ten where they are such, each column in the fewest bytes that hold it. Exact: what is
 * unpacked is what was packed, bit for bit. A reading a minute of a converter's counts takes 1 to 2 bytes, where three full columns take 13.
 */
import { DAY_MS, dayOf, isSoundBlock, type DayBlock } from './series.ts';

type Unsigned = Uint8Array | Uint16Array | Uint32Array;

/** One number where all steps are alike. */
type Steps = number | Unsigned;

type Values =
  /** (value + base) ÷ 10^decimals */
  | { readonly decimals: number; readonly base: number; readonly whole: Unsigned }
  | { readonly plain: Float32Array | Float64Array };

export type PackedDay = {
  readonly channelId: string;
  /** Midnight UTC that begins the day, ms since 1970. */
  readonly dayMs: number;
  readonly packed: 1;
  readonly rows: number;
  /** Of the steps and the first offset, ms. */
  readonly unitMs: number;
  readonly first: number;
  readonly steps: Steps;
  readonly values: Values;
  /** One number where all flags are alike. */
  readonly flags: number | Uint8Array;
};

const MOST_DECIMALS = 6;
/** Multiples of a power of ten are exact up to here. */
const MOST_WHOLE = 2 ** 50;

export function packDay({ channelId, dayMs, offsetsMs, raw, flags }: DayBlock): PackedDay {
  const unitMs = offsetsMs.every((offset) => offset % 1000 === 0) ? 1000 : 1;
  const steps = new Float64Array(Math.max(0, offsetsMs.length - 1));
  for (let at = 0; at < steps.length; at += 1)
    steps[at] = ((offsetsMs[at + 1] ?? 0) - (offsetsMs[at] ?? 0)) / unitMs;
  const [step = 0] = steps;
  const [flag = 0] = flags;
  return {
    channelId,
    dayMs,
    packed: 1,
    rows: raw.length,
    unitMs,
    first: (offsetsMs[0] ?? 0) / unitMs,
    steps: steps.every((one) => one === step) ? step : (fewestBytes(steps) ?? new Uint32Array(steps)),
    values: packValues(raw),
    flags: flags.every((one) => one === flag) ? flag : flags,
  };
}

/** Whole numbers from 0 in the fewest bytes; null where one is too large. */
function fewestBytes(numbers: Float64Array): Unsigned | null {
  let most = 0;
  for (const one of numbers) if (one > most) most = one;
  if (most < 2 ** 8) return new Uint8Array(numbers);
  if (most < 2 ** 16) return new Uint16Array(numbers);
  return most < 2 ** 32 ? new Uint32Array(numbers) : null;
}

function packValues(raw: Float64Array): Values {
  for (let decimals = 0; decimals <= MOST_DECIMALS; decimals += 1) {
    const whole = wholes(raw, 10 ** decimals);
    if (!whole) continue;
    let base = Infinity;
    for (const one of whole) if (one < base) base = one;
    if (!Number.isFinite(base)) base = 0;
    for (let at = 0; at < whole.length; at += 1) whole[at] = (whole[at] ?? 0) - base;
    const packed = fewestBytes(whole);
    if (packed) return { decimals, base, whole: packed };
  }
  const short = new Float32Array(raw);
  return { plain: raw.every((one, at) => Object.is(one, short[at])) ? short : raw };
}

/** The values times a power of ten, where dividing them again gives the very values; else null. */
function wholes(raw: Float64Array, times: number): Float64Array | null {
  const whole = new Float64Array(raw.length);
  for (let at = 0; at < raw.length; at += 1) {
    const value = raw[at] ?? 0;
    const one = Math.round(value * times);
    if (Math.abs(one) > MOST_WHOLE || !Object.is(one / times, value)) return null;
    whole[at] = one;
  }
  return whole;
}

const isUnsigned = (of: unknown): of is Unsigned =>
  of instanceof Uint8Array || of instanceof Uint16Array || of instanceof Uint32Array;

/** The day that was packed; null for anything that is no packed day, or is damaged. Cannot throw. */
export function unpackDay(stored: unknown): DayBlock | null {
  if (typeof stored !== 'object' || stored === null) return null;
  const of = stored as Partial<Record<keyof PackedDay, unknown>>;
  const { channelId, dayMs, packed, rows, flags } = of;
  if (packed !== 1 || typeof channelId !== 'string' || typeof dayMs !== 'number' || dayOf(dayMs) !== dayMs)
    return null;
  if (typeof rows !== 'number' || !Number.isInteger(rows) || rows < 0 || rows > DAY_MS) return null;
  const offsetsMs = unpackTimes(of, rows);
  const raw = unpackValues(of.values, rows);
  const isFlags =
    typeof flags === 'number'
      ? Number.isInteger(flags) && flags >= 0 && flags < 256
      : flags instanceof Uint8Array && flags.length === rows;
  if (!offsetsMs || !raw || !isFlags) return null;
  return {
    channelId,
    dayMs,
    offsetsMs,
    raw,
    flags: typeof flags === 'number' ? new Uint8Array(rows).fill(flags) : (flags as Uint8Array),
  };
}

function unpackTimes(
  { unitMs, first, steps }: Partial<Record<keyof PackedDay, unknown>>,
  rows: number,
): Uint32Array | null {
  if ((unitMs !== 1 && unitMs !== 1000) || typeof first !== 'number' || !(first >= 0)) return null;
  const isSteps =
    typeof steps === 'number' ? steps >= 0 : isUnsigned(steps) && steps.length === Math.max(0, rows - 1);
  if (!isSteps) return null;
  const offsetsMs = new Uint32Array(rows);
  let at = first;
  for (let row = 0; row < rows; row += 1) {
    if (row > 0) at += typeof steps === 'number' ? steps : ((steps as Unsigned)[row - 1] ?? 0);
    const offset = at * unitMs;
    if (!(offset < DAY_MS)) return null;
    offsetsMs[row] = offset;
  }
  return offsetsMs;
}

function unpackValues(stored: unknown, rows: number): Float64Array | null {
  if (typeof stored !== 'object' || stored === null) return null;
  const { decimals, base, whole, plain } = stored as Record<string, unknown>;
  if (plain instanceof Float32Array || plain instanceof Float64Array) {
    const raw = plain instanceof Float64Array ? plain : new Float64Array(plain);
    return raw.length === rows && raw.every(Number.isFinite) ? raw : null;
  }
  const isWhole =
    typeof decimals === 'number' && Number.isInteger(decimals) && decimals >= 0 && decimals <= MOST_DECIMALS;
  if (!isWhole || typeof base !== 'number' || !Number.isFinite(base)) return null;
  if (!isUnsigned(whole) || whole.length !== rows) return null;
  const raw = new Float64Array(rows);
  const times = 10 ** decimals;
  for (let row = 0; row < rows; row += 1) raw[row] = ((whole[row] ?? 0) + base) / times;
  return raw;
}

/** A stored day, packed or in the full columns of the first versions; null for what is neither. */
export const readDay = (stored: unknown): DayBlock | null =>
  isSoundBlock(stored) ? stored : unpackDay(stored);

/** Bytes that a packed day's columns take. */
export function bytesOf({ steps, values, flags }: PackedDay): number {
  const column = (of: number | ArrayBufferView): number => (typeof of === 'number' ? 8 : of.byteLength);
  return column(steps) + column('plain' in values ? values.plain : values.whole) + column(flags);
}
