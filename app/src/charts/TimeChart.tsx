/** A line over time, drawn to answer a question: limits as lines, bands as patterned washes, events as ticks with words, gaps as gaps. */
import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartConfiguration,
} from 'chart.js';
import Annotation from 'chartjs-plugin-annotation';
import { memo, useEffect, useRef } from 'react';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { tickText, timeTicks } from '@plain-trowel/core/records/timeTicks';
import type { TracePoint } from '@plain-trowel/core/records/trace';
import { AXIS_PX } from './axis.ts';
import { annotationsOf } from './annotations.ts';
import { inkOf } from './chartInk.ts';
import type { TimeChartProps } from './chartProps.ts';

Chart.register(LinearScale, LineController, LineElement, PointElement, Annotation);

/** A time of day with seconds needs about this much room. */
const PX_A_TICK = 96;

/** Of traces beside the first. */
const DASHES: readonly (readonly number[])[] = [
  [7, 4],
  [2, 3],
  [10, 3, 2, 3],
];

/** Drawing is what a live sheet costs most: three times a second is enough for the eye. */
const LEAST_APART_MS = 330;
const QUICK_APART_MS = 16;

/** Drawn again only when something of it is another. */
export const TimeChart = memo(function TimeChart(props: TimeChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', TracePoint[]> | null>(null);
  useEffect(
    () => () => {
      chart.current?.destroy();
      chart.current = null;
    },
    [],
  );
  const drawnAt = useRef(-Infinity);
  useEffect(() => {
    const draw = () => {
      if (!canvas.current) return;
      drawnAt.current = performance.now();
      const config = configOf(props, canvas.current.parentElement?.clientWidth ?? 700);
      // Made with what it first shows: an empty one before it would be laid out for nothing.
      if (chart.current) show(chart.current, config);
      else chart.current = new Chart<'line', TracePoint[]>(canvas.current, { type: 'line', ...config });
    };
    const waitMs = drawnAt.current + (props.quick ? QUICK_APART_MS : LEAST_APART_MS) - performance.now();
    if (waitMs <= 0) {
      draw();
      return;
    }
    const timer = setTimeout(draw, waitMs);
    return () => clearTimeout(timer);
  }, [props]);
  return (
    <div className="relative w-full" style={{ height: props.height }}>
      <canvas ref={canvas} role="img" aria-label={props.label} />
    </div>
  );
});

type Config = Pick<ChartConfiguration<'line', TracePoint[]>, 'data' | 'options'>;

function show(chart: Chart<'line', TracePoint[]>, { data, options }: Config): void {
  chart.data = data;
  chart.options = options ?? {};
  chart.update('none');
}

function configOf(props: TimeChartProps, widthPx: number): Config {
  const ink = inkOf('--ink');
  const soft = inkOf('--soft');
  const rule = inkOf('--rule');
  const pale = inkOf('--pale-trace');
  const mono = { family: "'Spline Sans Mono Variable', monospace", size: 12 };
  const { ticksMs, stepMs } = timeTicks(
    props.fromMs,
    props.toMs,
    Math.max(2, Math.min(7, Math.floor(widthPx / PX_A_TICK))),
    props.timeZone,
  );
  return {
    data: {
      datasets: [
        {
          data: [...props.points],
          borderColor: ink,
          borderWidth: 1.6,
          pointRadius: 0,
          pointHitRadius: 0,
          spanGaps: false,
          borderJoinStyle: 'round',
        },
        {
          data: [...(props.pale ?? [])],
          borderColor: pale,
          borderWidth: 1.6,
          pointRadius: 0,
          pointHitRadius: 0,
          spanGaps: false,
        },
        {
          data: [...(props.dots ?? [])],
          showLine: false,
          borderColor: soft,
          backgroundColor: pale,
          pointRadius: 2.5,
          pointHitRadius: 0,
        },
        ...(props.others ?? []).map(({ points }, at) => ({
          data: [...points],
          borderColor: soft,
          borderWidth: 1.4,
          borderDash: [...(DASHES[at % DASHES.length] ?? [])],
          pointRadius: 0,
          pointHitRadius: 0,
          spanGaps: false,
        })),
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      parsing: false,
      normalized: true,
      events: [],
      layout: { padding: { top: 6, right: 4 } },
      scales: {
        x: {
          type: 'linear',
          min: props.fromMs,
          max: props.toMs,
          border: { color: ink },
          grid: { color: rule, tickColor: ink, tickLength: 7, drawOnChartArea: false },
          afterBuildTicks: (axis) => {
            axis.ticks = ticksMs.map((value) => ({ value }));
          },
          ticks: {
            color: ink,
            font: mono,
            maxRotation: 0,
            autoSkip: false,
            callback: (value) => tickText(Number(value), stepMs, props.timeZone),
          },
        },
        y: {
          type: 'linear',
          afterFit: (axis) => {
            axis.width = AXIS_PX;
          },
          min: props.yMin,
          max: props.yMax,
          border: { color: ink },
          grid: { color: rule, tickColor: ink, tickLength: 7 },
          title: {
            display: true,
            text: props.yUnit,
            color: soft,
            font: { family: "'Atkinson Hyperlegible Next Variable', sans-serif", size: 12 },
          },
          ticks: {
            color: ink,
            font: mono,
            maxTicksLimit: 6,
            includeBounds: false,
            // As many decimals as tell one mark from the next.
            callback: (value, _at, ticks) => formatNumber(Number(value), decimalsOf(ticks)),
          },
        },
      },
      plugins: {
        annotation: {
          animations: { numbers: { properties: [], type: 'number' } },
          annotations: annotationsOf(props),
        },
      },
    },
  };
}

function decimalsOf([first, second]: readonly { readonly value: number }[]): number {
  const step = first && second ? Math.abs(second.value - first.value) : 1;
  return step > 0 && step < 1 ? Math.min(3, Math.ceil(-Math.log10(step))) : Number.isInteger(step) ? 0 : 1;
}
