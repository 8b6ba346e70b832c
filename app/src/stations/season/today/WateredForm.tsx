import { useState } from 'react';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { showToast } from '../../../ui/toasts.ts';

const MOST_ML = 100_000;

/** Writes into the log that a plot was watered by hand, and how much. */
export function WateredForm({ plotId, onDone }: { plotId: string; onDone: () => void }) {
  const { session } = useLiveTools();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const read = readNumber(typed.trim().replace(',', '.'));
  const volumeMl = read.kind === 'number' && read.value > 0 && read.value <= MOST_ML ? read.value : null;
  const keep = async () => {
    if (volumeMl === null) {
      setProblem('How much was it? From 1 to 100,000 ml.');
      return;
    }
    const isTaken = session.note({
      kind: 'poured',
      atMs: Math.round(session.getSnapshot().nowMs),
      plotId,
      simulated: false,
      volumeMl,
    });
    if (!isTaken) {
      setProblem(
        'The clock shows a date outside 2000 to 2100, so it was not written. Set it right and try again.',
      );
      return;
    }
    await session.flush();
    showToast({ tone: 'done', text: `Written into the log: ${volumeMl} ml by hand.` });
    onDone();
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field label="How much" unit="ml" className="w-[150px]" error={problem ?? undefined}>
        {(props) => (
          <input
            {...props}
            className="field num w-full text-right"
            inputMode="decimal"
            autoFocus
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              setProblem(null);
            }}
          />
        )}
      </Field>
      <Button look="primary" type="submit">
        Write it into the log
      </Button>
      <Button look="quiet" onClick={onDone}>
        Cancel
      </Button>
    </form>
  );
}
