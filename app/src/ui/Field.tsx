import { clsx } from 'clsx';
import { useId, type ReactNode } from 'react';

/** A labelled control with its unit, a hint and, when something is wrong, the sentence that says so. */
export function Field({
  label,
  unit,
  hint,
  error,
  className,
  children,
}: {
  label: ReactNode;
  unit?: string | undefined;
  hint?: string | undefined;
  error?: string | undefined;
  className?: string;
  children: (props: {
    id: string;
    className: string;
    'aria-invalid': boolean;
    'aria-describedby': string | undefined;
  }) => ReactNode;
}) {
  const id = useId();
  const noteId = `${id}-note`;
  const note = error ?? hint;
  return (
    <div className={clsx('flex min-w-0 flex-col gap-1', className)}>
      <label htmlFor={id} className="text-[12.5px] font-semibold text-soft">
        {label}
      </label>
      <span className="flex items-center gap-2">
        {children({
          id,
          className: 'field w-full',
          'aria-invalid': error !== undefined,
          'aria-describedby': note === undefined ? undefined : noteId,
        })}
        {unit !== undefined && <span className="shrink-0 text-[13.5px] text-soft">{unit}</span>}
      </span>
      {note !== undefined && (
        <span
          id={noteId}
          role={error === undefined ? undefined : 'alert'}
          className={clsx('text-[13px]', error === undefined ? 'text-soft' : 'font-medium text-handle')}
        >
          {note}
        </span>
      )}
    </div>
  );
}
