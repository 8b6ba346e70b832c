import { useMemo } from 'react';
import { useQueries, useQuery } from '@tanstack/react-query';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { remembered } from '@plain-trowel/core/quantity/remembered';
import { addToSeason, seasonOf, type SeasonDay } from '@plain-trowel/core/records/seasonDays';
import { DAY_MS, dayOf } from '@plain-trowel/core/records/series';
import type { Stretch } from '@plain-trowel/core/records/stretch';
import { zoneClock, type ZoneClock } from '@plain-trowel/core/records/zoneClock';
import { useGarden } from '../../../../data/gardenContext.ts';
import { seasonQuery, shownQuery, type ShownRecord } from '../../../../data/queries.ts';
import type { SeasonChannel, SeasonRead } from '../../../../data/readSeason.ts';

/** The days of a plot by its first probe and the calibration in use now. */
export type PlotDaysRead = {
  /** Empty where nothing was read. */
  readonly days: readonly SeasonDay[];
  /** Days of the garden's zone, UTC midnights, of which something is stored that cannot be read. */
  readonly unreadable: ReadonlySet<number>;
};

/** By plot; null while they are read. Plots of which nothing tells a percent are not among them. */
export type PlotSeasons = ReadonlyMap<string, PlotDaysRead | null>;

/** Plots that have a percent. */
const plotsWithPercent = remembered((garden: Garden) =>
  garden.plots.flatMap(({ id, bandEdges }) => {
    const parts = plotParts(garden, id);
    return parts?.channel && parts.fit
      ? [{ plotId: id, channelId: parts.channel.id, curve: parts.fit, edges: bandEdges }]
      : [];
  }),
);

/** The days of all plots over a span: what is over from every reading, in a worker; today goes on with it. */
export function useSeason(
  { fromMs, toMs }: Stretch,
  nowMs: number,
): { readonly seasons: PlotSeasons; readonly isFailed: boolean } {
  const { garden } = useGarden();
  const { timeZone } = garden;
  const plots = plotsWithPercent(garden);
  const todayMs = dayOf(nowMs);
  const { data: past, isError } = useQuery(
    seasonQuery(
      garden.id,
      plots.map(({ channelId, curve, edges }) => ({ channelId, curve, edges })),
      { fromMs, toMs: Math.min(toMs, todayMs - 1) },
      timeZone,
    ),
  );
  const hasToday = toMs >= todayMs;
  const today = useQueries({
    queries: plots.map(({ channelId }) => ({
      ...shownQuery(garden.id, channelId, Math.max(fromMs, todayMs), toMs),
      enabled: hasToday,
    })),
    combine: (results) => results.map(({ data }) => data),
  });
  const seasons = useMemo(() => {
    const clock = zoneClock(timeZone);
    return new Map(
      plots.map((plot, at) => {
        const before = past?.get(plot.channelId);
        const now = today[at];
        const isHere = before !== undefined && (now !== undefined || !hasToday);
        return [plot.plotId, isHere ? joined(plot, before, hasToday ? now : undefined, clock) : null];
      }),
    );
  }, [plots, past, today, hasToday, timeZone]);
  return { seasons, isFailed: isError && past === undefined };
}

function joined(
  { curve, edges }: SeasonChannel,
  past: SeasonRead,
  today: ShownRecord | undefined,
  clock: ZoneClock,
): PlotDaysRead {
  const season = structuredClone(past.season);
  if (today) addToSeason(season, today.series, curve, edges, clock);
  const damaged = [...past.damagedDays, ...(today?.damagedDays ?? [])];
  return {
    days: seasonOf(season, edges, clock),
    // A day of storage is one of UTC: it touches two of the zone.
    unreadable: new Set(damaged.flatMap((dayMs) => [clock.dayAt(dayMs), clock.dayAt(dayMs + DAY_MS - 1)])),
  };
}
