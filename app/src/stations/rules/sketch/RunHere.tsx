import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { SPEEDS } from '../../../links/lineSource.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { InterpreterSource } from '../../../links/interpreterSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';

/** "Run this very sketch here": the program as it would be loaded, in the real interpreter, against the made-up pots. */
export function RunHere({
  boardId,
  plan,
  program,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  readonly program: () => Program;
}) {
  const { openProgram, openStandIn, session } = useLiveTools();
  const source = useLive((live) => live.source);
  const status = useLive((live) => live.status);
  const message = useLive((live) => live.message);
  const speed = useLive((live) => live.source?.clock?.speed ?? null);
  const isHere = source instanceof InterpreterSource && source.boardId === boardId;
  return (
    <section aria-label="Run it here" className="mt-3">
      <p className="max-w-[68ch] text-[14.5px] text-soft">
        Try it before it goes onto a board: these very files, in the real interpreter, in this page. Their
        pins are wired to made-up pots, probes and tanks, which you can water, empty and break on Bench,
        Readout.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Button onClick={() => void openProgram(boardId, plan, program())}>
          {isHere ? 'Start it again' : 'Run this very sketch here'}
        </Button>
        {isHere && (
          <>
            <Choice
              legend="Its clock"
              options={SPEEDS.map((one) => ({ value: String(one), label: `×${one}` }))}
              value={String(speed ?? 1)}
              onChange={(value) => {
                source.setSpeed(SPEEDS.find((one) => String(one) === value) ?? 1);
                session.refresh();
              }}
            />
            <Button onClick={() => void openStandIn()}>End it</Button>
          </>
        )}
      </div>
      {isHere && status === 'opening' && <p role="status">Starting the interpreter …</p>}
      {isHere && status === 'failed' && <p role="alert">{message}</p>}
    </section>
  );
}
