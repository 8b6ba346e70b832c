import { converterScaleOf, rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { addCapture, type Captured } from '@plain-trowel/core/garden/edits/calibrations';
import { runOf } from '@plain-trowel/core/garden/bind/plotParts';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Capture, Garden, Run } from '@plain-trowel/core/garden/document/schema';
import { typedCounts } from '@plain-trowel/core/calibration/runPoint';
import type { CheckContext } from '@plain-trowel/core/calibration/checks';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { soilTemperatureNow } from '@plain-trowel/core/live/readingNow';

/** What the checks of a run need to know of its channel. */
export function contextOf(garden: Garden, parts: PlotParts, nowMs: number): CheckContext {
  return {
    probeKind: parts.probe?.kind ?? null,
    fullScaleCounts: parts.channel && converterScaleOf(garden, parts.channel),
    nowMs,
  };
}

export const runOfPlot = (garden: Garden, parts: PlotParts): Run | null =>
  parts.channel ? runOf(garden, parts.channel.id) : null;

type What = Pick<Captured, 'condition' | 'typed' | 'felt'>;

/** Takes the median of the last seconds as a capture; it is on disk before it is shown. */
export function useCapture(parts: PlotParts): (what: What, pointId: string | null) => Promise<boolean> {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  return async (what, pointId) => {
    const { channel, board } = parts;
    // Only readings after the last change; what has fallen silent says nothing of now.
    const value = channel && session.captureOf(channel.id);
    if (!channel || !board || !value) return false;
    const settling = live.settling.get(channel.id) ?? null;
    const simulated = live.source?.simulated ?? false;
    const capture: Capture = {
      rawCounts: value.rawCounts,
      noiseCounts: value.noiseCounts,
      spreadCounts: value.spreadCounts,
      readings: value.readings,
      windowS: value.windowS,
      takenAt: isoOf(live.nowMs),
      supplyV: board.supplyV,
      boardId: board.id,
      simulated,
      settling: settling && {
        verdict: settling.verdict,
        fromEndCounts: settling.end ? value.rawCounts - settling.end.counts : null,
      },
    };
    const standsForItself = typedCounts(what);
    const temperatureC = soilTemperatureNow(garden, parts.plot.id, live.present);
    return commit(
      `${what.condition} reference of ${parts.probe?.label ?? 'the probe'}`,
      (before) => ({
        garden: addCapture(before, channel.id, { ...what, temperatureC, capture }, pointId, Math.random),
        // What was typed is no reading of the probe.
        events:
          standsForItself !== null
            ? []
            : [
                {
                  atMs: Math.round(live.nowMs),
                  plotId: parts.plot.id,
                  channelId: channel.id,
                  simulated,
                  kind: 'reference',
                  condition: what.condition,
                  rawCounts: value.rawCounts,
                  spreadCounts: value.spreadCounts,
                },
              ],
      }),
      standsForItself === null
        ? `Captured, ${what.condition}: ${formatCounts(value.rawCounts)} ${rawUnitOf(channel)}, spread ± ${formatNumber(value.spreadCounts, 1)}.`
        : `Taken, ${what.condition}: ${formatCounts(standsForItself)} ${rawUnitOf(channel)}.`,
    );
  };
}
