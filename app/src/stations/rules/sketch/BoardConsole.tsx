import { useState } from 'react';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';

/** The console of the board that is connected: its newest lines that are no readings, and a line to type. */
export function BoardConsole({
  boardId,
  hasLamps,
}: {
  readonly boardId: string;
  readonly hasLamps: boolean;
}) {
  const board = useLive(({ source }) => source?.boardAt(boardId) ?? null);
  const [text, setText] = useState('');
  if (!board) return null;
  const type = (line: string) => {
    if (line.trim() !== '') board.type(line.trim());
    setText('');
  };
  return (
    <section aria-label="The board’s console" className="mt-3 max-w-[760px]">
      <pre
        aria-label="What it says"
        tabIndex={0}
        className="min-h-[180px] overflow-auto border border-rule bg-paper-2 p-2.5 font-mono text-[13px] leading-[1.5]"
      >
        {board.program.recent.slice(-8).join('\n') || 'It has said nothing yet.'}
      </pre>
      <form
        className="mt-2 flex flex-wrap items-end gap-x-3 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          type(text);
        }}
      >
        <Field label="Type a line" className="w-[300px] max-w-full">
          {(props) => (
            <input
              {...props}
              className="field w-full font-mono"
              autoComplete="off"
              placeholder="?"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          )}
        </Field>
        <Button type="submit">Send</Button>
        {['why', 'all', 'limits', ...(hasLamps ? ['test lamp'] : [])].map((one) => (
          <Button key={one} onClick={() => type(one)}>
            {one}
          </Button>
        ))}
      </form>
    </section>
  );
}
