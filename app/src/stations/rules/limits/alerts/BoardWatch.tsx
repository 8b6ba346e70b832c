import { setBoardWatch } from '@plain-trowel/core/garden/edits/bench';
import type { Board } from '@plain-trowel/core/garden/document/schema';
import { ambientOf } from '@plain-trowel/core/garden/bind/ambient';
import { NOTHING_CHOSEN } from '@plain-trowel/core/garden/document/waterSchema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { CellNumber } from '../../../../ui/CellNumber.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';

/** What is watched of each board itself: its battery, its night, and whether it is charged in the cold. */
export function BoardWatch() {
  const { garden, commit } = useGarden();
  if (garden.boards.length === 0) return null;
  const set = (board: Board, change: Partial<Board['watch']>) =>
    void commit(`what is watched of ${board.name}`, (before) => ({
      garden: setBoardWatch(before, board.id, change),
    }));
  return (
    <section aria-label="Boards" className="mt-4 border-t border-rule pt-3">
      <h2>Of the boards themselves</h2>
      <Scroll label="Limits of the boards" className="mt-1">
        <table className="w-auto [&_td]:align-middle">
          <thead>
            <tr>
              <th>Board</th>
              <th className="text-right">Battery is low below, V</th>
              <th className="text-right">Night is below, light counts</th>
              <th>Lithium cell that is charged</th>
            </tr>
          </thead>
          <tbody>
            {garden.boards.map((board) => (
              <tr key={board.id}>
                <td>{board.name}</td>
                <td className="text-right">
                  <CellNumber
                    label={`${board.name}: battery is low below, V; empty for none`}
                    value={board.watch.batteryLowV}
                    least={1}
                    most={60}
                    decimals={1}
                    onKeep={(batteryLowV) => set(board, { batteryLowV })}
                  />
                  <Unmeasured board={board} sense="battery" isWanted={board.watch.batteryLowV !== null} />
                </td>
                <td className="text-right">
                  <CellNumber
                    label={`${board.name}: night is below, light counts; empty for none`}
                    value={board.watch.darkBelow}
                    least={0}
                    most={100_000}
                    decimals={0}
                    onKeep={(darkBelow) => set(board, { darkBelow })}
                  />
                  <Unmeasured board={board} sense="light" isWanted={board.watch.darkBelow !== null} />
                </td>
                <td>
                  <Check checked={board.watch.isLithium} onChange={(isLithium) => set(board, { isLithium })}>
                    <span className="sr-only">{board.name}: </span>watch for frost
                  </Check>
                  <Unmeasured board={board} sense="airTenthsC" isWanted={board.watch.isLithium} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      <p className="mt-1 max-w-[70ch] text-[14px] text-soft">
        They go by the board’s own battery monitor, light sensor and thermometer, whether it has a pump or
        not. Charging a lithium cell below 0 °C spoils it and can set it on fire later: the alert comes at 1
        °C, and nothing here can stop a charger.
      </p>
    </section>
  );
}

const MISSING = {
  battery: 'Nothing measures it, so it is never told.',
  light: 'No light sensor tells, so it is never night.',
  airTenthsC: 'No thermometer of the air tells, so frost is never seen.',
} as const;

/** What is to be watched and nothing measures is no watch: that is said where it was asked for. */
function Unmeasured({
  board,
  sense,
  isWanted,
}: {
  board: Board;
  sense: keyof typeof MISSING;
  isWanted: boolean;
}) {
  const { garden } = useGarden();
  const place = { boardId: board.id, plotId: '', chosen: NOTHING_CHOSEN };
  if (!isWanted || ambientOf(garden, place, sense)) return null;
  return (
    <span role="alert" className="mt-0.5 block text-[13px] font-medium text-handle">
      {MISSING[sense]}
    </span>
  );
}
