import { clsx } from 'clsx';
import type { ComponentProps } from 'react';

type Look = 'primary' | 'plain' | 'quiet';

const LOOKS: Readonly<Record<Look, string>> = {
  primary:
    'bg-handle px-4 text-handle-ink border-handle font-semibold disabled:bg-transparent disabled:text-soft disabled:border-rule',
  plain: 'border-ink px-4 text-ink font-medium hover:bg-paper-2 disabled:text-soft disabled:border-rule',
  quiet:
    'border-transparent text-ink font-medium underline decoration-rule underline-offset-4 hover:decoration-ink disabled:text-soft',
};

/** A button, with the key that does the same beside its words. */
export function Button({
  look = 'plain',
  hint,
  children,
  className,
  ...rest
}: ComponentProps<'button'> & { look?: Look; hint?: string }) {
  return (
    <button
      type="button"
      className={clsx(
        'press inline-flex min-h-[38px] items-center gap-2 rounded-[2px] border py-1.5 text-[15px]',
        LOOKS[look],
        className,
      )}
      {...rest}
    >
      {children}
      {hint !== undefined && (
        <kbd
          aria-hidden
          className="rounded-[2px] border border-current px-1.5 font-mono text-xs font-medium opacity-80"
        >
          {hint}
        </kbd>
      )}
    </button>
  );
}
