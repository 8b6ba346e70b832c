import { extentOf } from '@plain-trowel/core/quantity/extent';
import { useQueries } from '@tanstack/react-query';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import {
  channelsOfReplay,
  replayDay,
  type DayReplay,
  type PastReading,
} from '@plain-trowel/core/garden/bind/replayDay';
import type { Garden, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { formatDuration, formatPercent } from '@plain-trowel/core/quantity/format';
import type { Series } from '@plain-trowel/core/records/series';
import { seriesQuery } from '../../../../data/queries.ts';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';
import { reasonText } from '../../../../words/reasonText.ts';
import { dayText, shortTime } from '@plain-trowel/core/quantity/timeText';
import { replaySentence, holdsOf } from './replayText.ts';

const DAY_MS = 86_400_000;
/** One reading in ten seconds is enough to decide by. */
const THIN_MS = 10_000;

/** What the program would have done with yesterday's readings: when it runs, and what holds it. */
export function DayTimeline({ parts, line, nowMs }: { parts: PlotParts; line: WaterLine; nowMs: number }) {
  const { garden } = useGarden();
  const { fromMs, toMs } = useMemo(() => yesterday(garden.timeZone, nowMs), [garden.timeZone, nowMs]);
  const channelIds = channelsOfReplay(garden, line.id);
  const readFromMs = fromMs - line.minIntervalS * 1000 - 3_600_000;
  const queries = useQueries({
    queries: channelIds.map((id) => seriesQuery(garden.id, id, readFromMs, toMs)),
  });
  const isLoading = queries.some((one) => one.isPending);
  const stamp = queries.map((one) => one.dataUpdatedAt).join();
  const { replay, past } = useMemo(
    () =>
      replayOf(
        garden,
        line,
        channelIds,
        queries.map((one) => one.data),
        fromMs,
        toMs,
      ),
    // The queries are new objects at every render; their stamps say whether something came.
    // oxlint-disable-next-line hooks/exhaustive-deps
    [garden, line, stamp, fromMs, toMs],
  );
  if (isLoading || !replay) return null;
  const deciding = past.get(parts.channel?.id ?? '') ?? [];
  return (
    <section aria-label="Yesterday under this program" className="mt-4 border-t border-rule pt-3">
      <h2>Yesterday, {dayText(fromMs + DAY_MS / 2, garden.timeZone)}, under this program</h2>
      <p className="mt-1 max-w-[70ch]">{replaySentence(replay)}</p>
      {replay.readings > 0 && (
        <>
          <Timeline parts={parts} replay={replay} readings={deciding} fromMs={fromMs} toMs={toMs} />
          <p className="mt-1 max-w-[70ch] text-[13.5px] text-soft">
            The readings are what they were, so water that this program would have given does not show in
            them; nor does the lock after doses that raise nothing.
          </p>
        </>
      )}
    </section>
  );
}

function replayOf(
  garden: Garden,
  line: WaterLine,
  channelIds: readonly string[],
  data: readonly (Series | undefined)[],
  fromMs: number,
  toMs: number,
): { replay: DayReplay | null; past: ReadonlyMap<string, readonly PastReading[]> } {
  const past = new Map(
    channelIds.map((id, at): [string, PastReading[]] => {
      const series = data[at];
      const kept: PastReading[] = [];
      for (let place = 0; series && place < series.timesMs.length; place += 1) {
        const timeMs = series.timesMs[place] ?? 0;
        if (timeMs - (kept.at(-1)?.timeMs ?? -Infinity) >= THIN_MS)
          kept.push({ timeMs, raw: series.raw[place] ?? 0 });
      }
      return [id, kept];
    }),
  );
  return { replay: replayDay(garden, line.id, past, fromMs, toMs), past };
}

/** The local day before today. A day in which the clocks change is told as 24 hours from its midnight. */
function yesterday(timeZone: string, nowMs: number): { fromMs: number; toMs: number } {
  const clock = localTimeIn(timeZone);
  const midnightOf = (timeMs: number) => {
    const whole = Math.floor(timeMs / 1000) * 1000;
    return whole - clock(whole).daySecond * 1000;
  };
  const today = midnightOf(nowMs);
  const fromMs = midnightOf(today - DAY_MS / 2);
  return { fromMs, toMs: fromMs + DAY_MS };
}

const TOP = 8;
const TRACE = 92;
const STRIP_Y = TOP + TRACE + 10;
const STRIP = 18;
const LEFT = 52;

function Timeline({
  parts,
  replay,
  readings,
  fromMs,
  toMs,
}: {
  parts: PlotParts;
  replay: DayReplay;
  readings: readonly PastReading[];
  fromMs: number;
  toMs: number;
}) {
  const { garden } = useGarden();
  const [ref, width] = useElementWidth<HTMLDivElement>(712);
  const { fit, plot } = parts;
  const x = scaleLinear([fromMs, toMs], [LEFT, width - 12]);
  const trace = readings
    .filter((one) => one.timeMs >= fromMs)
    .map((one) => ({ timeMs: one.timeMs, percent: fit ? readCurve(fit, one.raw).percent : 0 }));
  const limits = [plot.limits.startTenths / 10, plot.limits.stopTenths / 10];
  const { low, high } = extentOf([...trace.map((one) => one.percent), ...limits]) ?? { low: 0, high: 100 };
  const y = scaleLinear([Math.max(0, low - 3), Math.min(100, high + 3)], [TOP + TRACE, TOP]);
  const endText = (percent = 0) => formatPercent(Math.round(percent), fit ?? 'span');
  const holds = holdsOf(replay);
  const labels = width < 500 ? 4 : 8;
  return (
    <div ref={ref} className="mt-2">
      <svg
        width={width}
        height={STRIP_Y + STRIP + 24}
        role="img"
        aria-label={`Timeline of yesterday. ${replaySentence(replay)}`}
        className="block text-[12.5px]"
      >
        {(['start', 'stop'] as const).map((name, at) => (
          <g key={name}>
            <line
              x1={LEFT}
              x2={width - 12}
              y1={y(limits[at] ?? 0)}
              y2={y(limits[at] ?? 0)}
              strokeDasharray="5 4"
              className="stroke-steel"
            />
            <text x={LEFT - 6} y={y(limits[at] ?? 0) + 4} textAnchor="end" className="fill-steel">
              {name}
            </text>
          </g>
        ))}
        <path d={tracePath(trace, x, y)} fill="none" strokeWidth={1.75} className="stroke-ink" />
        <text x={LEFT + 4} y={TOP + 8} className="fill-soft">
          {endText(y.domain()[1])}
        </text>
        <text x={LEFT + 4} y={TOP + TRACE - 3} className="fill-soft">
          {endText(y.domain()[0])}
        </text>
        <rect
          x={LEFT}
          y={STRIP_Y}
          width={width - 12 - LEFT}
          height={STRIP}
          className="fill-label stroke-rule"
        />
        {holds.map((one) => (
          <rect
            key={one.fromMs}
            x={x(one.fromMs)}
            y={STRIP_Y}
            width={Math.max(1, x(one.toMs) - x(one.fromMs))}
            height={STRIP}
            fill="url(#band-low)"
          />
        ))}
        {replay.stretches
          .filter((one) => one.isOn)
          .map((one) => (
            <g key={one.fromMs}>
              <line
                x1={x(one.fromMs)}
                x2={x(one.fromMs)}
                y1={TOP}
                y2={STRIP_Y}
                strokeWidth={1}
                className="stroke-rill"
              />
              <rect
                x={x(one.fromMs) - 1.5}
                y={STRIP_Y - 3}
                width={Math.max(4, x(one.toMs) - x(one.fromMs))}
                height={STRIP + 6}
                className="fill-rill"
              />
            </g>
          ))}
        {Array.from({ length: labels + 1 }, (_, at) => fromMs + (at * DAY_MS) / labels).map((timeMs, at) => (
          <text
            key={timeMs}
            x={x(timeMs)}
            y={STRIP_Y + STRIP + 17}
            textAnchor={at === 0 ? 'start' : at === labels ? 'end' : 'middle'}
            className="fill-ink font-mono"
          >
            {shortTime(timeMs, garden.timeZone)}
          </text>
        ))}
      </svg>
      <p className="text-[13.5px] text-soft">
        Blue: it runs. Hatched: it wants to and is held. Plain: nothing to do.
      </p>
      {replay.stretches.some((one) => one.isOn) || holds.length > 0 ? <StretchTable replay={replay} /> : null}
    </div>
  );
}

const tracePath = (
  trace: readonly { timeMs: number; percent: number }[],
  x: (timeMs: number) => number,
  y: (percent: number) => number,
): string =>
  trace
    .map((one, at) => {
      const before = trace[at - 1];
      // A gap of an hour is a gap.
      const pen = before && one.timeMs - before.timeMs < 3_600_000 ? 'L' : 'M';
      return `${pen}${x(one.timeMs).toFixed(1)} ${y(one.percent).toFixed(1)}`;
    })
    .join('');

function StretchTable({ replay }: { replay: DayReplay }) {
  const { garden } = useGarden();
  return (
    <details className="mt-1">
      <summary className="press py-1 text-[14px]">The day as a table</summary>
      <table className="mt-1">
        <thead>
          <tr>
            <th>From</th>
            <th className="text-right">For</th>
            <th className="pl-4">What</th>
          </tr>
        </thead>
        <tbody>
          {replay.stretches.map((one) => (
            <tr key={one.fromMs}>
              <td className="num">{shortTime(one.fromMs, garden.timeZone)}</td>
              <td className="num text-right">{formatDuration((one.toMs - one.fromMs) / 1000)}</td>
              <td className="pl-4">
                {one.isOn ? <b className="font-semibold text-rill">runs</b> : 'off'}: {reasonText(one.reason)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
