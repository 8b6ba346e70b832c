import { clsx } from 'clsx';
import type { BuildStep } from '@plain-trowel/core/wiring/buildOrder';
import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import { Button } from '../../../../ui/Button.tsx';
import { endName } from '../ends.ts';

/** All steps in their order, each to be ticked or pressed to be shown. */
export function StepList({
  circuit,
  steps,
  at,
  isDone,
  onChoose,
  onTick,
  onClear,
}: {
  circuit: Circuit;
  steps: readonly BuildStep[];
  at: number;
  isDone: (id: string) => boolean;
  onChoose: (id: string) => void;
  onTick: (id: string, isDone: boolean) => void;
  onClear: () => void;
}) {
  return (
    <section aria-label="All steps" className="mt-6 border-t border-ink pt-3">
      <h2>All steps</h2>
      <ol className="mt-1">
        {steps.map((step, place) => {
          const text = textOf(circuit, step);
          return (
            <li key={step.id} className="flex items-center gap-3 border-b border-rule py-0.5">
              <input
                type="checkbox"
                className="size-5 shrink-0 accent-ink"
                aria-label={`${text}: done`}
                checked={isDone(step.id)}
                onChange={({ target }) => onTick(step.id, target.checked)}
              />
              <button
                type="button"
                aria-current={place === at ? 'step' : undefined}
                className={clsx(
                  'press min-h-[34px] flex-1 text-left text-[14.5px] wrap-anywhere',
                  place === at && 'font-semibold underline',
                )}
                onClick={() => onChoose(step.id)}
              >
                {text}
              </button>
            </li>
          );
        })}
      </ol>
      <Button look="quiet" className="mt-2" onClick={onClear}>
        Take all ticks away
      </Button>
    </section>
  );
}

function textOf(circuit: Circuit, step: BuildStep): string {
  switch (step.kind) {
    case 'off':
      return 'Everything off';
    case 'wire':
      return `${step.number}: ${endName(circuit, step.from)} to ${endName(circuit, step.to)}, ${step.of}${step.cable ? `, cable ${step.cable.label}` : ''}`;
    case 'measure':
      return `Measure, ${step.stage}: ${step.red} and ${step.black}, ${step.expects}`;
  }
}
