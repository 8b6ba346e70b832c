/** What lies on a chart beside its traces: nights, bands, limits, waterings, names. */
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { inkOf, washOf } from './chartInk.ts';
import type { TimeChartProps } from './chartProps.ts';

/** Words lie above every line. */
const WORDS_Z = 1;

export function annotationsOf(props: TimeChartProps): Record<string, AnnotationOptions> {
  const steel = inkOf('--steel');
  const paper = inkOf('--paper');
  const rill = inkOf('--rill');
  const soft = inkOf('--soft');
  const font = {
    family: "'Atkinson Hyperlegible Next Variable', sans-serif",
    size: 12,
    weight: 600,
  } as const;
  const all: Record<string, AnnotationOptions> = {};
  props.nights?.forEach((night, at) => {
    all[`night${at}`] = {
      type: 'box',
      xMin: night.fromMs,
      xMax: night.toMs,
      borderWidth: 0,
      backgroundColor: inkOf('--night-wash'),
      drawTime: 'beforeDatasetsDraw',
    };
  });
  props.washes?.forEach((wash, at) => {
    all[`wash${at}`] = {
      type: 'box',
      yMin: wash.from,
      yMax: wash.to,
      borderWidth: 0,
      backgroundColor: washOf(wash.band),
      drawTime: 'beforeDatasetsDraw',
      label: { display: true, content: wash.band, position: { x: 'start', y: 'start' }, color: soft, font },
    };
  });
  // Each trace is named where it ends.
  const named = props.others?.length
    ? [{ label: props.name ?? '', points: props.points }, ...props.others]
    : [];
  named.forEach(({ label, points }, at) => {
    const last = points.findLast((point) => point.y !== null);
    if (!last || last.y === null) return;
    all[`name${at}`] = {
      type: 'label',
      xValue: last.x,
      yValue: last.y,
      content: label,
      position: { x: 'end', y: at % 2 === 0 ? 'end' : 'start' },
      color: at === 0 ? inkOf('--ink') : soft,
      backgroundColor: paper,
      font,
      padding: 2,
    };
  });
  props.lines?.forEach((line, at) => {
    all[`line${at}`] = {
      type: 'line',
      yMin: line.at,
      yMax: line.at,
      borderColor: steel,
      borderWidth: 1.5,
      label: {
        display: true,
        content: line.label,
        position: 'end',
        // Beside its line, on the side where the readings are less likely to be.
        yAdjust: line.side === 'above' ? -10 : 10,
        backgroundColor: 'transparent',
        color: steel,
        // Waterings near the edge run through it.
        textStrokeColor: paper,
        textStrokeWidth: 4,
        z: WORDS_Z,
        font,
        padding: { x: 5, y: 1 },
      },
    };
  });
  props.marks?.forEach((mark, at) => {
    all[`mark${at}`] = {
      type: 'line',
      xMin: mark.atMs,
      xMax: mark.atMs,
      borderColor: rill,
      borderWidth: 1.5,
      borderDash: [3, 3],
      label: {
        display: mark.label !== '',
        content: mark.label,
        position: 'start',
        backgroundColor: paper,
        color: rill,
        z: WORDS_Z,
        font,
        padding: { x: 4, y: 1 },
      },
    };
  });
  return all;
}
