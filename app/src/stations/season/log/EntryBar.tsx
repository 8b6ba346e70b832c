import { useRef, useState } from 'react';
import { entryOf, WRITTEN, type Entry, type Written } from '@plain-trowel/core/records/entry';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { WRITTEN_NAMES } from '../../../words/eventText.ts';
import { FileInput } from '../../../ui/FileInput.tsx';
import { usePhoto } from './usePhoto.ts';
import { EntryForm } from './EntryForm.tsx';

/** What happens everywhere, one press for each; what was counted last time stands there already. @param events newest first */
export function EntryBar({ plotId, events }: { plotId: string; events: readonly GardenEvent[] }) {
  const { session } = useLiveTools();
  const [open, setOpen] = useState<Entry | null>(null);
  const photoInput = useRef<HTMLInputElement>(null);
  const { busy, take, drop } = usePhoto();
  /** Puts the form away; a photo that nothing was written about goes with it. */
  const putAway = () => {
    if (open?.photo != null) void drop(open.photo);
    setOpen(null);
  };
  const begin = (what: Written, photo: string | null = null) => {
    putAway();
    const before = events.map(entryOf).find((one) => one?.what === what);
    setOpen({
      what,
      amount: before?.amount ?? null,
      text: '',
      atMs: Math.round(session.getSnapshot().nowMs),
      photo,
    });
  };
  return (
    <section aria-label="Write down what happened" className="no-print mt-4">
      <h2 className="mb-1">Write down what happened</h2>
      <div className="flex flex-wrap gap-2">
        {WRITTEN.filter((one) => one !== 'note' && one !== 'photo').map((what) => (
          <Button
            key={what}
            look={open?.what === what ? 'primary' : 'plain'}
            aria-expanded={open?.what === what}
            onClick={() => (open?.what === what ? putAway() : begin(what))}
          >
            {WRITTEN_NAMES[what]}
          </Button>
        ))}
        <Button disabled={busy} onClick={() => photoInput.current?.click()}>
          {busy ? 'The photo is made small …' : 'Photo'}
        </Button>
      </div>
      <FileInput
        ref={photoInput}
        label="Photo file"
        accept="image/*"
        onFile={(file) => void take(file).then((id) => id !== null && begin('photo', id))}
      />
      {open && (
        <EntryForm
          key={`${open.what} ${open.photo ?? ''}`}
          entry={open}
          before={null}
          plotId={plotId}
          onDone={() => setOpen(null)}
          onCancel={putAway}
        />
      )}
    </section>
  );
}
