/**
 * What a reading meant when it was read: by the newest calibration that had been made by then. The record is raw, so both can be worked out at any time: what it means by the
 * calibration in use now, and what whoever looked at it then was told.
 */
import { readCurve, type Curve } from '../../calibration/curve.ts';
import type { PercentKind } from '../../quantity/percentKind.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { curveOf } from './curveOf.ts';

/** From its making on; a version that was taken into use again later counts from when it was made. */
export type VersionThen = { readonly fromMs: number; readonly curve: Curve };

/** Versions of a channel that speak of one kind of percent, the oldest first. */
export const versionsThen = (
  garden: Garden,
  channel: Channel,
  percentKind: PercentKind,
): readonly VersionThen[] =>
  garden.calibrations
    .filter((one) => one.channelId === channel.id && one.percentKind === percentKind)
    .flatMap((one): VersionThen[] => {
      const curve = curveOf(one);
      return curve ? [{ fromMs: Date.parse(one.madeAt), curve }] : [];
    })
    .sort((one, other) => one.fromMs - other.fromMs);

/**
 * Percent of each reading by its own time; NaN before the first version.
 * @param timesMs rising, same length as `raws`
 * @returns and whether another version holds from a row on, where no line may be drawn across
 */
export function percentThen(
  versions: readonly VersionThen[],
  timesMs: ArrayLike<number>,
  raws: ArrayLike<number>,
): { readonly values: Float64Array; readonly isChange: (at: number) => boolean } {
  const values = new Float64Array(raws.length);
  const changes = new Set<number>();
  let version = -1;
  let known = new Map<number, number>();
  for (let at = 0; at < raws.length; at += 1) {
    const timeMs = timesMs[at] ?? 0;
    while ((versions[version + 1]?.fromMs ?? Infinity) <= timeMs) {
      version += 1;
      known = new Map();
      if (at > 0) changes.add(at);
    }
    const raw = raws[at] ?? 0;
    const held = known.get(raw);
    const curve = versions[version]?.curve;
    const percent = held ?? (curve ? readCurve(curve, raw).percent : Number.NaN);
    if (held === undefined) known.set(raw, percent);
    values[at] = percent;
  }
  return { values, isChange: (at) => changes.has(at) };
}
