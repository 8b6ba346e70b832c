import { useEffect, useEffectEvent, useMemo } from 'react';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { checklistOf, isSeen, type CheckStep } from '@plain-trowel/core/sketch/checklist';
import { frameNameOf } from '@plain-trowel/core/sketch/folder';
import { catalogueOf } from '@plain-trowel/core/garden/edits/plan';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { measuresOf } from '@plain-trowel/core/wiring/measures';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { stepText } from '../../../words/checklistText.ts';
import { useChecks } from './useChecks.ts';

/** The bench check of a board: ticked by hand, or by what the board at the line shows. */
export function BenchCheck({
  boardId,
  plan,
  name,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  readonly name: string;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const frame = frameNameOf(name);
  const steps = useMemo(
    () => checklistOf(garden, plan, measuresOf(readCircuit(garden.wiring, catalogueOf(garden)))),
    [garden, plan],
  );
  const { ticks, tick, untick } = useChecks(boardId, frame);
  const board = live.source?.boardAt(boardId) ?? null;
  // A board that runs another program shows nothing of this one, and one in the page is not on the bench.
  const watched =
    board && !live.source?.simulated && frameNameOf(board.program.name) === frame ? board : null;
  const seen = watched
    ? steps.filter(
        (step) =>
          ticks[step.id] === undefined &&
          isSeen(step, {
            raw: (channelId) => live.present.get(channelId)?.rawCounts ?? null,
            percents: watched.program.percents,
            said: watched.program.events.map((one) => one.said),
          }),
      )
    : [];
  const next = seen[0];
  const tickSeen = useEffectEvent((step: CheckStep) => tick(step, true));
  useEffect(() => {
    if (next) tickSeen(next);
  }, [next]);
  const doneCount = steps.filter((step) => ticks[step.id] !== undefined).length;
  return (
    <details className="mt-5 border-t border-rule pt-3">
      <summary className="press py-1">
        <h2 className="inline">The bench check</h2>{' '}
        <span className="text-soft">
          {doneCount} of {steps.length} done
        </span>
      </summary>
      <p className="max-w-[68ch] text-[14.5px] text-soft">
        In this order, with the pump’s supply off until its own step.{' '}
        {watched
          ? 'Steps tick themselves as soon as the board shows what they ask for; the meter’s are yours.'
          : 'With the board connected and running this program, all but the meter’s tick themselves.'}{' '}
        Every tick is written into the log.
      </p>
      <ol className="mt-1 flex max-w-[76ch] flex-col">
        {steps.map((step) => (
          <Step
            key={step.id}
            step={step}
            isDone={ticks[step.id] !== undefined}
            onChange={(isDone) => (isDone ? tick(step, false) : untick(step))}
          />
        ))}
      </ol>
      <Button className="mt-3 print:hidden" onClick={() => window.print()}>
        Print this sheet
      </Button>
    </details>
  );
}

function Step({
  step,
  isDone,
  onChange,
}: {
  readonly step: CheckStep;
  readonly isDone: boolean;
  readonly onChange: (isDone: boolean) => void;
}) {
  const { title, doing } = stepText(step);
  return (
    <li className="border-b border-rule py-1.5">
      <Check checked={isDone} onChange={onChange}>
        <b className="font-semibold">{title}</b>
      </Check>
      <p className="pl-7 text-[14px] text-soft">{doing}</p>
    </li>
  );
}
