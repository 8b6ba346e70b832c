import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { removeReservoir, setReservoir } from '@plain-trowel/core/garden/edits/reservoirs';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
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
              ? floatHint(tank)
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
      {tank.kind === 'float' && (
        <FloatFields
          tank={tank}
          onChange={(float) => set('contact', { float: { ...tank.float, ...float } })}
        />
      )}
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

const floatHint = ({ float: { highIs, threshold } }: Reservoir): string =>
  `${threshold <= 1 ? '1 means' : `From ${formatNumber(threshold)} on it means`} ${highIs === 'water' ? 'water' : 'empty'}, below that ${highIs === 'water' ? 'empty' : 'water'}.`;

/** Which way round a contact tells, and from which reading an analog one does. */
function FloatFields({
  tank,
  onChange,
}: {
  tank: Reservoir;
  onChange: (change: Partial<Reservoir['float']>) => void;
}) {
  return (
    <>
      <Select
        label="A high reading means"
        groups={[
          {
            name: '',
            options: [
              { value: 'water', label: 'there is water' },
              { value: 'empty', label: 'the tank is empty' },
            ],
          },
        ]}
        value={tank.float.highIs}
        onChange={(highIs) => onChange({ highIs })}
      />
      <NumberField
        label="High from"
        unit="raw"
        value={tank.float.threshold}
        least={0.1}
        most={100_000}
        whole={false}
        onKeep={(threshold) => onChange({ threshold })}
      />
      <p className="col-span-full max-w-[66ch] text-[14px] text-soft">
        Wire it so that a cut cable reads as an empty tank: then it fails safe and the pump stays off. A
        contact that is closed while there is water does that; one that closes when it is empty reads “water”
        for ever once its cable is cut. Most floats can be turned over on their stem to change sides. 0.5
        stands for a contact that reads 0 or 1.
      </p>
    </>
  );
}
