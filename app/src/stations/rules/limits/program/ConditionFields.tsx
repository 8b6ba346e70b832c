import type { WaterLine } from '@plain-trowel/core/garden/schema';
import type { GardenConditions } from '@plain-trowel/core/garden/waterSchema';
import { useState, type ReactNode } from 'react';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Check } from '../../../../ui/Check.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';
import { LineNumber } from './LineNumber.tsx';
import { useLine } from './useLine.ts';

const NIGHT = { fromMinute: 20 * 60, toMinute: 7 * 60 };

/** What must be so besides. A condition that nothing in the garden measures is refused, for it would hold the line for ever. */
export function ConditionFields({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const { check, keep } = useLine(line);
  const [problem, setProblem] = useState<string | null>(null);
  const { conditions } = line;
  const set = (change: Partial<GardenConditions>): boolean => {
    const to = { conditions: { ...conditions, ...change } };
    const why = check(to);
    setProblem(why);
    if (why === null) keep('conditions', to);
    return why === null;
  };
  const number = (
    key: 'darkBelow' | 'airBelowC' | 'soilAboveC' | 'batteryAboveV',
    of: { name: string; label: string; unit: string; usual: number; least: number; most: number },
  ) => (
    <Row
      name={of.name}
      isOn={conditions[key] !== null}
      onChange={(isOn) => set({ [key]: isOn ? of.usual : null })}
    >
      {conditions[key] !== null && (
        <span className="w-[150px]">
          <LineNumber
            line={line}
            label={of.label}
            unit={of.unit}
            value={conditions[key]}
            least={of.least}
            most={of.most}
            whole={false}
            change={(value) => ({ conditions: { ...conditions, [key]: value } })}
          />
        </span>
      )}
    </Row>
  );
  return (
    <section aria-label="Conditions" className="mt-4 border-t border-rule pt-3">
      <h2>Only when</h2>
      <ul className="mt-1">
        <Row
          name="within hours"
          isOn={conditions.hours !== null}
          onChange={(isOn) => set({ hours: isOn ? NIGHT : null })}
        >
          {conditions.hours && <Hours hours={conditions.hours} onChange={(hours) => set({ hours })} />}
        </Row>
        {number('darkBelow', {
          name: 'it is dark',
          label: 'Light below',
          unit: 'raw counts',
          usual: 300,
          least: 0,
          most: 100_000,
        })}
        {number('airBelowC', {
          name: 'the air is cool enough',
          label: 'Air below',
          unit: '°C',
          usual: 28,
          least: -30,
          most: 60,
        })}
        {number('soilAboveC', {
          name: 'the soil is not frozen',
          label: 'Soil above',
          unit: '°C',
          usual: 2,
          least: -10,
          most: 40,
        })}
        <Row
          name="no rain is told by the rain switch"
          isOn={conditions.noRain}
          onChange={(noRain) => set({ noRain })}
        />
        {number('batteryAboveV', {
          name: 'the battery has enough',
          label: 'Battery above',
          unit: 'V',
          usual: 11.8,
          least: 1,
          most: 60,
        })}
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
          onChange={(tankId) => {
            const to = { tankId: tankId === '' ? null : tankId };
            const why = check(to);
            setProblem(why);
            if (why === null) keep('reservoir', to);
          }}
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

function Row({
  name,
  isOn,
  onChange,
  children,
}: {
  name: string;
  isOn: boolean;
  onChange: (isOn: boolean) => boolean;
  children?: ReactNode;
}) {
  return (
    <li className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-1.5">
      <Check className="min-w-[250px]" checked={isOn} onChange={onChange}>
        {name}
      </Check>
      {children}
    </li>
  );
}

function Hours({
  hours,
  onChange,
}: {
  hours: NonNullable<GardenConditions['hours']>;
  onChange: (hours: NonNullable<GardenConditions['hours']>) => boolean;
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
