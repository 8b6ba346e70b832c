import { readCurve, type CurveReading } from '@plain-trowel/core/calibration/curve';
import { plotState, type PlotState } from '@plain-trowel/core/control/plotState';
import { plausibleWindow } from '@plain-trowel/core/electrics/converter';
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import {
  calibrationMismatch,
  DEFAULT_STALE_S,
  type PlotParts,
} from '@plain-trowel/core/garden/bind/plotParts';

/** How a plot stands, ready to be put into words. */
export type PlotView = {
  readonly state: PlotState;
  readonly rawCounts: number | null;
  readonly atMs: number | null;
  readonly span: CurveReading | null;
  readonly percentKind: PercentKind;
  /** Soil temperature that the percent was put right by, where its calibration carries one, °C; null without. */
  readonly temperatureC: number | null;
};

/**
 * @param reading newest value of the plot's channel, or null
 * @param isSilent its stream has stopped, sooner perhaps than the rules take it for stale
 */
export function viewPlot(
  parts: PlotParts,
  reading: { rawCounts: number; atMs: number } | null,
  nowMs: number,
  temperatureC: number | null = null,
  isSilent = false,
): PlotView {
  // A calibration of another supply or board is void: its percent would look right and be wrong.
  const span =
    reading && parts.fit && !calibrationMismatch(parts)
      ? readCurve(parts.fit, reading.rawCounts, temperatureC)
      : null;
  const rails = parts.board
    ? plausibleWindow(parts.board.adcBits)
    : { lowCounts: -Infinity, highCounts: Infinity };
  const known = !parts.channel
    ? ({ kind: 'no-probe' } as const)
    : !reading
      ? ({ kind: 'no-reading' } as const)
      : ({
          kind: 'reading',
          rawCounts: reading.rawCounts,
          ageS: (nowMs - reading.atMs) / 1000,
          tenths: span ? span.percent * 10 : null,
        } as const);
  const state =
    isSilent && known.kind === 'reading'
      ? 'stale'
      : plotState(known, {
          ...rails,
          staleAfterS: parts.line?.staleAfterS ?? DEFAULT_STALE_S,
          edges: parts.plot.bandEdges,
        });
  return {
    state,
    rawCounts: reading?.rawCounts ?? null,
    atMs: reading?.atMs ?? null,
    span,
    percentKind: parts.fit?.percentKind ?? 'span',
    temperatureC,
  };
}
