/**
 * The scale that a moisture channel's numbers are on: raw counts that a calibration gives a meaning, or a number that means something by itself (the probe's own
 * percent, the tension of a tensiometer, dry or wet of a comparator). Whatever goes by a channel's numbers asks here what is plausible and what they mean
 * while nobody has calibrated it.
 */
import { makeCurve, type Curve } from '../../calibration/curve.ts';
import { boardTable, type BoardTable } from '../../calibration/boardTable.ts';
import { fullScaleCounts, plausibleWithin } from '../../electrics/converter.ts';
import { byId } from '../../quantity/byId.ts';
import type { PercentKind } from '../../quantity/percentKind.ts';
import { UNIT_OF, type Quantity } from '../../quantity/quantities.ts';
import { remembered } from '../../quantity/remembered.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { loopWindow } from './loopWindow.ts';
import { i2cScaleOf } from './overI2c.ts';

/** Quantities that can decide a plot. Raw counts go first: of several they are the ones that can be calibrated best. */
export const DECIDING = ['moisture', 'factory moisture', 'soil tension', 'moisture switch'] as const;
export type Deciding = (typeof DECIDING)[number];

export const isDeciding = (quantity: Quantity): quantity is Deciding =>
  (DECIDING as readonly Quantity[]).includes(quantity);

type Native = {
  readonly percentKind: PercentKind;
  /** What it reads where it is driest and wettest. */
  readonly dry: number;
  readonly wet: number;
  /** Numbers outside of it are no readings. */
  readonly lowCounts: number;
  readonly highCounts: number;
  /** The engine reckons in whole numbers: its raw values are this many times the channel's. */
  readonly engineFactor: number;
};

/** A tensiometer's ceramic lets air in above about 85 kPa; its scale ends at 100. */
export const MOST_TENSION_KPA = 100;

const NATIVE: Readonly<Record<Exclude<Deciding, 'moisture'>, Native>> = {
  'factory moisture': {
    percentKind: 'factory',
    dry: 0,
    wet: 100,
    lowCounts: -1,
    highCounts: 101,
    engineFactor: 10,
  },
  'soil tension': {
    percentKind: 'tension',
    dry: MOST_TENSION_KPA,
    wet: 0,
    // Shortly after filling it may show a little less than nothing.
    lowCounts: -5,
    highCounts: MOST_TENSION_KPA,
    engineFactor: 10,
  },
  // The usual comparator pulls its output low when the soil is wetter than its screw says.
  'moisture switch': {
    percentKind: 'switch',
    dry: 1,
    wet: 0,
    lowCounts: 0,
    highCounts: 1,
    engineFactor: 1,
  },
};

/** Gain and offset that somebody has set for a channel. */
const lineOf = ({ correction }: Pick<Channel, 'correction'>): { gain: number; offset: number } =>
  correction.kind === 'line'
    ? correction
    : { gain: 1, offset: correction.kind === 'offset' ? correction.offset : 0 };

/** A step of its own number is worth at most so much of what it means: then it gives the counts of a converter. */
const MOST_OF_A_COUNT = 0.5;

/** A probe that means something by itself, read by a board's converter: its line turns counts into what it means. */
export const readsCounts = (channel: Pick<Channel, 'quantity' | 'correction'>): boolean =>
  channel.quantity !== 'moisture' &&
  channel.correction.kind === 'line' &&
  Math.abs(channel.correction.gain) <= MOST_OF_A_COUNT;

/** How a channel's numbers are called where they stand beside a percent. */
export const rawUnitOf = (channel: Pick<Channel, 'quantity' | 'correction'>): string =>
  readsCounts(channel) ? 'counts' : ownUnitOf(channel);

/** The unit of a channel's numbers as they are recorded, on the scale of a chart. */
export const recordUnitOf = (channel: Pick<Channel, 'quantity' | 'correction'> | null | undefined): string =>
  !channel || readsCounts(channel) ? 'raw counts' : UNIT_OF[channel.quantity].unit;

const ownUnitOf = ({ quantity }: Pick<Channel, 'quantity'>): string =>
  quantity === 'factory moisture'
    ? '% own'
    : quantity === 'soil tension'
      ? 'kPa'
      : quantity === 'moisture switch'
        ? '0 or 1'
        : 'counts';

const nativeOf = ({ quantity }: Channel): Native | null =>
  isDeciding(quantity) && quantity !== 'moisture' ? NATIVE[quantity] : null;

