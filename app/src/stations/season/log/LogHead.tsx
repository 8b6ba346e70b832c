import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { readCurves } from '@plain-trowel/core/calibration/curve';
import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import {
  formatCounts,
  formatDuration,
  formatNumber,
  formatPercent,
} from '@plain-trowel/core/quantity/format';
import { ofProbes } from '@plain-trowel/core/records/series';
import { summaryOf, type Summary } from '@plain-trowel/core/records/summary';
import { workChange, workSwing } from '@plain-trowel/core/records/workSummary';
import type { WaterSums } from '@plain-trowel/core/records/waterGiven';
import { dayTime, fullDay } from '@plain-trowel/core/quantity/timeText';
import type { ShownRecord } from '../../../data/queries.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import type { StretchTools } from './useStretch.ts';

const timesText = (times: number): string =>
  times === 1 ? 'once' : times === 2 ? 'twice' : `${formatNumber(times)} times`;

/** "Rose by", "fell by"; what would be shown as nothing has hardly moved. */
function movedWord(
  { change }: Summary,
  { decimals }: { readonly decimals: number },
  isInside: boolean,
): string {
  const isStill = Math.abs(change) < 0.5 * 10 ** -decimals;
  const word = isStill ? 'hardly moved:' : change > 0 ? 'rose by' : 'fell by';
  return isInside ? word : `${word.charAt(0).toUpperCase()}${word.slice(1)}`;
}

/** The log's own reading of itself, in a sentence or two, before any picture. */
export function LogHead({
  parts,
  record,
  water,
  stretch,
}: {
  parts: PlotParts;
  record: ShownRecord | null;
  water: WaterSums | null;
  stretch: StretchTools;
}) {
  const { garden } = useGarden();
  const { fit, plot, channel } = parts;
  // What has a number of its own is summed up in that number.
  const inPercent = fit !== null && !isShownRaw(fit.percentKind);
  const rawUnit = channel ? rawUnitOf(channel) : 'counts';
  const series = record && ofProbes(record.series);
  const isMixed = record !== null && series !== record.series;
  const values = series && (inPercent ? readCurves(fit, series.raw) : series.raw);
  const summed = series && values && summaryOf(series.timesMs, values);
  const summary = summed && { ...summed, readings: record.readings };
  const lastMs = series?.timesMs.at(-1) ?? null;
  const days = `from ${fullDay(stretch.fromMs, garden.timeZone)} to ${fullDay(stretch.toMs - 1, garden.timeZone)}`;
  const say = (value: number) =>
    inPercent
      ? formatPercent(value, fit)
      : `${rawUnit === 'counts' ? formatCounts(Math.round(value)) : formatNumber(value, 1)} ${rawUnit}`;
  const scale = inPercent
    ? { unit: percentUnit(fit.percentKind), decimals: 1 }
    : { unit: rawUnit, decimals: rawUnit === 'counts' ? 0 : 1 };
  const none = record && record.damagedDays.length > 0 ? 'No reading that can be shown' : 'No reading';
  const times = water?.timesOf(plot.id) ?? 0;
  const given = water?.ofPlot(plot.id) ?? null;
  return (
    <header className="mb-3 border-b border-ink pb-2.5">
      <h1>
        {plot.name}
        {summary && lastMs !== null
          ? `: ${say(summary.last)}, ${stretch.follows ? 'latest reading' : `on ${dayTime(lastMs, garden.timeZone)}`}`
          : ''}
      </h1>
      <p className="text-soft">
        {summary ? (
          <>
            <span className="text-[16.5px] text-ink">
              {stretch.follows ? '' : `${days.charAt(0).toUpperCase()}${days.slice(1)}: `}
              {movedWord(summary, scale, !stretch.follows)}{' '}
              <WorkedNumber id="change" lead worked={workChange(summary, scale)} /> in{' '}
              <span className="num">{formatDuration(summary.durationS)}</span>
              {times > 0 && `, watered ${timesText(times)}`}
            </span>
            ; between {say(summary.lowest)} and {say(summary.highest)}, a swing of{' '}
            <WorkedNumber id="swing" worked={workSwing(summary, scale)} />;{' '}
            <span className="num">{formatNumber(summary.readings)}</span> readings
            {isMixed && ', those of stand-ins among them left out of change and swing'}.{' '}
          </>
        ) : stretch.follows ? (
          `${none} in the last ${formatDuration((stretch.toMs - stretch.fromMs) / 1000)}. `
        ) : (
          `${none} ${days}. `
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
