import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { Rig } from '@plain-trowel/core/garden/document/waterSchema';
import { useGarden } from '../../../data/gardenContext.ts';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { RIG_WORDS } from './RefitNote.tsx';

const BOUNDS: Readonly<Record<keyof Rig, readonly [number, number]>> = {
  tubeM: [0, 500],
  liftCm: [-1000, 5000],
  tankPercent: [0, 100],
  supplyV: [1, 60],
};
const KEYS = Object.keys(BOUNDS) as (keyof Rig)[];

/** With what the pump runs now. Each trial remembers it; when it changes, the sheet says that the trials hold no longer. */
export function RigFields({ line }: { line: WaterLine }) {
  const { commit } = useGarden();
  return (
    <fieldset className="mt-3">
      <legend className="text-[12.5px] font-semibold text-soft">As it is now; each trial remembers it</legend>
      <div className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
        {KEYS.map((key) => {
          const { name, unit, decimals } = RIG_WORDS[key];
          const [least, most] = BOUNDS[key];
          return (
            <span key={key} className="flex items-center gap-2">
              <span className="text-[14px]">{name}</span>
              <CellNumber
                label={`${name}, ${unit}`}
                value={line.rig[key]}
                least={least}
                most={most}
                decimals={decimals}
                onKeep={(value) =>
                  void commit(`${name} of ${line.name}`, (garden) => ({
                    garden: setWaterLine(garden, line.id, { rig: { ...line.rig, [key]: value } }),
                  }))
                }
              />
              <span className="text-[13.5px] text-soft">{unit}</span>
            </span>
          );
        })}
      </div>
    </fieldset>
  );
}
