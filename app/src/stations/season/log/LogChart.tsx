import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { lazy, Suspense, useMemo, useRef, type ReactNode } from 'react';
import { bandsOf } from '@plain-trowel/core/quantity/bands';
import { countsAtPercent, readCurves } from '@plain-trowel/core/calibration/curve';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { fitOf } from '@plain-trowel/core/garden/bind/decided';
import { nightsIn } from '@plain-trowel/core/garden/bind/nights';
import { percentThen, versionsThen } from '@plain-trowel/core/garden/bind/percentThen';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { gapFinder, traceOf } from '@plain-trowel/core/records/trace';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import type { ChartPicture } from '@plain-trowel/core/records/chartSvg';
import { stripRange } from '@plain-trowel/core/signal/stripRange';
import type { ShownRecord } from '../../../data/queries.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { ChartFiles } from './ChartFiles.tsx';
import { useSheetTone } from '../../../frame/sheetTone.ts';

const TimeChart = lazy(async () => ({ default: (await import('../../../charts/TimeChart.tsx')).TimeChart }));

/** Percent by the calibration in use, by those of the time, or neither. */
export type LogScale = 'percent' | 'then' | 'raw';
const HEIGHT = 300;
/** In a longer stretch nights would be stripes. */
const MOST_NIGHTS_MS = 15 * 86_400_000;
/** Share of the chart's width that the words of a mark need. */
const LEAST_APART = 0.09;

/** A stretch of time with limits as lines, bands as washes, waterings as ticks with words. Percent is worked out here, from the raw record. */
export function LogChart({
  parts,
  record,
  others,
  events,
  scale,
  fromMs,
  toMs,
  quick,
  frame,
}: {
  parts: PlotParts;
  record: ShownRecord;
  /** The plot's other probes over the same time; drawn where they speak of the same percent. */
  others: readonly { readonly channel: Channel; readonly record: ShownRecord }[];
  events: readonly GardenEvent[];
  scale: LogScale;
  fromMs: number;
  toMs: number;
  /** It stands still until somebody moves it: then it follows the hand. */
  quick: boolean;
  /** What the chart lies in: hands that move it. */
  frame: (chart: ReactNode) => ReactNode;
}) {
  const { garden } = useGarden();
  const [tone] = useSheetTone();
  const { plot, fit, board, channel } = parts;
  const { series, isGap } = record;
  const chart = useMemo(() => {
    const inPercent = scale !== 'raw' && fit !== null;
    const then =
      scale === 'then' && fit && channel
        ? percentThen(versionsThen(garden, channel, fit.percentKind), series.timesMs, series.raw)
        : null;
    const values = then?.values ?? (inPercent ? readCurves(fit, series.raw) : series.raw);
    const isBroken = isGap ?? gapFinder(series.timesMs);
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
    return {
      points: traceOf(
        series.timesMs,
        values,
        400,
        then ? (at) => isBroken(at) || then.isChange(at) : isBroken,
      ),
      yMin: range.low,
      yMax: range.high,
      lines: limits,
      washes,
    };
  }, [series, isGap, scale, fit, plot, board, garden, channel]);
  const beside = useMemo(
    () =>
      others.flatMap((one) => {
        const own = fitOf(garden, one.channel);
        return scale !== 'raw' && own && own.percentKind === fit?.percentKind
          ? [
              {
                label: channelName(garden, one.channel),
                points: traceOf(one.record.series.timesMs, readCurves(own, one.record.series.raw), 400),
              },
            ]
          : [];
      }),
    [others, garden, scale, fit],
  );
  const marks = useMemo(() => marksOf(events, toMs - fromMs), [events, fromMs, toMs]);
  const nights = useMemo(
    () => (toMs - fromMs > MOST_NIGHTS_MS ? [] : nightsIn(garden, { fromMs, toMs })),
    [garden, fromMs, toMs],
  );
  const around = useRef<HTMLDivElement>(null);
  const yUnit = scale === 'raw' ? recordUnitOf(channel) : percentUnit(fit?.percentKind ?? 'span');
  const name = channel ? channelName(garden, channel) : '';
  const { timeZone } = garden;
  const picture = (): ChartPicture => ({
    title: `${plot.name}, ${yUnit}${scale === 'then' ? ' as it was then' : ''}, ${dayTime(fromMs, timeZone)} to ${dayTime(toMs, timeZone)}`,
    timeZone,
    fromMs,
    toMs,
    yUnit,
    yMin: chart.yMin,
    yMax: chart.yMax,
    series: [{ name, points: chart.points }, ...beside.map(({ label, points }) => ({ name: label, points }))],
    lines: chart.lines,
    marks,
  });
  return (
    <>
      {frame(
        <div ref={around}>
          <Suspense fallback={<div style={{ height: HEIGHT }} />}>
            <TimeChart
              label={`${plot.name}, ${scale === 'raw' ? 'raw counts' : `${fit?.percentKind ?? 'span'} percent${scale === 'then' ? ' as it was then' : ''}`} over time, with start and stop limit. The readings are in the table below.`}
              height={HEIGHT}
              timeZone={timeZone}
              fromMs={fromMs}
              toMs={toMs}
              yUnit={yUnit}
              marks={marks}
              nights={nights}
              quick={quick}
              tone={tone}
              {...chart}
              others={beside}
              name={name}
            />
          </Suspense>
        </div>,
      )}
      <ChartFiles picture={picture} around={around} />
    </>
  );
}

/** Waterings as marks; a mark too near to the next one keeps its line and gives up its words, so that none run into each other. */
function marksOf(events: readonly GardenEvent[], spanMs: number) {
  const waterings = events.flatMap((event) =>
    event.kind === 'pump-stopped' || event.kind === 'poured'
      ? [{ atMs: event.atMs, label: formatVolume(event.volumeMl) }]
      : [],
  );
  let lastWordsMs = Infinity;
  // Newest first, as the events come: the newest mark always speaks.
  return waterings.map((mark) => {
    if (lastWordsMs - mark.atMs < spanMs * LEAST_APART) return { ...mark, label: '' };
    lastWordsMs = mark.atMs;
    return mark;
  });
}
