import type { Standing } from '@plain-trowel/core/protocol/feed';
import { ambientOf } from '@plain-trowel/core/garden/bind/ambient';
import { valueNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { NOTHING_CHOSEN } from '@plain-trowel/core/garden/document/waterSchema';
import type { Board } from '@plain-trowel/core/garden/document/schema';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { heardNow } from '../../../links/heardNow.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Scroll } from '../../../ui/Scroll.tsx';

/** The boards: when each was heard, by what, on which battery and with which program. */
export function BoardsNow({ standing }: { standing: Standing | null }) {
  const { garden } = useGarden();
  const live = useLive();
  if (garden.boards.length === 0) return null;
  const heard = heardNow(live);
  const lastMs = (board: Board): number | null => {
    const times = garden.channels
      .filter((one) => one.boardId === board.id)
      .flatMap((one) => live.present.get(one.id)?.atMs ?? live.silent.get(one.id)?.atMs ?? []);
    return times.length === 0 ? null : Math.max(...times);
  };
  return (
    <section aria-label="Boards" className="mt-4">
      <h2 className="text-[13px] font-semibold text-soft">Boards</h2>
      <Scroll label="Boards">
        <table className="w-full text-[14px]">
          <thead>
            <tr>
              <th>Board</th>
              <th>Last heard here</th>
              <th>At the gateway</th>
              <th className="text-right">Battery</th>
              <th>Program</th>
            </tr>
          </thead>
          <tbody>
            {garden.boards.map((board) => {
              const atMs = lastMs(board);
              const there = standing?.boards.find(({ boardId }) => boardId === board.id);
              const place = { boardId: board.id, plotId: '', chosen: NOTHING_CHOSEN };
              const volts = valueNow(garden, ambientOf(garden, place, 'battery'), heard);
              const program = live.source?.boardAt(board.id)?.program.name ?? there?.heard?.program ?? null;
              return (
                <tr key={board.id}>
                  <td className="font-semibold">{board.name}</td>
                  <td>{atMs === null ? 'not yet' : agoText(live.nowMs - atMs)}</td>
                  <td>
                    {there === undefined
                      ? 'no key'
                      : there.heard === null
                        ? 'never'
                        : agoText((standing?.nowMs ?? there.heard.atMs) - there.heard.atMs)}
                  </td>
                  <td className="num text-right">{volts === null ? '–' : `${formatNumber(volts, 2)} V`}</td>
                  <td className="num">{program ?? '–'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Scroll>
    </section>
  );
}

const agoText = (ms: number): string =>
  ms < 2000 ? 'just now' : `${formatDuration(Math.round(ms / 1000))} ago`;
