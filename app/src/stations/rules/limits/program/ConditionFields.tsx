import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { SavedConditions } from '@plain-trowel/core/control/conditions/conditions';
import { useState } from 'react';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Select } from '../../../../ui/Select.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';
import { CONDITION_ROWS, ConditionRow } from './ConditionRow.tsx';
import { LineNumber } from './LineNumber.tsx';
import { useLine } from './useLine.ts';

const KEYS = Object.keys(CONDITION_ROWS) as readonly (keyof SavedConditions)[];

/** What must be so besides. A condition that nothing in the garden measures is refused, for it would hold the line forever. */
export function ConditionFields({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const { check, keep } = useLine(line);
  const [problem, setProblem] = useState<string | null>(null);
  const { conditions } = line;
  const tryTo = (to: Parameters<typeof check>[0]): boolean => {
    const why = check(to);
    setProblem(why);
    if (why === null) keep('conditions', to);
    return why === null;
  };
  const set = (change: Partial<SavedConditions>) => tryTo({ conditions: { ...conditions, ...change } });
  return (
    <section aria-label="Conditions" className="mt-4 border-t border-rule pt-3">
      <h2>Only when</h2>
      <ul className="mt-1">
        {KEYS.map((key) => (
          <ConditionRow key={key} line={line} of={key} set={set} choose={(around) => tryTo({ around })}>
            {key === 'hours' && conditions.hours && (
              <Hours hours={conditions.hours} onChange={(hours) => set({ hours })} />
            )}
          </ConditionRow>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="mt-1 text-[13.5px] font-medium text-handle">
          {problem}
        </p>
      )}
      <div className="mt-3 grid gap-x-5 gap-y-3 sm:grid-cols-2">
        <Select
          label="Reservoir"
          hint={
            garden.reservoirs.length === 0
              ? 'None in this garden yet: describe one on Bench, Dose, Reservoir.'
              : 'Low or unknown, it stops the line at once.'
          }
          groups={[
            {
              name: '',
              options: [
                { value: '', label: 'None, or a tap' },
                ...garden.reservoirs.map((one) => ({ value: one.id, label: one.name })),
              ],
            },
          ]}
          value={line.tankId ?? ''}
          onChange={(tankId) => tryTo({ tankId: tankId === '' ? null : tankId })}
        />
        <LineNumber
          line={line}
          label="A day while the probe is faulty (0: hold)"
          unit="ml"
          value={line.fallbackMl}
          least={0}
          most={100_000}
          change={(fallbackMl) => ({ fallbackMl })}
        />
      </div>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        {line.fallbackMl === 0
          ? 'While the probe is faulty the line holds: nothing floods, but a plant may dry out over a holiday.'
          : 'While the probe is faulty this much is given once a day, blind: no plant dries out, but one that is wet already gets wetter, and a tube that is off is not noticed.'}
      </p>
    </section>
  );
}

function Hours({
  hours,
  onChange,
}: {
  hours: NonNullable<SavedConditions['hours']>;
  onChange: (hours: NonNullable<SavedConditions['hours']>) => boolean;
}) {
  const field = (key: 'fromMinute' | 'toMinute', label: string) => (
    <TimeField label={label} minute={hours[key]} onKeep={(minute) => onChange({ ...hours, [key]: minute })} />
  );
  return (
    <span className="flex items-center gap-2">
      {field('fromMinute', 'From')} to {field('toMinute', 'Until')}
    </span>
  );
}
