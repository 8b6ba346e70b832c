import { clsx } from 'clsx';
import type { Headline } from '../../../words/headlineText.ts';

const TONES = { use: 'text-leaf', wait: '', no: 'text-handle' } as const;

/** Whether the number may be used, in words a size larger than all but the number; under it how much of the way is done. */
export function Verdict({ headline }: { headline: Headline }) {
  const { tone, says, more, doneFrac } = headline;
  return (
    <section className="min-w-[240px] flex-1" aria-label="Verdict">
      <p className={clsx('text-[20px] leading-snug font-semibold', TONES[tone])}>{says}</p>
      <p className="text-[14.5px] text-soft">{more}</p>
      {doneFrac !== null && (
        <div
          className="mt-1.5 h-2.5 max-w-[420px] border border-ink"
          role="progressbar"
          aria-label="Way to its end"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(100 * doneFrac)}
        >
          <div
            className="h-full bg-[repeating-linear-gradient(90deg,var(--steel)_0_7px,var(--paper)_7px_10px)]"
            style={{ width: `${Math.round(100 * doneFrac)}%` }}
          />
        </div>
      )}
    </section>
  );
}
