import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { removeReservoir, setReservoir } from '@plain-trowel/core/garden/edits/reservoirs';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import type { Quantity } from '@plain-trowel/core/quantity/quantities';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Field } from '../../../../ui/Field.tsx';
import { NameCell } from '../../../../ui/NameCell.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { litresText } from '../../../../words/unitText.ts';

const READS_LEVEL: ReadonlySet<Quantity> = new Set<Quantity>(['distance', 'level', 'weight', 'other']);

/** Name, kind, channel and minimum of a reservoir. */
export function ReservoirSettings({ tank }: { tank: Reservoir }) {
  const { garden, commit } = useGarden();
  const set = (label: string, change: Partial<Omit<Reservoir, 'id'>>) =>
    void commit(`${label} of ${tank.name}`, (before) => ({ garden: setReservoir(before, tank.id, change) }));
  const channels = garden.channels.filter((one) => READS_LEVEL.has(one.quantity));
  const fullMl = Math.max(...tank.levels.map((one) => one.volumeMl), 0);
  return (
    <div className="mt-2 grid grid-cols-2 items-start gap-x-5 gap-y-3 sm:grid-cols-4">
      <Field label="Name">
        {() => (
          <NameCell
            className="field w-full"
            label={`Name of ${tank.name}`}
            value={tank.name}
            onKeep={(name) => set('name', { name })}
          />
        )}
      </Field>
      <Select
        label="Kind"
        groups={[
          {
            name: '',
            options: [
              { value: 'level', label: 'Distance or counts' },
              { value: 'float', label: 'Float or contact' },
            ],
          },
        ]}
        value={tank.kind}
        onChange={(kind) => set('kind', { kind })}
      />
      <Select
        label="Read by"
        hint={
          channels.length === 0
            ? 'No channel measures a distance or a level yet: name one on Bench, Readout.'
            : tank.kind === 'float'
              ? '1 means water, 0 means none.'
              : undefined
        }
        groups={[
          {
            name: '',
            options: [
              { value: '', label: 'nothing' },
              ...channels.map((one) => ({ value: one.id, label: channelName(garden, one) })),
            ],
          },
        ]}
        value={tank.channelId ?? ''}
        onChange={(channelId) => set('channel', { channelId: channelId === '' ? null : channelId })}
      />
      {tank.kind === 'level' && (
        <NumberField
          label="Minimum"
          unit="l"
          value={tank.minimumMl / 1000}
          least={0}
          most={100_000}
          whole={false}
          check={(litres) =>
            fullMl > 0 && litres * 1000 >= fullMl
              ? `Full it holds ${litresText(fullMl)}, so nothing would ever run. Set the minimum below that, or add the full level.`
              : null
          }
          onKeep={(litres) => set('minimum', { minimumMl: Math.round(litres * 1000) })}
        />
      )}
      <button
        type="button"
        className="press justify-self-start underline underline-offset-4"
        onClick={() =>
          void commit(
            `remove ${tank.name}`,
            (before) => ({ garden: removeReservoir(before, tank.id) }),
            `${tank.name} was removed.`,
          )
        }
      >
        Remove {tank.name}
      </button>
    </div>
  );
}
