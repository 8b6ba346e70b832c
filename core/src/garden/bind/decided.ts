/**
 * What decides a plot: one of its probes, or several together (the driest, the mean, the median). A probe that is silent, implausible or not calibrated drops
 * out, and is told; the rest decide as long as there are enough of them.
 */
import { readCurve, type Curve } from '../../calibration/curve.ts';
import type { DecidedBy } from '../../control/host/combined.ts';
import type { Unknown } from '../../control/plotState.ts';
import { combine } from '../../control/host/combined.ts';
import { meanOf } from '../../calibration/runPoint.ts';
import { byId } from '../../quantity/byId.ts';
import type { PercentKind } from '../../quantity/percentKind.ts';
import { curveOf, refusalOf } from './curveOf.ts';
import { isDeciding, nativeCurve, windowOf } from './scale.ts';
import type { Calibration, Channel, Garden, Plot } from '../document/schema.ts';

/** Supplies that differ by less are one, V. */
export const SUPPLY_V = 0.05;

/** The calibration that a channel uses, or null. */
export const calibrationOf = (garden: Garden, channel: Channel): Calibration | null =>
  byId(garden.calibrations, channel.calibrationId) ?? null;

/** The curve that a channel is read by: its calibration's, else what its number means by itself. */
export const fitOf = (garden: Garden, channel: Channel): Curve | null => {
  const calibration = calibrationOf(garden, channel);
  return calibration ? curveOf(calibration) : nativeCurve(channel);
};

/** Why a calibration is void: it belongs to another supply or board, or would be refused. */
export type Void = 'supply' | 'board' | 'refused';

/** Null when a calibration holds here or there is none, else why it is void. */
export function mismatchOf(garden: Garden, channel: Channel): Void | null {
  const calibration = calibrationOf(garden, channel);
  const board = byId(garden.boards, channel.boardId);
  if (!calibration || !board) return null;
  if (calibration.place.boardId !== board.id) return 'board';
  if (Math.abs(calibration.place.supplyV - board.supplyV) > SUPPLY_V) return 'supply';
  return refusalOf(calibration) ? 'refused' : null;
}

/** Every channel of a plot that could decide it, raw counts first. */
export function candidatesOf(garden: Garden, plotId: string): Channel[] {
  const own = new Set(garden.probes.flatMap((probe) => (probe.plotId === plotId ? [probe.id] : [])));
  const all = garden.channels.filter(
    (one) => one.probeId !== null && own.has(one.probeId) && isDeciding(one.quantity),
  );
  const order = new Map(garden.probes.map((probe, at) => [probe.id, at]));
  const rank = (one: Channel) => (one.quantity === 'moisture' ? 0 : 1);
  return all.sort(
    (one, other) =>
      rank(one) - rank(other) || (order.get(one.probeId ?? '') ?? 0) - (order.get(other.probeId ?? '') ?? 0),
  );
}

/** The channels that decide a plot, as it was chosen; the first that could where nothing was. */
export function decidersOf(garden: Garden, plot: Plot): { by: DecidedBy; channels: Channel[] } {
  const all = candidatesOf(garden, plot.id);
  const { by, channelIds } = plot.decides;
  const chosen = all.filter((one) => channelIds.includes(one.id));
  if (by === 'one') return { by, channels: (chosen.length > 0 ? chosen : all).slice(0, 1) };
  const together = chosen.length > 0 ? chosen : all;
  return together.length > 1 ? { by, channels: together } : { by: 'one', channels: together };
}

/** Why a probe does not count among several. */
export type Dropped =
  'no reading' | 'silent' | 'implausible' | 'out of soil' | 'not calibrated' | 'void' | 'another percent';
export type Vote = {
  readonly channel: Channel;
  readonly tenths: number | null;
  readonly dropped: Dropped | null;
};

export type Newest = (channelId: string) => { readonly raw: number; readonly timeMs: number } | null;

/** Only percents of one kind can be put together; raw counts of two probes never, for each has cut-offs of its own. */
export const speaksAlike = (kind: PercentKind, first: PercentKind | undefined, isFirst: boolean): boolean =>
  kind === first && (isFirst || kind !== 'counts');

/** Readings this near to that in air are taken for it: by this share of the way to the wettest, and by so many times the noise. */
const NEAR_AIR_FRAC = 0.03;
const NEAR_AIR_NOISES = 6;
const NO_WINDOW = { lowRaw: -2_000_000_000, highRaw: 2_000_000_000 } as const;

