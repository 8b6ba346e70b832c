import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { SavedConditions } from '@plain-trowel/core/control/conditions/conditions';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Select } from '../../../../ui/Select.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';
import { CONDITION_ROWS, ConditionRow } from './ConditionRow.tsx';
import { LineNumber } from './LineNumber.tsx';
import { useLine } from './useLine.ts';

const KEYS = Object.keys(CONDITION_ROWS) as readonly (keyof SavedConditions)[];

/** What must be so besides. A condition that nothing in the garden measures would hold the line forever: it stands in red, and nothing waters. */
export function ConditionFields({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const { problem, keep } = useLine(line);
  const { conditions } = line;
  const set = (change: Partial<SavedConditions>) =>
    keep('conditions', { conditions: { ...conditions, ...change } });
  const tankProblem = problem('tank');
  return (
    <section aria-label="Conditions" className="mt-4 border-t border-rule pt-3">
      <h2>Only when</h2>
      <ul className="mt-1">
        {KEYS.map((key) => (
          <ConditionRow
            key={key}
            line={line}
            of={key}
            set={set}
            choose={(around) => keep('conditions', { around })}
          >
            {key === 'hours' && conditions.hours && (
              <Hours hours={conditions.hours} onChange={(hours) => set({ hours })} />
            )}
          </ConditionRow>
        ))}
      </ul>
      <div className="mt-3 grid gap-x-5 gap-y-3 sm:grid-cols-2">
        <Select
          label="Reservoir"
          hint={
            tankProblem ??
            (garden.reservoirs.length === 0
              ? 'None in this garden yet: describe one on Bench, Dose, Reservoir.'
              : 'Low or unknown, it stops the line at once.')
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
          onChange={(tankId) => keep('reservoir', { tankId: tankId === '' ? null : tankId })}
        />
        <LineNumber
          line={line}
          field="fallback"
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
  onChange: (hours: NonNullable<SavedConditions['hours']>) => void;
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
