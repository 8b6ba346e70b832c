import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { buildSteps, nextStep } from '@plain-trowel/core/wiring/buildOrder';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useKeptTicks } from '../../../../ui/useKeptTicks.ts';
import { Button } from '../../../../ui/Button.tsx';
import type { usePlan } from '../../usePlan.ts';
import type { Selected } from '../picture/selection.ts';
import { StepCard } from './StepCard.tsx';
import { StepList } from './StepList.tsx';

/** Building along at the bench: one step at a time in large letters, ticked by a press or a key, taken up again after a break. */
export function BuildView({
  plan,
  faults,
  onSelect,
}: {
  plan: ReturnType<typeof usePlan>;
  faults: number | null;
  /** The wire of the step is lit in the picture, the table and on paper. */
  onSelect: (selected: Selected) => void;
}) {
  const { garden } = useGarden();
  const { circuit } = plan;
  const steps = useMemo(() => buildSteps(circuit), [circuit]);
  const { ticks, set, clear } = useKeptTicks(`plain-trowel built ${garden.id}`);
  const isDone = (id: string) => ticks[id] !== undefined;
  const [chosen, setChosen] = useState<string | null>(null);
  const held = steps.findIndex(({ id }) => id === chosen);
  const at = held >= 0 ? held : (nextStep(steps, isDone) ?? steps.length - 1);
  const step = steps[at];
  const wireId = step?.kind === 'wire' ? step.wireId : null;
  useEffect(() => {
    if (wireId !== null) onSelect({ kind: 'wire', id: wireId });
  }, [wireId, onSelect]);
  const done = steps.filter(({ id }) => isDone(id)).length;
  if (!step)
    return (
      <p className="mt-4 text-soft">
        Nothing is wired yet. “Wire what is open” on the picture draws all wires.
      </p>
    );
  const go = (to: number) => setChosen(steps[Math.min(steps.length - 1, Math.max(0, to))]?.id ?? null);
  const finish = () => {
    set(step.id, Date.now());
    const next = nextStep(steps, (id) => id === step.id || isDone(id), at + 1);
    go(next ?? at);
  };
  const byKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowRight') go(at + 1);
    if (event.key === 'ArrowLeft') go(at - 1);
  };
  return (
    <div onKeyDown={byKey}>
      {faults !== null && faults > 0 && (
        <p role="alert" className="mt-3 max-w-[70ch] border-l-4 border-handle pl-3">
          The checks found {faults === 1 ? 'a fault' : `${faults} faults`} in this wiring. Mend{' '}
          {faults === 1 ? 'it' : 'them'} on the picture first: what is built now would be built wrong.
        </p>
      )}
      <p className="mt-3" aria-live="polite">
        <b className="num">{done}</b> of <b className="num">{steps.length}</b> steps done
        {done === steps.length ? '. The bench check of the board, on Rules, Sketch, comes next.' : '.'}
      </p>
      <StepCard circuit={circuit} step={step} place={at + 1} count={steps.length} isDone={isDone(step.id)} />
      <div className="mt-3 flex flex-wrap gap-3 bg-paper py-2 max-md:sticky max-md:bottom-0">
        <Button look="primary" autoFocus onClick={finish}>
          {isDone(step.id) ? 'Next' : 'Done, next'}
        </Button>
        <Button disabled={at === 0} onClick={() => go(at - 1)}>
          Back
        </Button>
        <Button disabled={at === steps.length - 1} onClick={() => go(at + 1)}>
          Pass over
        </Button>
        {isDone(step.id) && (
          <Button look="quiet" onClick={() => set(step.id, null)}>
            Take the tick away
          </Button>
        )}
      </div>
      <StepList
        circuit={circuit}
        steps={steps}
        at={at}
        isDone={isDone}
        onChoose={setChosen}
        onTick={(id, isTicked) => set(id, isTicked ? Date.now() : null)}
        onClear={clear}
      />
    </div>
  );
}
