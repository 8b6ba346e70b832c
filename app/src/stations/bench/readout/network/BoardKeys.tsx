import { useState } from 'react';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { useGarden } from '../../../../data/gardenContext.ts';
import { gateway } from '../../../../links/gatewayClient.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { gatewayIssueText, heardText } from '../../../../words/networkText.ts';
import { NewKey } from './NewKey.tsx';

type Made = { readonly boardId: string; readonly key: string };
/** What would end a key that a board has now, and waits for a second press. */
type Asked = { readonly boardId: string; readonly what: 'new' | 'cancel' };

/** Which boards may report: each with a key of its own, which is shown once. */
export function BoardKeys({ standing, onChanged }: { standing: Standing; onChanged: () => void }) {
  const { garden } = useGarden();
  const [made, setMade] = useState<Made | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asks, setAsks] = useState<Asked | null>(null);
  /** A key that is being replaced or cancelled is not shown a moment longer. */
  const hide = (boardId: string) => setMade((shown) => (shown?.boardId === boardId ? null : shown));
  const make = async (boardId: string) => {
    setAsks(null);
    hide(boardId);
    const done = await gateway.makeKey(garden.id, boardId);
    setProblem(done.ok ? null : gatewayIssueText(done.issue));
    if (done.ok) setMade({ boardId, key: done.value.key });
    onChanged();
  };
  const cancel = async (boardId: string) => {
    setAsks(null);
    hide(boardId);
    const done = await gateway.revokeKey(garden.id, boardId);
    setProblem(done.ok ? null : gatewayIssueText(done.issue));
    onChanged();
  };
  return (
    <div className="w-full">
      {problem !== null && (
        <p role="alert" className="mb-2 border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
      <Scroll label="Boards and their keys">
        <table className="w-full">
          <thead>
            <tr>
              <th>Board</th>
              <th>Last report</th>
              <th>Its key</th>
              <th>
                <span className="sr-only">What to do with its key</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {garden.boards.map((board) => {
              const known = standing.boards.find(({ boardId }) => boardId === board.id);
              return (
                <tr key={board.id}>
                  <td className="font-semibold">
                    {board.name}
                    {known?.standIn && <span className="font-normal text-soft"> (stand-in)</span>}
                  </td>
                  <td>{known ? heardText(known.heard, standing.nowMs) : '–'}</td>
                  <td>
                    {known ? `made ${dayTime(known.madeMs, garden.timeZone)}` : 'none: it cannot report'}
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {!known ? (
                      <Button onClick={() => void make(board.id)}>Make a key</Button>
                    ) : asks?.boardId === board.id ? (
                      <>
                        <Button
                          look="primary"
                          onClick={() => void (asks.what === 'new' ? make(board.id) : cancel(board.id))}
                        >
                          {asks.what === 'new' ? 'Replace its key' : 'Cancel its key'}
                        </Button>
                        <Button look="quiet" className="ml-3" onClick={() => setAsks(null)}>
                          Keep it
                        </Button>
                      </>
                    ) : (
                      <>
                        <Button onClick={() => setAsks({ boardId: board.id, what: 'new' })}>New key …</Button>
                        <Button
                          look="quiet"
                          className="ml-3"
                          onClick={() => setAsks({ boardId: board.id, what: 'cancel' })}
                        >
                          Cancel …
                        </Button>
                      </>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Scroll>
      {asks && (
        <p className="mt-2 max-w-[60ch] border-l-[3px] border-handle pl-3 text-[14px]">
          The board’s present key stops working at once: until it has a new one in its program, it cannot
          report. What it has reported stays.
        </p>
      )}
      {made && (
        <NewKey
          boardName={garden.boards.find(({ id }) => id === made.boardId)?.name ?? made.boardId}
          boardId={made.boardId}
          gardenId={garden.id}
          keyText={made.key}
          reach={standing.reach}
          onDone={() => setMade(null)}
        />
      )}
    </div>
  );
}
