import { readCurve } from '@plain-trowel/core/calibration/curve';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatCounts, formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import { FLAGS, type Series } from '@plain-trowel/core/records/series';
import { useGarden } from '../../../data/gardenContext.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const MOST = 60;

/** The table behind the chart: the newest readings, raw and what they mean today. */
export function ReadingTable({ parts, series }: { parts: PlotParts; series: Series }) {
  const { garden } = useGarden();
  const count = series.raw.length;
  const rows = Array.from({ length: Math.min(MOST, count) }, (_, at) => count - 1 - at);
  return (
    <details className="mt-4">
      <summary className="press py-1 font-semibold">
        The readings behind the chart{count > MOST && `, newest ${MOST} of ${formatNumber(count)}`}
      </summary>
      <table className="mt-1">
        <thead>
          <tr>
            <th>When</th>
            <th className="text-right">Raw counts</th>
            <th className="text-right">Means</th>
            <th>Origin</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const raw = series.raw[row] ?? 0;
            const flags = series.flags[row] ?? 0;
            return (
              <tr key={row}>
                <td className="num">{dayTime(series.timesMs[row] ?? 0, garden.timeZone)}</td>
                <td className="num text-right">{formatCounts(raw)}</td>
                <td className="num text-right">
                  {parts.fit && parts.fit.percentKind !== 'counts'
                    ? formatPercent(readCurve(parts.fit, raw).percent, parts.fit)
                    : '–'}
                </td>
                <td>
                  {[
                    (flags & FLAGS.simulated) !== 0 && 'stand-in',
                    (flags & FLAGS.imported) !== 0 && 'from a file',
                    (flags & FLAGS.beside) !== 0 && 'beside a recorded one',
                  ]
                    .filter(Boolean)
                    .join(', ') || 'board'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
