import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { readCurves } from '@plain-trowel/core/calibration/curve';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { DAY_MS, ofProbes } from '@plain-trowel/core/records/series';
import { seasonDays, type SeasonDay } from '@plain-trowel/core/records/seasonDays';
import { zoneClock } from '@plain-trowel/core/records/zoneClock';
import { useGarden } from '../../../../data/gardenContext.ts';
import { shownQuery } from '../../../../data/queries.ts';

export type PlotDaysRead = {
  readonly days: readonly SeasonDay[];
  /** Days of the garden's zone, UTC midnights, of which something is stored that cannot be read. */
  readonly unreadable: ReadonlySet<number>;
};

const NOTHING: PlotDaysRead = { days: [], unreadable: new Set() };

/** The days of a plot by its first probe and the calibration in use now; null while they are read, empty where nothing tells a percent. */
export function usePlotDays(plotId: string, fromMs: number, toMs: number): PlotDaysRead | null {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId);
  const { data, isPlaceholderData } = useQuery(shownQuery(garden.id, parts?.channel?.id ?? '', fromMs, toMs));
  const fit = parts?.fit ?? null;
  const edges = parts?.plot.bandEdges;
  const { timeZone } = garden;
  return useMemo(() => {
    if (!fit || !edges) return NOTHING;
    // Days other than those asked for would be drawn at the wrong places.
    if (!data || isPlaceholderData) return null;
    const { timesMs, raw } = ofProbes(data.series);
    const { dayAt } = zoneClock(timeZone);
    return {
      days: seasonDays(timesMs, readCurves(fit, raw), edges, timeZone),
      // A day of storage is one of UTC: it touches two of the zone.
      unreadable: new Set(data.damagedDays.flatMap((dayMs) => [dayAt(dayMs), dayAt(dayMs + DAY_MS - 1)])),
    };
  }, [data, isPlaceholderData, fit, edges, timeZone]);
}