/** Numbers between which a channel's reading is plausible. */
export function windowOf(
  garden: Garden,
  channel: Channel,
): { readonly lowCounts: number; readonly highCounts: number } {
  const native = nativeOf(channel);
  if (native) return nativeWindow(garden, channel, native);
  const i2c = i2cScaleOf(garden, channel);
  const board = byId(garden.boards, channel.boardId);
  const full = i2c?.high ?? fullScaleCounts(board?.adcBits ?? 12);
  const loop = loopWindow(garden, channel, { full, fullV: board?.supplyV ?? 3.3 });
  if (loop) return loop;
  if (!i2c) return plausibleWithin(full);
  // A converter's rails mean the same as those of the board's own; a part that counts by itself says what it can say.
  return i2c.isConverter ? plausibleWithin(i2c.high) : { lowCounts: i2c.low, highCounts: i2c.high };
}

/** What means something by itself is plausible where that is, and where a converter is behind it between its rails as well. */
function nativeWindow(
  garden: Garden,
  channel: Channel,
  native: Native,
): { readonly lowCounts: number; readonly highCounts: number } {
  const { gain, offset } = lineOf(channel);
  if (gain === 0) return native;
  const [low = 0, high = 0] = [native.lowCounts, native.highCounts]
    .map((meant) => (meant - offset) / gain)
    .sort((one, other) => one - other);
  const rails = readsCounts(channel)
    ? plausibleWithin(fullScaleCounts(byId(garden.boards, channel.boardId)?.adcBits ?? 12))
    : { lowCounts: low, highCounts: high };
  return { lowCounts: Math.max(low, rails.lowCounts), highCounts: Math.min(high, rails.highCounts) };
}

/** Full scale of the converter behind a channel, counts; null where its number is no converter's. */
export const converterScaleOf = (garden: Garden, channel: Channel): number | null =>
  nativeOf(channel) && !readsCounts(channel)
    ? null
    : (i2cScaleOf(garden, channel)?.high ??
      fullScaleCounts(byId(garden.boards, channel.boardId)?.adcBits ?? 12));

/** What a channel's number means by itself, before anybody has calibrated it; null for raw counts. A line set for it (gain and offset) is put in. */
export const nativeCurve = remembered((channel: Channel): Curve | null => {
  const native = nativeOf(channel);
  if (!native) return null;
  const { gain, offset } = lineOf(channel);
  if (gain === 0) return null;
  const rawOf = (meant: number) => (meant - offset) / gain;
  const knots = [
    { counts: rawOf(native.dry), percent: 0 },
    { counts: rawOf(native.wet), percent: 100 },
  ].sort((one, other) => one.counts - other.counts);
  const made = makeCurve(
    { kind: 'table', knots },
    native.percentKind,
    [rawOf(native.dry), rawOf(native.wet)],
    native.engineFactor === 1 ? 0.01 : 0.5 / Math.abs(gain),
  );
  return made.ok ? made.value : null;
});

/** A curve as the engine's table over the channel's numbers, and between which of them it believes a reading. */
export function engineScale(
  garden: Garden,
  channel: Channel,
  curve: Curve,
): {
  readonly table: BoardTable;
  readonly lowRaw: number;
  readonly highRaw: number;
  readonly factor: number;
} {
  const { lowCounts, highCounts } = windowOf(garden, channel);
  const factor = readsCounts(channel) ? 1 : (nativeOf(channel)?.engineFactor ?? 1);
  return {
    table: factor === 1 ? boardTable(curve) : scaledTable(curve, factor),
    lowRaw: Math.ceil(lowCounts * factor),
    highRaw: Math.floor(highCounts * factor),
    factor,
  };
}

/** The table of the same curve over numbers that are `factor` times as large. */
function scaledTable(curve: Curve, factor: number): BoardTable {
  const { shape } = curve;
  if (!('knots' in shape)) return stretched(boardTable(curve), factor);
  const made = makeCurve(
    { ...shape, knots: shape.knots.map((knot) => ({ ...knot, counts: knot.counts * factor })) },
    curve.percentKind,
    [curve.dryCounts * factor, curve.wetCounts * factor],
    curve.noiseCounts * factor,
  );
  return made.ok ? boardTable(made.value) : stretched(boardTable(curve), factor);
}

const stretched = (table: BoardTable, factor: number): BoardTable =>
  table.map(({ raw, tenths }) => ({ raw: raw * factor, tenths }));
