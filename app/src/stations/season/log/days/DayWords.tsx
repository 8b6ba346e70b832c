import { bandWord } from '@plain-trowel/core/quantity/bands';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { wordOfDay } from '@plain-trowel/core/records/seasonDays';
import type { WaterDays } from '@plain-trowel/core/records/waterGiven';
import { useGarden } from '../../../../data/gardenContext.ts';
import type { PlotDaysRead, PlotSeasons } from './useSeason.ts';

/** A day that is pointed at, in words, for every plot. */
export function DayWords({
  day,
  seasons,
  water,
}: {
  day: number | null;
  seasons: PlotSeasons;
  water: WaterDays | null;
}) {
  const { garden } = useGarden();
  if (day === null)
    return (
      <p className="min-h-[48px] text-[14px] text-soft">
        Point at a day to read it; press it to see it in the chart above.
      </p>
    );
  return (
    <div aria-live="polite" aria-label="The day pointed at" role="group" className="min-h-[48px] text-[14px]">
      <b className="num">{fullDay(day + 43_200_000, 'UTC')}</b>
      {garden.plots.map(({ id }) => (
        <PlotWords key={id} plotId={id} day={day} read={seasons.get(id)} water={water} />
      ))}
    </div>
  );
}

function PlotWords({
  plotId,
  day,
  read,
  water,
}: {
  plotId: string;
  day: number;
  read: PlotDaysRead | null | undefined;
  water: WaterDays | null;
}) {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId);
  const found = read?.days.find(({ dayMs }) => dayMs === day);
  const isUnreadable = read?.unreadable.has(day) ?? false;
  if (!parts) return null;
  const ml = water?.of(plotId, day) ?? 0;
  const said =
    parts.fit === null
      ? 'no percent yet'
      : found
        ? `${formatPercent(found.lowest, parts.fit)} to ${formatPercent(found.highest, parts.fit)}, mean ${formatPercent(found.mean, parts.fit)}, mostly ${bandWord(wordOfDay(found), parts.plot.words)}${found.knownH < 20 ? `, ${formatNumber(found.knownH)} h known` : ''}${isUnreadable ? ', part of it damaged' : ''}`
        : read === null
          ? 'being read …'
          : isUnreadable
            ? 'what was read is damaged'
            : 'nothing read';
  return (
    <span className="ml-4 inline-block">
      <span className="font-semibold">{parts.plot.name}</span> {said}
      {ml > 0 && `; ${formatNumber(ml)} ml given`}
    </span>
  );
}
