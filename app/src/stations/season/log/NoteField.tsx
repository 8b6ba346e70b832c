import { useState } from 'react';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { showToast } from '../../../ui/toasts.ts';

/** A line in the log by hand: watered, fed, moved, yellow leaf. */
export function NoteField({ plotId }: { plotId: string }) {
  const { session } = useLiveTools();
  const live = useLive();
  const [text, setText] = useState('');
  const keep = async () => {
    const trimmed = text.trim();
    if (trimmed === '') return;
    session.note({ kind: 'note', atMs: Math.round(live.nowMs), plotId, simulated: false, text: trimmed });
    await session.flush();
    if (session.waiting().events.length > 0) {
      showToast({
        tone: 'problem',
        text: 'The note could not be written yet; it waits and is tried again. Do not close this tab.',
      });
      return;
    }
    setText('');
  };
  return (
    <form
      className="mt-3 flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field label="Write into the log" className="flex-1">
        {(props) => (
          <input
            {...props}
            value={text}
            maxLength={400}
            placeholder="watered 200 ml by hand, fed, moved, a yellow leaf …"
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <Button type="submit" disabled={text.trim() === ''}>
        Write it
      </Button>
    </form>
  );
}
