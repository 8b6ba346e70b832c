import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Select } from '../../../../ui/Select.tsx';
import { LineNumber } from './LineNumber.tsx';
import { useLine } from './useLine.ts';

/** Where the water comes from: the reservoir, and what the pump gives. */
export function WaterFields({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const { problem, keep } = useLine(line);
  const tankProblem = problem('tank');
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-[minmax(0,1fr)_130px_130px]">
      <div data-said="tank" className="max-sm:col-span-2">
        <Select
          label="Reservoir"
          error={tankProblem ?? undefined}
          hint={
            garden.reservoirs.length === 0
              ? 'None in this garden yet: describe one on Bench, Dose, Reservoir.'
              : 'Low or unknown, it stops the line at once, an order by hand too.'
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
      </div>
      <LineNumber
        line={line}
        field={null}
        label="Pump gives"
        unit="ml/s"
        value={line.flowMlPerS}
        least={0.1}
        most={1000}
        whole={false}
        decimals={2}
        change={(flowMlPerS) => ({ flowMlPerS })}
      />
      <LineNumber
        line={line}
        field={null}
        label="Tube fills in"
        unit="s"
        value={line.tubeS}
        least={0}
        most={600}
        whole={false}
        change={(tubeS) => ({ tubeS })}
      />
    </div>
  );
}
