import type { ReactNode } from 'react';
import type { SavedConditions, Sense } from '@plain-trowel/core/control/conditions/conditions';
import { ambientChoices } from '@plain-trowel/core/garden/bind/ambient';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Check } from '../../../../ui/Check.tsx';
import { Select } from '../../../../ui/Select.tsx';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import { NumberField } from '../../../../ui/NumberField.tsx';

type NumberKey = 'darkBelow' | 'airBelowC' | 'soilAboveC' | 'batteryAboveV';
type RowNumber = {
  readonly label: string;
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
};

/** How each condition stands in the form; a new one fails to compile here until it has its row. */
export const CONDITION_ROWS: {
  readonly [Key in keyof SavedConditions]: {
    readonly name: string;
    readonly sense: Sense | null;
    readonly field: LineField;
    readonly number: Key extends NumberKey ? RowNumber : null;
  };
} = {
  hours: { name: 'within hours', sense: null, field: 'hours', number: null },
  darkBelow: {
    name: 'it is dark',
    sense: 'light',
    field: 'dark',
    number: { label: 'Light below', unit: 'raw counts', usual: 300, least: 0, most: 100_000 },
  },
  airBelowC: {
    name: 'the air is cool enough',
    sense: 'airTenthsC',
    field: 'air',
    number: { label: 'Air below', unit: '°C', usual: 28, least: -30, most: 60 },
  },
  soilAboveC: {
    name: 'the soil is not frozen',
    sense: 'soilTenthsC',
    field: 'soilTemperature',
    number: { label: 'Soil above', unit: '°C', usual: 2, least: -10, most: 40 },
  },
  noRain: { name: 'the rain switch reports no rain', sense: 'rain', field: 'rain', number: null },
  batteryAboveV: {
    name: 'the battery has enough',
    sense: 'battery',
    field: 'battery',
    number: { label: 'Battery above', unit: 'V', usual: 11.8, least: 1, most: 60 },
  },
  noSkip: { name: 'the skip switch is off', sense: 'skip', field: 'skip', number: null },
};

/** Whose conditions they are: a water line's or a contact's. */
export type Conditioned = Pick<WaterLine, 'conditions' | 'around' | 'boardId' | 'plotId'>;

/** One condition: a box to tick, its number, and where several sensors could be meant, which of them. */
export function ConditionRow({
  about,
  of,
  problem,
  set,
  choose,
  children,
}: {
  readonly about: Conditioned;
  readonly of: keyof SavedConditions;
  /** What stands against it while it is on: nothing measures it, or several could. */
  readonly problem: string | null;
  readonly set: (change: Partial<SavedConditions>) => void;
  readonly choose: (around: WaterLine['around']) => void;
  readonly children?: ReactNode;
}) {
  const { name, number, sense } = CONDITION_ROWS[of];
  const value = about.conditions[of];
  const isOn = value !== null && value !== false;
  const isBare = of === 'noRain' || of === 'noSkip';
  const on = isBare ? true : (number?.usual ?? NIGHT);
  return (
    <li
      data-said={CONDITION_ROWS[of].field}
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-1.5 last:border-b-0"
    >
      <Check
        className="min-w-[250px]"
        checked={isOn}
        onChange={(tick) => set({ [of]: tick ? on : isBare ? false : null })}
      >
        {name}
      </Check>
      {isOn && number && typeof value === 'number' && (
        <span className="w-[150px]">
          <NumberField
            label={number.label}
            unit={number.unit}
            value={value}
            least={number.least}
            most={number.most}
            whole={false}
            onKeep={(to) => set({ [of]: to })}
          />
        </span>
      )}
      {children}
      {isOn && problem && (
        <p role="alert" className="basis-full text-[13px] font-medium text-handle">
          {problem}
        </p>
      )}
      {sense && <SensorChoice about={about} sense={sense} choose={choose} />}
    </li>
  );
}

const NIGHT = { fromMinute: 20 * 60, toMinute: 7 * 60 };

const CHOSEN = { airTenthsC: 'airId', light: 'lightId', rain: 'rainId', skip: 'skipId' } as const;

/** Which of several sensors is meant; nothing where there is no choice. */
export function SensorChoice({
  about,
  sense,
  choose,
}: {
  readonly about: Conditioned;
  readonly sense: Sense;
  readonly choose: (around: WaterLine['around']) => void;
}) {
  const { garden } = useGarden();
  if (!(sense in CHOSEN)) return null;
  const key = CHOSEN[sense as keyof typeof CHOSEN];
  const place = { boardId: about.boardId, plotId: about.plotId, chosen: about.around };
  const near = ambientChoices(garden, place, sense);
  const quantity = near[0]?.quantity;
  const all = garden.channels.filter((one) => one.quantity === quantity);
  if (all.length < 2) return null;
  const [only] = near.length === 1 ? near : [];
  return (
    <span className="w-[230px]">
      <Select
        label="Measured by"
        groups={[
          {
            name: '',
            options: [
              { value: '', label: only ? `The nearest: ${channelName(garden, only)}` : 'Not chosen yet' },
              ...all.map((one) => ({ value: one.id, label: channelName(garden, one) })),
            ],
          },
        ]}
        value={about.around[key] ?? ''}
        onChange={(id) => choose({ ...about.around, [key]: id === '' ? null : id })}
      />
    </span>
  );
}
