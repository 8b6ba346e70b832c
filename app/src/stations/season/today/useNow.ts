import { useQuery } from '@tanstack/react-query';
import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { decidedView, type PlotView } from '@plain-trowel/core/live/plotView';
import { byId } from '@plain-trowel/core/quantity/byId';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import type { Telling } from '@plain-trowel/core/protocol/telling';
import { needsOf, type Need, type NowKnown } from '@plain-trowel/core/telling/needs';
import { useGarden } from '../../../data/gardenContext.ts';
import { gateway } from '../../../links/gatewayClient.ts';
import { heardNow } from '../../../links/heardNow.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';

const LOOK_EVERY_MS = 5000;

/** What the gateway knows of a garden; null where there is none, or it does not let this page in. It is asked again only while it answers. */
function useAtGateway(gardenId: string): { standing: Standing | null; telling: Telling | null } {
  const standing = useQuery({
    queryKey: ['gateway', gardenId, 'today'],
    queryFn: () => gateway.standing(gardenId),
    refetchInterval: ({ state }) => (state.data?.ok ? LOOK_EVERY_MS : false),
    gcTime: 0,
  }).data;
  const telling = useQuery({
    queryKey: ['gateway telling', 'today'],
    queryFn: () => gateway.telling(),
    refetchInterval: ({ state }) => (state.data?.ok ? LOOK_EVERY_MS : false),
    gcTime: 0,
  }).data;
  return {
    standing: standing?.ok ? standing.value : null,
    telling: telling?.ok ? telling.value : null,
  };
}

export type Now = {
  readonly known: NowKnown;
  readonly needs: readonly Need[];
  readonly viewOf: (plotId: string) => PlotView | null;
  readonly standing: Standing | null;
  readonly isWatched: boolean;
};

/** Everything that Today goes by, at this moment. */
export function useNow(): Now {
  const { garden } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const { standing, telling } = useAtGateway(garden.id);
  const views = new Map(
    garden.plots.map(({ id }): [string, PlotView | null] => {
      const parts = plotParts(garden, id);
      return [id, parts && decidedView(garden, parts, live, stored)];
    }),
  );
  const viewOf = (plotId: string) => views.get(plotId) ?? null;
  const dead = (telling?.letters ?? []).filter(
    ({ state, gardenId }) => state === 'dead' && gardenId === garden.id,
  );
  const known: NowKnown = {
    garden,
    nowMs: live.nowMs,
    viewOf,
    active: live.alerts,
    pending: live.pendingAlerts,
    // A board of which the garden knows nothing any more is not missed.
    boards: (standing?.boards ?? [])
      .filter(({ boardId }) => byId(garden.boards, boardId))
      .map(({ boardId, heard }) => ({ boardId, heardMs: heard?.atMs ?? null })),
    unknownTanks: garden.reservoirs
      .filter((tank) => tankNow(tank, heardNow(live)) === null)
      .map(({ id }) => id),
    unsent: (['mail', 'webhook'] as const).map((way) => ({
      way: way === 'mail' ? 'mail' : 'web request',
      count: dead.filter((one) => one.way === way).length,
    })),
  };
  return {
    known,
    needs: needsOf(known),
    viewOf,
    standing,
    isWatched: telling?.watched.includes(garden.id) ?? false,
  };
}
