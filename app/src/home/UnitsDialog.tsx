import { setUnits } from '@plain-trowel/core/garden/edits/plots';
import type { Units } from '@plain-trowel/core/quantity/units';
import { useGarden } from '../data/gardenContext.ts';
import { Choice } from '../ui/Choice.tsx';
import { Dialog } from '../ui/Dialog.tsx';

/** In which units this garden is read and typed, set once. What is stored does not change. */
export default function UnitsDialog({ onClose }: { onClose: () => void }) {
  const { garden, commit } = useGarden();
  const { units } = garden;
  const change = (to: Partial<Units>) =>
    void commit('units', (before) => ({ garden: setUnits(before, { ...before.units, ...to }) }));
  return (
    <Dialog
      open
      onClose={onClose}
      title="Units"
      description="How this garden is read and typed. What is stored, exported and worked out stays metric, and so do small doses: ml."
    >
      <div className="flex flex-col gap-3">
        <Choice
          legend="Temperature"
          showLegend
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
          value={units.temperature}
          onChange={(temperature) => change({ temperature })}
        />
        <Choice
          legend="Water in tanks"
          showLegend
          options={[
            { value: 'l', label: 'litres' },
            { value: 'gal', label: 'US gallons' },
          ]}
          value={units.volume}
          onChange={(volume) => change({ volume })}
        />
        <Choice
          legend="Depth and width"
          showLegend
          options={[
            { value: 'cm', label: 'cm' },
            { value: 'in', label: 'inches' },
          ]}
          value={units.length}
          onChange={(length) => change({ length })}
        />
      </div>
    </Dialog>
  );
}
