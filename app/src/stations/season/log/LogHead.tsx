import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import {
  formatCounts,
  formatDuration,
  formatNumber,
  formatPercent,
} from '@plain-trowel/core/quantity/format';
import { summaryOf } from '@plain-trowel/core/records/summary';
import type { Series } from '@plain-trowel/core/records/series';
import { workChange, workSwing } from '@plain-trowel/core/records/workSummary';
import type { WaterSums } from '@plain-trowel/core/records/waterGiven';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';

/** The log's own reading of itself, in a sentence or two, before any picture. */
export function LogHead({
  parts,
  series,
  water,
  hours,
}: {
  parts: PlotParts;
  series: Series | null;
  water: WaterSums | null;
  hours: number;
}) {
  const { fit, plot, channel } = parts;
  // What has a number of its own is summed up in that number.
  const inPercent = fit !== null && !isShownRaw(fit.percentKind);
  const rawUnit = channel ? rawUnitOf(channel) : 'counts';
  const values = series && (inPercent ? series.raw.map((raw) => readCurve(fit, raw).percent) : series.raw);
  const summary = series && values && summaryOf(series.timesMs, values);
  const say = (value: number) =>
    inPercent
      ? formatPercent(value, fit)
      : `${rawUnit === 'counts' ? formatCounts(Math.round(value)) : formatNumber(value, 1)} ${rawUnit}`;
  const scale = inPercent
    ? { unit: percentUnit(fit.percentKind), decimals: 1 }
    : { unit: rawUnit, decimals: rawUnit === 'counts' ? 0 : 1 };
  const given = water?.ofPlot(plot.id) ?? null;
  return (
    <header className="mb-3 border-b border-ink pb-2.5">
      <h1>
        {plot.name}
        {summary ? `: ${say(summary.last)}, latest reading` : ''}
      </h1>
      <p className="text-soft">
        {summary ? (
          <>
            Changed by <WorkedNumber id="change" lead worked={workChange(summary, scale)} /> in{' '}
            <span className="num">{formatDuration(summary.durationS)}</span>, between {say(summary.lowest)}{' '}
            and {say(summary.highest)}, a swing of{' '}
            <WorkedNumber id="swing" worked={workSwing(summary, scale)} />;{' '}
            <span className="num">{formatNumber(summary.readings)}</span> readings.{' '}
          </>
        ) : (
          `No reading in the last ${formatDuration(hours * 3600)}. `
        )}
        {given && (
          <span className="whitespace-nowrap">
            Water given: <WorkedNumber id="water" worked={given} />.
          </span>
        )}
      </p>
    </header>
  );
}
