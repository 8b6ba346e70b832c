import { useMemo } from 'react';
import { clsx } from 'clsx';
import { changedFields, changedLines, type ChangedLine } from '@plain-trowel/core/sketch/changes';
import { fieldText } from '../../../words/fieldText.ts';

const SIGNS: Readonly<Record<ChangedLine['kind'], string>> = { gone: '−', new: '+', same: ' ' };

const SET_BY_LINE: ReadonlySet<string> = new Set([
  'start_tenths',
  'stop_tenths',
  'dose_ml',
  'enabled',
  'proves_below_tenths',
]);

/** What this program says otherwise than the one on the board: in words where a setting has another value, and line by line. */
export function WhatChanged({ before, after }: { readonly before: string; readonly after: string }) {
  const lines = useMemo(() => changedLines(before, after), [before, after]);
  if (!lines) return null;
  // What can be set is compared with what the board says now, not with what it was given then.
  const fields = changedFields(lines).filter(({ name }) => !SET_BY_LINE.has(name));
  return (
    <div className="mt-2">
      {fields.length > 0 && (
        <ul>
          {fields.slice(0, 8).map((one, at) => (
            <li key={`${one.name} ${at}`}>{fieldText(one.name, one.before, one.after)}</li>
          ))}
        </ul>
      )}
      <details className="mt-1">
        <summary className="press py-1">Line by line</summary>
        <pre
          aria-label="Changed lines"
          tabIndex={0}
          className="max-h-[320px] overflow-auto border border-rule bg-paper-2 p-2.5 font-mono text-[13px] leading-[1.5]"
        >
          {lines.map((line, at) => (
            <span
              key={at}
              className={clsx(
                'block',
                line.kind === 'gone' && 'line-through',
                line.kind !== 'same' && 'font-semibold',
              )}
            >
              {SIGNS[line.kind]} {line.text}
            </span>
          ))}
        </pre>
      </details>
    </div>
  );
}
