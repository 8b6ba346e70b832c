import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { LeftSettings } from '@plain-trowel/core/protocol/feed';
import { frameNameOf } from '@plain-trowel/core/sketch/folder';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { settingChanges, toType } from '@plain-trowel/core/sketch/settable';
import type { BoardAtTheLine } from '@plain-trowel/core/following/boardTalk';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { useGarden } from '../../../data/gardenContext.ts';
import { gateway } from '../../../links/gatewayClient.ts';
import { Button } from '../../../ui/Button.tsx';
import { gatewayIssueText } from '../../../words/networkText.ts';

const LOOK_EVERY_MS = 2000;
/** What a board takes at its console at one time, letters. */
const MOST_LETTERS = 160;

/** Leaves all that differs at the gateway, in one go: the board takes it with its next report, also when it is away just now. */
export function LeaveSettings({
  plan,
  board,
  keeps,
}: {
  readonly plan: BoardPlan;
  readonly board: BoardAtTheLine;
  /** Whether its program keeps settings through a restart; else the gateway tells them again. */
  readonly keeps: boolean;
}) {
  const { garden } = useGarden();
  const client = useQueryClient();
  const { boardId, program } = board;
  const queryKey = ['gateway', garden.id, 'settings', boardId];
  const asked = useQuery({
    queryKey,
    queryFn: () => gateway.leftSettings(garden.id, boardId),
    refetchInterval: LOOK_EVERY_MS,
    gcTime: 0,
  });
  const left = asked.data?.ok ? asked.data.value.settings : null;
  const [problem, setProblem] = useState<string | null>(null);
  const act = async (doing: ReturnType<typeof gateway.withdrawSettings>) => {
    const done = await doing;
    setProblem(done.ok ? null : gatewayIssueText(done.issue));
    await client.invalidateQueries({ queryKey });
  };
  const send = () => {
    const steps = toType(plan, settingChanges(plan, program.limits), program.limits, (id) =>
      board.numberOf(id),
    );
    const long = steps.find(({ text }) => text.length > MOST_LETTERS);
    if (long)
      setProblem(
        `${long.about.slice(0, 30)} … is too long for the way over the network: send it at the board’s cable.`,
      );
    else
      void act(
        gateway.leaveSettings(garden.id, boardId, {
          frame: frameNameOf(program.name),
          lines: [...steps.map(({ text }) => text), ...(keeps ? ['save'] : [])],
        }),
      );
  };
  return (
    <>
      {left?.state === 'waiting' ? (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <span>
            Left at the gateway (revision <span className="num">{left.revision}</span>): the board takes it
            with its next report.
          </span>
          <Button look="quiet" onClick={() => void act(gateway.withdrawSettings(garden.id, boardId))}>
            Withdraw them
          </Button>
        </p>
      ) : (
        <Button className="mt-2" onClick={send}>
          Send the garden’s to the board
        </Button>
      )}
      {!keeps && (
        <p className="mt-1 text-[14px] text-soft">
          A program in C++ keeps no settings through a restart: until the gateway has told it again, it goes
          by those that were compiled in.
        </p>
      )}
      {left?.state === 'taken' && !left.lines.includes('save') && (
        <p className="mt-1 flex flex-wrap items-center gap-3">
          <span>They lie at the gateway for its restarts, until another program runs there.</span>
          <Button look="quiet" onClick={() => void act(gateway.withdrawSettings(garden.id, boardId))}>
            Withdraw them
          </Button>
        </p>
      )}
      {left && <What left={left} timeZone={garden.timeZone} />}
      {problem !== null && (
        <p role="alert" className="mt-1">
          {problem}
        </p>
      )}
    </>
  );
}

/** What became of what was left last. */
function What({ left, timeZone }: { left: LeftSettings; timeZone: string }) {
  if (left.state === 'refused')
    return (
      <p role="alert" className="mt-1 border-l-[3px] border-handle pl-3">
        The board refused revision {left.revision} at “{left.why}”. Nothing after that was set: lines that
        water by a probe whose calibration was to change may stand switched off on the board.
      </p>
    );
  if (left.state === 'taken')
    return (
      <p className="mt-1 text-[14px] text-soft">
        Revision <span className="num">{left.revision}</span>, left {dayTime(left.madeMs, timeZone)}, was
        taken by the board.
      </p>
    );
  return null;
}
