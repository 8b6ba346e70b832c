import { byId } from '@plain-trowel/core/quantity/byId';
import { Scroll } from '../../../ui/Scroll.tsx';
import { setPlacement } from '@plain-trowel/core/garden/edits/plan';
import type { Probe } from '@plain-trowel/core/garden/document/schema';
import { PROBE_LIES, type ProbeLies } from '@plain-trowel/core/garden/document/probeSchema';
import { LIES_WORDS } from '../../../words/placementText.ts';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import type { usePlan } from '../usePlan.ts';
import { useShownUnit } from '../../../data/useUnits.ts';

const FIELDS = [
  { key: 'where', label: 'Where in the pot' },
  { key: 'between', label: 'Between which outlets' },
  { key: 'mapNote', label: 'Note for the map' },
] as const;

/** What the placement sheet says of each probe, to be filled in here. */
export function PlacementFields({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const { unit } = useShownUnit('cm');
  const { garden } = plan;
  if (garden.probes.length === 0)
    return (
      <p className="no-print mb-4">This garden has no probe yet: add a plot under the labels at the left.</p>
    );
  const keep = (probe: Probe, change: Parameters<typeof setPlacement>[2]) =>
    void plan.change(`placement of ${probe.label}`, (held) => setPlacement(held, probe.id, change));
  return (
    <Scroll label="Placement of each probe" className="no-print mb-5">
      <table>
        <thead>
          <tr>
            <th>Probe</th>
            <th className="text-right">Depth {unit}</th>
            <th>It lies</th>
            {FIELDS.map((field) => (
              <th key={field.key}>{field.label}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {garden.probes.map((probe) => (
            <tr key={probe.id}>
              <td className="font-medium">
                {probe.label}
                <span className="block text-[12.5px] font-normal text-soft">
                  {byId(garden.plots, probe.plotId)?.name}
                </span>
              </td>
              <td className="text-right">
                <CellNumber
                  label={`Depth of ${probe.label}, ${unit}`}
                  unit="cm"
                  value={probe.depthCm}
                  least={0}
                  most={300}
                  decimals={1}
                  onKeep={(value) => value !== null && keep(probe, { depthCm: value })}
                />
              </td>
              <td>
                <select
                  aria-label={`How ${probe.label} lies in the soil`}
                  className="field min-h-[30px]! w-[214px] py-0.5!"
                  value={probe.placement.lies}
                  onChange={({ target }) => keep(probe, { lies: target.value as ProbeLies })}
                >
                  {PROBE_LIES.map((one) => (
                    <option key={one} value={one}>
                      {LIES_WORDS[one].name}
                    </option>
                  ))}
                </select>
                <span className="block max-w-[214px] text-[12.5px] leading-snug text-soft">
                  {LIES_WORDS[probe.placement.lies].why}
                </span>
              </td>
              {FIELDS.map((field) => (
                <td key={field.key}>
                  <textarea
                    aria-label={`${field.label}, ${probe.label}`}
                    key={probe.placement[field.key]}
                    className="field min-h-[30px]! w-full px-2! py-1! text-[14px]"
                    rows={2}
                    maxLength={400}
                    defaultValue={probe.placement[field.key]}
                    onBlur={(event) => {
                      const typed = event.target.value.trim();
                      if (typed !== probe.placement[field.key]) keep(probe, { [field.key]: typed });
                    }}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}
