import { useState } from 'react';
import { byId } from '@plain-trowel/core/quantity/byId';
import { useGarden } from '../../../data/gardenContext.ts';
import { Choice } from '../../../ui/Choice.tsx';
import { CopyButton } from '../../../ui/CopyButton.tsx';
import { PROGRAM_LANGUAGES, printProgram, type ProgramLanguage } from '../../../words/printProgram.ts';

/** For a board that prints nothing yet: a few lines of program to copy. */
export function PrintProgram({ boardId }: { boardId: string }) {
  const { garden } = useGarden();
  const [language, setLanguage] = useState<ProgramLanguage>('C++');
  const board = byId(garden.boards, boardId);
  if (!board) return null;
  const channels = garden.channels.filter(
    (one) => one.boardId === boardId && one.quantity === 'moisture' && one.streamName !== '',
  );
  const program = printProgram(language, board, channels);
  return (
    <details className="w-full max-w-[640px] border-t border-rule pt-2">
      <summary className="press">The board prints nothing yet: a few lines of program</summary>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Choice
          legend="Language"
          options={PROGRAM_LANGUAGES.map((value) => ({ value, label: value }))}
          value={language}
          onChange={setLanguage}
        />
        <CopyButton text={program} label="Copy" />
      </div>
      <pre
        aria-label="Program"
        className="mt-2 overflow-x-auto border border-rule bg-paper-2 p-3 font-mono text-[13px]"
        tabIndex={0}
      >
        {program}
      </pre>
      <p className="mt-1 text-[13.5px] text-soft">
        It prints each probe’s number twice a second, and does nothing else. Look at the numbers of the inputs
        before you load it.
      </p>
    </details>
  );
}
