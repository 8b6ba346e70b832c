import type { Loaded, Program } from '@plain-trowel/core/sketch/loader/load';
import { serialIsPossible } from '../../../links/serialSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { loadProblemText, STEP_TEXT } from '../../../words/loadText.ts';
import { useLoading } from './useLoading.ts';

/** "Load onto the board", with what it does right now, how to stop it, and what came of it. */
export function LoadOntoBoard({
  boardId,
  program,
}: {
  readonly boardId: string;
  readonly program: () => Program;
}) {
  const { loading, load, stop } = useLoading(boardId);
  if (!serialIsPossible())
    return (
      <p className="mt-1 max-w-[68ch] text-[14.5px] text-soft">
        This browser cannot open serial ports; a desktop browser with Web Serial loads it from here. Without
        one, save the files and copy them.
      </p>
    );
  const isForeign =
    loading.kind === 'done' && !loading.loaded.ok && loading.loaded.problem === 'foreign-program';
  return (
    <section aria-label="Load onto the board" className="mt-3">
      <p className="max-w-[68ch] text-[14.5px] text-soft">
        Loading ends what runs on the board, sees its outputs off, and writes beside the old program; only
        what has come over whole is started. Broken off anywhere, the old program starts again. Take the
        pumps’ supply off all the same.
      </p>
      {loading.kind === 'at-work' ? (
        <AtWork {...loading.progress} onStop={stop} />
      ) : (
        <div className="mt-2 flex flex-wrap gap-3">
          <Button look="primary" onClick={() => void load(program(), false)}>
            Load onto the board
          </Button>
          {isForeign && (
            <Button onClick={() => void load(program(), true)}>The pumps have no supply: interrupt it</Button>
          )}
        </div>
      )}
      {loading.kind === 'no-port' && (
        <p role="alert" className="mt-2 max-w-[68ch] border-l-[3px] border-handle pl-3">
          {loading.text}
        </p>
      )}
      {loading.kind === 'done' && <Outcome loaded={loading.loaded} />}
    </section>
  );
}

function AtWork({
  step,
  doneLetters,
  allLetters,
  onStop,
}: {
  readonly step: keyof typeof STEP_TEXT;
  readonly doneLetters: number;
  readonly allLetters: number;
  readonly onStop: () => void;
}) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <progress
        aria-label="Written"
        className="w-[220px]"
        value={doneLetters}
        max={Math.max(1, allLetters)}
      />
      <span role="status" className="min-w-[34ch]">
        {STEP_TEXT[step]}
      </span>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

function Outcome({ loaded }: { readonly loaded: Loaded }) {
  if (!loaded.ok)
    return (
      <div role="alert" className="mt-2 max-w-[68ch] border-l-[3px] border-handle pl-3">
        <p>{loadProblemText(loaded.problem)}</p>
        {loaded.said !== '' && (
          <p className="mt-1 font-mono text-[13px] break-words">The board said: {loaded.said}</p>
        )}
      </div>
    );
  return (
    <div role="status" className="mt-2 max-w-[68ch] border-l-[3px] border-ink pl-3">
      <p className="font-semibold">Program {loaded.number} runs on the board. Its first lines:</p>
      <pre className="mt-1 overflow-auto font-mono text-[13px] leading-[1.5]">
        {loaded.firstLines.join('\n')}
      </pre>
    </div>
  );
}
