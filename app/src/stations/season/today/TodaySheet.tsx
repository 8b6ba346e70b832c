import { dueSoon, needsHeadline } from '@plain-trowel/core/telling/needs';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { useGarden } from '../../../data/gardenContext.ts';
import type { LiveSnapshot } from '../../../links/liveSnapshot.ts';
import { useLive } from '../../../links/liveContext.ts';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { AtGateway } from './AtGateway.tsx';
import { BoardsNow } from './BoardsNow.tsx';
import { Holiday, SkippedNow } from './Holiday.tsx';
import { NeedRow } from './NeedRow.tsx';
import { NextSteps } from './NextSteps.tsx';
import { NotConnected } from './NotConnected.tsx';
import { OrdersNow } from './OrdersNow.tsx';
import { PlotRow } from './PlotRow.tsx';
import { TanksNow } from './TanksNow.tsx';
import { useNow } from './useNow.ts';

/** What needs a person now, in order, and how every plot stands. */
export default function TodaySheet() {
  const { garden } = useGarden();
  return garden.plots.length === 0 ? <EmptyGarden what="today" /> : <Today />;
}

function Today() {
  const { garden } = useGarden();
  const { source, status, message } = useLive();
  const unknown = unknownNow(source, status, message);
  const now = useNow();
  const soon = dueSoon(garden, now.known.nowMs);
  return (
    <>
      <header className="mb-2 border-b border-ink pb-3">
        <h1>{unknown ?? needsHeadline(now.known, now.needs)}</h1>
        {unknown === null ? (
          <>
            <TanksNow />
            <SkippedNow />
          </>
        ) : (
          source === null && <NotConnected hasGateway={(now.standing?.boards.length ?? 0) > 0} />
        )}
      </header>
      {unknown === null && (
        <ul aria-label="What needs you">
          {now.needs.map((need, at) => (
            <NeedRow key={need.key} need={need} isFirst={at === 0} />
          ))}
          {soon.map(({ channel, calibration }) => (
            <li key={`${channel.id} ${calibration.id}`} className="border-b border-rule py-2 text-soft">
              {channelName(garden, channel)}: calibrate again by{' '}
              <span className="num">{calibration.recalibrateBy?.slice(0, 10)}</span>
            </li>
          ))}
        </ul>
      )}
      <NextSteps isWatched={now.isWatched} />
      <h2 className="mt-4 text-[13px] font-semibold text-soft">Plots now</h2>
      <ul aria-label="Plots now">
        {garden.plots.map((plot) => {
          const parts = plotParts(garden, plot.id);
          const view = now.viewOf(plot.id);
          return parts && view && <PlotRow key={plot.id} parts={parts} view={view} />;
        })}
      </ul>
      <Holiday />
      <OrdersNow standing={now.standing} />
      <BoardsNow standing={now.standing} />
      {now.standing && <AtGateway standing={now.standing} />}
    </>
  );
}

/** Why nobody knows how the plots stand now; null where they are heard. */
function unknownNow(
  source: LiveSnapshot['source'],
  status: LiveSnapshot['status'],
  message: string | null,
): string | null {
  if (source === null) return 'Nothing is connected: nobody knows how the plots stand.';
  if (!source.can.isLive) return 'A log is being read: nobody knows how the plots stand now.';
  if (status === 'open') return null;
  return `${message ?? 'Connecting …'} Nobody knows how the plots stand now.`;
}
