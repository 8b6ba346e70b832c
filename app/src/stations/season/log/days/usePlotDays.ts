import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { readCurves } from '@plain-trowel/core/calibration/curve';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { ofProbes } from '@plain-trowel/core/records/series';
import { seasonDays, type SeasonDay } from '@plain-trowel/core/records/seasonDays';
import { useGarden } from '../../../../data/gardenContext.ts';
import { shownQuery } from '../../../../data/queries.ts';

/** The days of a plot by its first probe and the calibration in use now; null while they are read, empty where nothing tells a percent. */
export function usePlotDays(plotId: string, fromMs: number, toMs: number): readonly SeasonDay[] | null {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId);
  const { data, isPlaceholderData } = useQuery(shownQuery(garden.id, parts?.channel?.id ?? '', fromMs, toMs));
  const fit = parts?.fit ?? null;
  const edges = parts?.plot.bandEdges;
  const { timeZone } = garden;
  return useMemo(() => {
    if (!fit || !edges) return [];
    // Days other than those asked for would be drawn at the wrong places.
    if (!data || isPlaceholderData) return null;
    const { timesMs, raw } = ofProbes(data.series);
    return seasonDays(timesMs, readCurves(fit, raw), edges, timeZone);
  }, [data, isPlaceholderData, fit, edges, timeZone]);
}
