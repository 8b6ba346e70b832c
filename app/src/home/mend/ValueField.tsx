import { useState } from 'react';
import type { Fault } from '@plain-trowel/core/garden/document/faults';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { Button } from '../../ui/Button.tsx';
import { Field } from '../../ui/Field.tsx';

const NUMBER_RULES: ReadonlySet<Fault['rule']['kind']> = new Set([
  'above',
  'below',
  'not-whole',
  'not-a-number',
]);
const TEXT_RULES: ReadonlySet<Fault['rule']['kind']> = new Set(['too-long', 'empty', 'not-one-of']);

/** Another value, typed. Lists are mended by their entries. */
export function ValueField({ fault, onSet }: { fault: Fault; onSet: (value: unknown) => void }) {
  const [typed, setTyped] = useState(typeof fault.value === 'string' ? fault.value : '');
  const { kind } = fault.rule;
  if (kind === 'too-many' || kind === 'too-few' || kind === 'unknown-field') return null;
  const read = readNumber(typed.replace(',', '.'));
  const wantsNumber = NUMBER_RULES.has(kind);
  const isText = TEXT_RULES.has(kind) || typeof fault.value === 'string';
  const value =
    wantsNumber || (!isText && read.kind === 'number')
      ? read.kind === 'number'
        ? read.value
        : null
      : literal(typed, isText);
  const isReady = typed.trim() !== '' && !(wantsNumber && value === null);
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady) onSet(value);
      }}
    >
      {fault.rule.kind === 'not-one-of' ? (
        <Field label="Another value">
          {(props) => (
            <select {...props} value={typed} onChange={(event) => setTyped(event.target.value)}>
              <option value="">choose …</option>
              {fault.rule.kind === 'not-one-of' &&
                fault.rule.words.map((word) => <option key={word}>{word}</option>)}
            </select>
          )}
        </Field>
      ) : (
        <Field label={wantsNumber ? 'Another number' : 'Another value'}>
          {(props) => <input {...props} value={typed} onChange={(event) => setTyped(event.target.value)} />}
        </Field>
      )}
      <Button type="submit" disabled={!isReady}>
        Put it there
      </Button>
    </form>
  );
}

/** A typed word: "null" and "true" mean themselves where no text is wanted. */
function literal(typed: string, isText: boolean): unknown {
  if (isText) return typed;
  return typed === 'null' ? null : typed === 'true' ? true : typed === 'false' ? false : typed;
}
