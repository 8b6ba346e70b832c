/** Questions about a garden's channels: what they are called, what scale they have, what their value means. */
import { byId } from '../../quantity/byId.ts';
import { runOf } from './plotParts.ts';
import { calibrationOf, fitOf } from './decided.ts';
import { i2cScaleOf } from './overI2c.ts';
import { windowOf } from './scale.ts';
import { fullScaleCounts } from '../../electrics/converter.ts';
import type { ProbeScale } from '../../faults/streamFaults.ts';
import { UNIT_OF } from '../../quantity/quantities.ts';
import { meantOf } from '../../temperature/correction.ts';
import type { Channel, Garden } from '../document/schema.ts';

/** What a person calls a channel: "C2", "B1 soil temperature", "Battery". */
export function channelName(garden: Garden, channel: Channel): string {
  const probe = byId(garden.probes, channel.probeId);
  if (!probe) return channel.label || channel.quantity;
  const what = channel.label || channel.quantity;
  // Of a probe with raw counts and a percent of its own the counts go by its bare label.
  return channel.quantity === 'moisture' ? probe.label : `${probe.label} ${what}`;
}

/** Full scale of the converter that a channel is read by, counts. */
export const fullScaleOf = (garden: Garden, channel: Channel): number =>
  i2cScaleOf(garden, channel)?.high ?? fullScaleCounts(byId(garden.boards, channel.boardId)?.adcBits ?? 12);

/** Share of full scale that a probe of a kind usually moves through from air to water, for one that has no references yet. */
const USUAL_SPAN_FRAC = 0.44;

/** What a probe of a kind usually moves through from air to water, counts. */
export const usualSpanOf = (garden: Garden, channel: Channel): number =>
  USUAL_SPAN_FRAC * fullScaleOf(garden, channel);

/** The wet end of its calibration is open water: a mixture of 40 %, a soil at its capacity may well be passed. */
const inWater = (garden: Garden, channel: Channel): boolean =>
  calibrationOf(garden, channel)?.points.some((point) => point.used && point.condition === 'water') ?? false;

/** The scale that a moisture channel is watched on: its references where there are two, else what is usual. */
export function probeScale(garden: Garden, channel: Channel): ProbeScale {
  const window = windowOf(garden, channel);
  const curve = fitOf(garden, channel);
  const usual = usualSpanOf(garden, channel);
  // Two cut-offs say nothing of how far a probe moves from dry to wet.
  if (curve && curve.percentKind !== 'counts')
    return {
      ...window,
      spanCounts: curve.spanCounts,
      references: inWater(garden, channel) ? { dry: curve.dryCounts, wet: curve.wetCounts } : null,
    };
  // A run that has just begun knows more than what is usual, once its captures lie apart.
  const taken = runOf(garden, channel.id)?.points.flatMap((one) => one.captures.map((of) => of.rawCounts));
  const apart = taken && taken.length > 1 ? Math.max(...taken) - Math.min(...taken) : 0;
  return { ...window, spanCounts: apart > usual / 3 ? apart : usual, references: null };
}

/** A channel's value as it is meant, with its unit; moisture stays raw counts here. Null where there is none, as at a thermistor's rail. */
export function meantValue(
  garden: Garden,
  channel: Channel,
  raw: number,
): { readonly value: number | null; readonly unit: string; readonly decimals: number } {
  return {
    value: meantOf(channel, raw, fullScaleOf(garden, channel)),
    ...UNIT_OF[channel.quantity],
  };
}
