import { useState } from 'react';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';

/** A line in the log by hand: watered, fed, moved, yellow leaf. What is not on disk yet stays in the field and says so; it is never written twice. */
export function NoteField({ plotId }: { plotId: string }) {
  const { session } = useLiveTools();
  const [text, setText] = useState('');
  const [waits, setWaits] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const trimmed = text.trim();
  const events = session.recorderState().waiting.events;
  const isWaiting = waits !== null && waits === trimmed && events > 0;
  // It has reached the disk since: the field is free again.
  if (waits !== null && events === 0) {
    setWaits(null);
    if (waits === trimmed) setText('');
  }
  const keep = async () => {
    if (trimmed === '' || isWaiting) return;
    const taken = session.note({
      kind: 'note',
      atMs: Math.round(session.getSnapshot().nowMs),
      plotId,
      simulated: false,
      text: trimmed,
    });
    if (!taken) {
      setProblem(
        'The clock shows a date outside 2000 to 2100, so the note was not written. Set it right and try again.',
      );
      return;
    }
    setProblem(null);
    await session.flush();
    if (session.recorderState().waiting.events > 0) setWaits(trimmed);
    else setText('');
  };
  return (
    <form
      className="mt-3 flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field
        label="Write into the log"
        className="flex-1"
        error={
          problem ?? (isWaiting ? 'Not saved yet; the page keeps trying. Do not close this tab.' : undefined)
        }
      >
        {(props) => (
          <input
            {...props}
            value={text}
            maxLength={400}
            placeholder="anything else, in words"
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <Button type="submit" disabled={trimmed === '' || isWaiting}>
        Write it
      </Button>
    </form>
  );
}
