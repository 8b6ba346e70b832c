import { lazy, Suspense, useState } from 'react';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import type { StreamInfo } from '@plain-trowel/core/live/streams';
import { MOST_COUNTED } from '@plain-trowel/core/live/streams';
import { Button } from '../../../../ui/Button.tsx';

const MapDialog = lazy(() => import('./MapDialog.tsx'));
const MOST = 24;

/** Names and columns that boards print and that belong to nothing yet. */
export function NewNames() {
  const { garden } = useGarden();
  const live = useLive();
  const [open, setOpen] = useState<StreamInfo | null>(null);
  const isTaken = (stream: StreamInfo) =>
    garden.channels.some((one) => one.boardId === stream.boardId && one.streamName === stream.name);
  const names = live.streams.filter((stream) => !isTaken(stream));
  const unheard = garden.channels.filter((one) => one.streamName === '');
  if (names.length === 0 && unheard.length === 0) return null;
  return (
    <section aria-label="Names the boards print" className="mt-4">
      <h2 className="label">The boards also print</h2>
      {names.length === 0 && (
        <p className="text-soft">
          Nothing new. {unheard.length} of the garden’s channels listen to no name at present.
        </p>
      )}
      <ul className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
        {names.slice(0, MOST).map((stream) => (
          <li key={`${stream.boardId} ${stream.name}`} className="flex items-center gap-3">
            <span className="num">
              {stream.name} = {formatCounts(stream.last)}
            </span>
            <Button onClick={() => setOpen(stream)}>Say what it is</Button>
          </li>
        ))}
      </ul>
      {names.length > MOST && (
        <p className="mt-1 text-[14px] text-soft">
          and {formatNumber(names.length - MOST)} more names
          {live.moreStreams > 0 &&
            `; beyond these ${formatNumber(live.moreStreams)}${live.moreStreams >= MOST_COUNTED ? ' or more' : ''} are counted and not kept. So many names are most likely noise, or a wrong separator`}
          .
        </p>
      )}
      {open && (
        <Suspense>
          <MapDialog stream={open} onClose={() => setOpen(null)} />
        </Suspense>
      )}
    </section>
  );
}
