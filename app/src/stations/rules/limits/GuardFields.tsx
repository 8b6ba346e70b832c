import { setWaterLine } from '@plain-trowel/core/garden/edit';
import type { WaterLine } from '@plain-trowel/core/garden/schema';
import { useGarden } from '../../../data/gardenContext.ts';
import { NumberField } from '../../../ui/NumberField.tsx';

type GuardName = 'maxRunS' | 'minIntervalS' | 'staleAfterS' | 'flowMlPerS';

const GUARDS: readonly {
  name: GuardName;
  label: string;
  unit: string;
  least: number;
  most: number;
  whole: boolean;
}[] = [
  { name: 'maxRunS', label: 'Maximum run', unit: 's', least: 1, most: 3600, whole: true },
  { name: 'minIntervalS', label: 'Minimum interval', unit: 's', least: 60, most: 604_800, whole: true },
  { name: 'staleAfterS', label: 'Reading is stale after', unit: 's', least: 5, most: 86_400, whole: true },
  { name: 'flowMlPerS', label: 'Pump gives', unit: 'ml/s', least: 0.1, most: 1000, whole: false },
];

/** The guards of a water line. They can be tightened and loosened within bounds, never switched off. */
export function GuardFields({ line }: { line: WaterLine }) {
  const { commit } = useGarden();
  return (
    <div className="mt-3 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
      {GUARDS.map((guard) => (
        <NumberField
          key={guard.name}
          label={guard.label}
          unit={guard.unit}
          value={line[guard.name]}
          least={guard.least}
          most={guard.most}
          whole={guard.whole}
          onKeep={(value) =>
            void commit(`${guard.label.toLowerCase()} of ${line.name}`, (garden) => ({
              garden: setWaterLine(garden, line.id, { [guard.name]: value }),
            }))
          }
        />
      ))}
    </div>
  );
}
