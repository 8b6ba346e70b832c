import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { lazy, Suspense, useMemo, useRef, type ReactNode } from 'react';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { fitOf } from '@plain-trowel/core/garden/bind/decided';
import { nightsIn } from '@plain-trowel/core/garden/bind/nights';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import type { ChartPicture } from '@plain-trowel/core/records/chartSvg';
import { readCurves } from '@plain-trowel/core/calibration/curve';
import { traceOf } from '@plain-trowel/core/records/trace';
import { wateringMarks } from '@plain-trowel/core/records/wateringMarks';
import type { ShownRecord } from '../../../data/queries.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { ChartFiles } from './ChartFiles.tsx';
import { BUCKETS, drawnOf, type LogScale } from './logDrawing.ts';
import { useSheetTone } from '../../../frame/sheetTone.ts';

const TimeChart = lazy(async () => ({ default: (await import('../../../charts/TimeChart.tsx')).TimeChart }));

const HEIGHT = 300;
/** In a longer stretch nights would be stripes. */
const MOST_NIGHTS_MS = 15 * 86_400_000;

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
  const chart = useMemo(
    () => drawnOf({ garden, plot, fit, board, channel }, record, scale),
    [garden, plot, fit, board, channel, record, scale],
  );
  const beside = useMemo(
    () =>
      others.flatMap((one) => {
        const own = fitOf(garden, one.channel);
        return scale !== 'raw' && own && own.percentKind === fit?.percentKind
          ? [
              {
                label: channelName(garden, one.channel),
                points: traceOf(one.record.series.timesMs, readCurves(own, one.record.series.raw), BUCKETS),
              },
            ]
          : [];
      }),
    [others, garden, scale, fit],
  );
  const marks = useMemo(() => wateringMarks(events, toMs - fromMs), [events, fromMs, toMs]);
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
    series: [
      { name, points: chart.points },
      ...(chart.pale.length > 0 ? [{ name: 'from stand-ins', points: chart.pale, isPale: true }] : []),
      ...beside.map(({ label, points }) => ({ name: label, points })),
    ],
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
      <PaleNote pale={chart.pale.length > 0} dots={chart.dots.length > 0} />
      <ChartFiles picture={picture} around={around} />
    </>
  );
}

/** What the paler ink stands for, where there is some. */
function PaleNote({ pale, dots }: { pale: boolean; dots: boolean }) {
  if (!pale && !dots) return null;
  return (
    <p className="mt-1 text-[14px] text-soft">
      {pale && 'The paler line was read by stand-in boards, not by a probe. '}
      {dots && 'Pale dots stand beside a recorded reading of the same time that has another value.'}
    </p>
  );
}