/** The raw value in air that a channel's calibration was made beside; else of the first test, where that lies on the dry side of the soil. */
function airOf(garden: Garden, channel: Channel, curve: Curve): number | null {
  const own = calibrationOf(garden, channel)?.points.filter(
    (point) => point.condition === 'air' && point.used && point.captures.length > 0,
  );
  if (own && own.length > 0) return own.reduce((sum, point) => sum + meanOf(point), 0) / own.length;
  const tested = byId(garden.probes, channel.probeId)?.firstTest.air?.rawCounts ?? null;
  if (tested === null) return null;
  const isDrier = curve.direction === 'falling' ? tested > curve.dryCounts : tested < curve.dryCounts;
  return isDrier ? tested : null;
}

/** Whole raw values between which a probe stands in soil: near its reading in air it has come out, or the soil has shrunken from it. */
export function soilWindow(
  garden: Garden,
  channel: Channel,
): { readonly lowRaw: number; readonly highRaw: number } {
  const curve = channel.quantity === 'moisture' ? fitOf(garden, channel) : null;
  const air = curve && airOf(garden, channel, curve);
  if (!curve || air === null) return NO_WINDOW;
  const margin = Math.max(
    NEAR_AIR_NOISES * curve.noiseCounts,
    NEAR_AIR_FRAC * Math.abs(curve.wetCounts - air),
  );
  return curve.direction === 'falling'
    ? { ...NO_WINDOW, highRaw: Math.ceil(air - margin) - 1 }
    : { ...NO_WINDOW, lowRaw: Math.floor(air + margin) + 1 };
}

/** Whether a raw value is that of a probe in air. */
export function isInAir(garden: Garden, channel: Channel, raw: number): boolean {
  const { lowRaw, highRaw } = soilWindow(garden, channel);
  return raw < lowRaw || raw > highRaw;
}

/** Probes that dropped out, the reason that says most about the whole first. */
const TELLING: readonly (readonly [Dropped, Unknown])[] = [
  ['implausible', 'implausible'],
  ['out of soil', 'out-of-soil'],
  ['silent', 'stale'],
  ['void', 'void'],
  ['not calibrated', 'not-calibrated'],
  ['another percent', 'not-calibrated'],
];

/** Why probes that came to no number leave a plot's moisture unknown. */
export function unknownOf(votes: readonly Vote[]): Unknown {
  if (votes.length === 0) return 'no-probe';
  return TELLING.find(([why]) => votes.some((one) => one.dropped === why))?.[1] ?? 'no-reading';
}

/** Why a reading says nothing of the soil now; null when it does. A void calibration does not know what air reads. */
function unreadable(
  garden: Garden,
  channel: Channel,
  { raw, timeMs }: NonNullable<ReturnType<Newest>>,
  sinceMs: number,
): Dropped | null {
  const plausible = windowOf(garden, channel);
  if (!(timeMs >= sinceMs)) return 'silent';
  if (!(raw >= plausible.lowCounts && raw <= plausible.highCounts)) return 'implausible';
  if (mismatchOf(garden, channel)) return null;
  return isInAir(garden, channel, raw) ? 'out of soil' : null;
}

/** What each probe of a plot says, and what that comes to. @param staleAfterS after which a reading says nothing of now */
export function decidedNow(
  garden: Garden,
  plot: Plot,
  newest: Newest,
  nowMs: number,
  staleAfterS: number,
): { readonly tenths: number | null; readonly votes: readonly Vote[]; readonly by: DecidedBy } {
  const { by, channels } = decidersOf(garden, plot);
  const [first] = channels;
  const kind = first && fitOf(garden, first)?.percentKind;
  const votes = channels.map((channel): Vote => {
    const fit = fitOf(garden, channel);
    const one = newest(channel.id);
    const dropped = one
      ? (unreadable(garden, channel, one, nowMs - staleAfterS * 1000) ??
        (mismatchOf(garden, channel)
          ? 'void'
          : !fit
            ? 'not calibrated'
            : speaksAlike(fit.percentKind, kind, channel === first)
              ? null
              : 'another percent'))
      : 'no reading';
    return {
      channel,
      dropped,
      tenths: dropped === null && one && fit ? Math.round(readCurve(fit, one.raw).percent * 10) : null,
    };
  });
  return {
    by,
    votes,
    tenths: combine(
      by,
      votes.map((vote) => vote.tenths),
    ),
  };
}
