import { useState } from 'react';
import { fitTable, MOST_TABLE_POINTS } from '@plain-trowel/core/calibration/boardTable';
import { tableCsv } from '@plain-trowel/core/garden/bind/certificate';
import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { download, fileNameOf } from '../../../../data/download.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';

const BOUNDS = [2, 3, 5, 10] as const;

/** The calibration as a board reckons it: two to eight whole numbers each way, and how far that strays from the curve. */
export function BoardTablePanel({ parts, calibration }: { parts: PlotParts; calibration: Calibration }) {
  const [bound, setBound] = useState<number>(3);
  const curve = curveOf(calibration);
  // What raw counts are compared with are the two cut-offs themselves.
  if (!curve || curve.percentKind === 'counts') return null;
  const fitted = fitTable(curve, bound);
  const unit = percentUnit(curve.percentKind);
  return (
    <section aria-label="Table for a board" className="mt-5 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="mr-auto">Table for a board</h2>
        <Choice
          legend="Keep within"
          showLegend
          options={BOUNDS.map((value) => ({ value, label: `${formatNumber(value / 10, 1)} %` }))}
          value={bound}
          onChange={setBound}
        />
        <Button
          onClick={() =>
            download(
              `${fileNameOf(parts.probe?.label ?? 'probe')}.table.csv`,
              tableCsv(fitted.table),
              'text/csv',
            )
          }
        >
          Save as CSV
        </Button>
      </div>
      <p className="mt-1 text-[14.5px]">
        {fitted.table.length} points, straight between, in whole numbers. Largest error{' '}
        <b className="num font-semibold">
          {formatNumber(fitted.largestTenths / 10, 2)} {unit}
        </b>{' '}
        at <span className="num">{formatCounts(fitted.atRaw)} counts</span>
        {fitted.holds
          ? '.'
          : `: ${MOST_TABLE_POINTS} points cannot keep it within ${formatNumber(bound / 10, 1)} %.`}
      </p>
      <div className="mt-1 overflow-x-auto">
        <table className="w-auto">
          <tbody>
            <tr>
              <th scope="row" className="pr-4">
                raw counts
              </th>
              {fitted.table.map((point) => (
                <td key={point.raw} className="num px-3 text-right">
                  {formatCounts(point.raw)}
                </td>
              ))}
            </tr>
            <tr>
              <th scope="row" className="pr-4">
                tenths of {unit}
              </th>
              {fitted.table.map((point) => (
                <td key={point.raw} className="num px-3 text-right">
                  {point.tenths}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  );
}
