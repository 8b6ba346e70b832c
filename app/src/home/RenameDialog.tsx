import { useState } from 'react';
import { renameGarden } from '@plain-trowel/core/garden/edits/plots';
import { useGarden } from '../data/gardenContext.ts';
import { Button } from '../ui/Button.tsx';
import { Dialog } from '../ui/Dialog.tsx';
import { Field } from '../ui/Field.tsx';

/** Changes the garden's name and the note beside it. */
export default function RenameDialog({ onClose }: { onClose: () => void }) {
  const { garden, commit } = useGarden();
  const [name, setName] = useState(garden.name);
  const [note, setNote] = useState(garden.note);
  const isEmpty = name.trim() === '';
  const keep = async () => {
    if (isEmpty) return;
    const change = { name: name.trim(), note: note.trim() };
    if (
      await commit('rename the garden', (before) => ({
        garden: renameGarden(before, change.name, change.note),
      }))
    )
      onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Rename the garden"
      description="The name stands at the top left and in the names of exported files."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <Field label="Name" error={isEmpty ? 'Type a name for it.' : undefined}>
          {(props) => (
            <input {...props} value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
          )}
        </Field>
        <Field label="Note">
          {(props) => (
            <input
              {...props}
              value={note}
              maxLength={400}
              onChange={(event) => setNote(event.target.value)}
            />
          )}
        </Field>
        <div className="flex gap-3">
          <Button type="submit" look="primary" disabled={isEmpty}>
            Keep the name
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
