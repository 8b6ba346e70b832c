/** What the chart of the log draws, worked out from the raw record: traces on the scale that is shown, limits as lines, bands as washes. */
import { countsAtPercent, readCurves } from '@plain-trowel/core/calibration/curve';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import { percentThen, versionsThen } from '@plain-trowel/core/garden/bind/percentThen';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { bandsOf } from '@plain-trowel/core/quantity/bands';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { besideTrace, tracesBySource } from '@plain-trowel/core/records/paleTrace';
import { stripRange } from '@plain-trowel/core/signal/stripRange';
import type { ShownRecord } from '../../../data/queries.ts';

/** Percent by the calibration in use, by those of the time, or neither. */
export type LogScale = 'percent' | 'then' | 'raw';

/** Stretches of time of which a trace keeps what tells: about one for two pixels. */
export const BUCKETS = 400;

export function drawnOf(
  { garden, plot, fit, board, channel }: Pick<PlotParts, 'garden' | 'plot' | 'fit' | 'board' | 'channel'>,
  { series, isGap, all }: ShownRecord,
  scale: LogScale,
) {
  const inPercent = scale !== 'raw' && fit !== null;
  const then =
    scale === 'then' && fit && channel
      ? percentThen(versionsThen(garden, channel, fit.percentKind), series.timesMs, series.raw)
      : null;
  const values = then?.values ?? (inPercent ? readCurves(fit, series.raw) : series.raw);
  const toScale = (tenths: number) => (inPercent || !fit ? tenths / 10 : countsAtPercent(fit, tenths / 10));
  const range = inPercent
    ? { low: Math.min(0, fit.dryPercent), high: Math.max(10, Math.ceil(fit.wetPercent / 10) * 10) }
    : stripRange(series.raw, fullScaleCounts(board?.adcBits ?? 12));
  // In raw counts a falling probe has its wet end at the foot of the chart.
  const flip = !inPercent && fit?.direction === 'falling';
  const limitLine = (name: 'start' | 'stop', tenths: number, side: 'above' | 'below') => ({
    at: toScale(tenths),
    label: `${name} ${formatNumber(toScale(tenths))}`,
    side,
  });
  const limits = fit
    ? [
        limitLine('start', plot.limits.startTenths, flip ? 'above' : 'below'),
        limitLine('stop', plot.limits.stopTenths, flip ? 'below' : 'above'),
      ]
    : [];
  const washes = fit
    ? bandsOf(plot.bandEdges, plot.words).map((band) => ({
        from: toScale(band.fromTenths),
        to: toScale(band.toTenths),
        band: band.name,
      }))
    : [];
  const { own, standIn } = tracesBySource(series, values, BUCKETS, isGap, then?.isChange);
  return {
    points: own,
    pale: standIn,
    // By the calibration in use: what stands beside has no calibration of its time.
    dots: all ? besideTrace(all, (raw) => (inPercent ? readCurves(fit, raw) : raw), BUCKETS) : [],
    yMin: range.low,
    yMax: range.high,
    lines: limits,
    washes,
  };
}
