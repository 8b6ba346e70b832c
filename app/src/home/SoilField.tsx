import { useTyped } from '../ui/useTyped.ts';
import { setSoilFacts } from '@plain-trowel/core/garden/edits/calibrations';
import type { Plot } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../data/gardenContext.ts';
import { Field } from '../ui/Field.tsx';

/** What the plot is filled with, in words. A calibration belongs to its soil; changed here, it is due again. Kept on Enter or when left. */
export function SoilField({ plot }: { plot: Plot }) {
  const { commit } = useGarden();
  const { typed, type, handOver } = useTyped();
  const keep = () => {
    const name = typed?.trim();
    handOver();
    if (name === undefined || name === plot.soil.name) return;
    void commit(`soil of ${plot.name}`, (garden) => ({ garden: setSoilFacts(garden, plot.id, { name }) }));
  };
  return (
    <Field label="Soil" hint="Kept at once. A calibration made in another soil is then due again.">
      {(props) => (
        <input
          {...props}
          value={typed ?? plot.soil.name}
          maxLength={400}
          onChange={(event) => type(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            keep();
          }}
        />
      )}
    </Field>
  );
}
