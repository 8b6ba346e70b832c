import { clsx } from 'clsx';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import {
  formulaInNumbers,
  formulaInWords,
  type Worked,
  type WorkedStep,
} from '@plain-trowel/core/quantity/worked';
import { foldSlip, useSlip } from './slip.ts';

function Step({ step }: { step: WorkedStep }) {
  return (
    <li className="border-t border-rule py-2">
      <p className="text-[13px] text-soft">{formulaInWords(step)}</p>
      <p className="font-mono text-[14.5px] leading-relaxed wrap-anywhere">
        {formulaInNumbers(step)} = <b className="font-semibold">{formatNumber(step.value, step.decimals)}</b>{' '}
        {step.unit}
      </p>
      <dl className="mt-1 grid grid-cols-[1fr_auto] gap-x-3 text-[13px]">
        {Object.entries(step.inputs).map(([key, given]) => (
          <div key={key} className="contents">
            <dt className="text-soft">{given.name}</dt>
            <dd className="num text-right">
              {formatNumber(given.value, given.decimals)} {given.unit}
            </dd>
          </div>
        ))}
      </dl>
    </li>
  );
}

function Working({ worked }: { worked: Worked }) {
  return (
    <>
      <h2>{worked.title}</h2>
      <p className="font-mono text-[26px] leading-tight font-semibold">
        {formatNumber(worked.value, worked.decimals)}{' '}
        <span className="text-[14px] font-normal">{worked.unit}</span>
      </p>
      <ol className="mt-2 border-b border-rule">
        {worked.steps.map((step) => (
          <Step key={step.name} step={step} />
        ))}
      </ol>
      <div className="mt-2 flex flex-col gap-2 text-[13.5px]">
        {worked.note !== undefined && <p>{worked.note}</p>}
        {worked.wouldChange !== undefined && (
          <p>
            <b className="font-semibold">Would change it:</b> {worked.wouldChange}
          </p>
        )}
        <p className="text-soft">{worked.source}</p>
      </div>
    </>
  );
}

/** The slip at the right: for the number in focus, where it comes from. On a narrow screen it comes up when asked for. */
export function WorkingSlip() {
  const { worked, asked } = useSlip();
  // Nothing asked for yet: the slip stands folded at the edge and leaves its room to the sheet.
  if (!worked)
    return (
      <aside
        aria-label="Working"
        title="Press any number with a dotted line under it: here stands how it was worked out."
        className="no-print hidden border-l border-rule bg-paper-2 pt-5 xl:block"
      >
        <p className="mx-auto w-fit text-[13px] font-semibold text-soft [writing-mode:vertical-rl] xl:sticky xl:top-[92px]">
          Working: press a dotted number
        </p>
      </aside>
    );
  return (
    <aside
      aria-label="Working"
      className={clsx(
        'no-print border-rule bg-paper-2 xl:block xl:border-l',
        'max-xl:fixed max-xl:inset-x-0 max-xl:bottom-0 max-xl:z-10 max-xl:max-h-[60dvh] max-xl:overflow-y-auto max-xl:border-t-2 max-xl:border-ink',
        asked ? 'block' : 'hidden',
      )}
    >
      <div className="px-5 py-4 xl:sticky xl:top-[72px] xl:max-h-[calc(100dvh-72px)] xl:overflow-y-auto">
        <div className="flex items-baseline justify-between">
          <h2 className="label mb-2">Working</h2>
          <button type="button" onClick={foldSlip} className="press text-[14px] underline underline-offset-4">
            Fold
          </button>
        </div>
        <Working worked={worked} />
      </div>
    </aside>
  );
}
