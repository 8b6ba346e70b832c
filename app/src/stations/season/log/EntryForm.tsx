import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import {
  AMOUNTS,
  entryDraft,
  localMinute,
  momentAt,
  MOST_LETTERS,
  type Entry,
} from '@plain-trowel/core/records/entry';
import { identified, type GardenEvent } from '@plain-trowel/core/records/event';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { freshName } from '../../../data/eventIds.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { recordsWritten } from '../../../data/records.ts';
import { changeEvent } from '../../../data/recordStore.ts';
import { database } from '../../../data/services.ts';
import { problemText, type ProblemOf } from './entryProblem.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { Photo } from './Photo.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { entryIssueText, WRITTEN_NAMES } from '../../../words/eventText.ts';

/** One entry: how much, when and words. Of one that is there already it changes it, or takes it out. */
export function EntryForm({
  entry,
  before,
  plotId,
  onDone,
  onCancel = onDone,
}: {
  entry: Entry;
  /** The event that is changed; null: a new one. */
  before: GardenEvent | null;
  plotId: string | null;
  onDone: () => void;
  /** Put away without a word written; as when done, if not said. */
  onCancel?: () => void;
}) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const change = useChange();
  const counted = AMOUNTS[entry.what];
  const [amount, setAmount] = useState(entry.amount === null ? '' : String(entry.amount));
  const [text, setText] = useState(entry.text);
  const [when, setWhen] = useState(localMinute(entry.atMs, garden.timeZone));
  const [problem, setProblem] = useState<ProblemOf | null>(null);
  const name = WRITTEN_NAMES[entry.what];
  const keep = async () => {
    const read = readNumber(amount.trim().replace(',', '.'));
    if (amount.trim() !== '' && read.kind !== 'number') {
      setProblem({ field: 'amount', text: 'Type a number.' });
      return;
    }
    // Left as it was, the seconds stay as well.
    const isSameMinute = when === localMinute(entry.atMs, garden.timeZone);
    const nowMs = session.getSnapshot().nowMs;
    const draft = entryDraft(
      {
        what: entry.what,
        amount: read.kind === 'number' ? read.value : null,
        text,
        photo: entry.photo,
        atMs: isSameMinute ? entry.atMs : momentAt(when, garden.timeZone),
      },
      { plotId, nowMs },
    );
    if (!draft.ok) {
      setProblem(problemText(draft.issue, entryIssueText(draft.issue)));
      return;
    }
    const after = identified(draft.value, freshName(), 'person');
    if (await change(before, after, before ? `${name} changed.` : `Written into the log: ${name}.`)) onDone();
  };
  return (
    <form
      aria-label={before ? `Change ${name}` : name}
      className="mt-3 flex flex-wrap items-end gap-3 border-l-[3px] border-ink pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      {entry.photo !== null && <Photo id={entry.photo} text={text} />}
      {counted && (
        <Field
          label={`${name}${counted.needed ? '' : ', if measured'}`}
          {...(counted.unit === '' ? {} : { unit: counted.unit })}
          className="w-[140px]"
          error={problem?.field === 'amount' ? problem.text : undefined}
        >
          {(props) => (
            <input
              {...props}
              className="field num w-full text-right"
              inputMode="decimal"
              autoFocus
              value={amount}
              onChange={(event) => setAmount(event.target.value)}
            />
          )}
        </Field>
      )}
      <Field
        label={entry.what === 'note' ? 'Note' : 'In words'}
        className="min-w-[180px] flex-1"
        error={problem?.field === 'text' ? problem.text : undefined}
      >
        {(props) => (
          <input
            {...props}
            maxLength={MOST_LETTERS}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <Field label="When" className="w-[210px]" error={problem?.field === 'when' ? problem.text : undefined}>
        {(props) => (
          <input
            {...props}
            className="field num w-full"
            type="datetime-local"
            value={when}
            onChange={(event) => setWhen(event.target.value)}
          />
        )}
      </Field>
      <Button look="primary" type="submit">
        {before ? 'Keep the change' : `Write ${name.toLowerCase()}`}
      </Button>
      {before && (
        <Button
          onClick={() =>
            void change(before, null, `${name} is taken out of the log.`).then((done) => done && onDone())
          }
        >
          Take it out
        </Button>
      )}
      <Button look="quiet" onClick={onCancel}>
        Cancel
      </Button>
    </form>
  );
}

/** Changes an event in storage, tells it with its undo, and lets everyone see it. */
function useChange() {
  const { garden } = useGarden();
  const client = useQueryClient();
  return async function change(
    before: GardenEvent | null,
    after: GardenEvent | null,
    text: string,
  ): Promise<boolean> {
    try {
      await changeEvent(await database(), garden.id, before, after);
    } catch {
      showToast({
        tone: 'problem',
        text: 'It could not be written: the log was changed elsewhere, or the browser’s storage is full. Nothing is lost; look at the log and try again.',
      });
      return false;
    }
    recordsWritten(client, garden.id, { days: new Map(), events: true });
    showToast({
      tone: 'done',
      text,
      action: { label: 'Undo', run: () => void change(after, before, 'As it was before.') },
    });
    return true;
  };
}
