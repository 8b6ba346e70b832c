import { setPlot } from '@plain-trowel/core/garden/edits/plots';
import type { Plot } from '@plain-trowel/core/garden/document/schema';
import type { Warmth } from '@plain-trowel/core/garden/document/waterSchema';
import { useGarden } from '../../../data/gardenContext.ts';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { useShownUnit } from '../../../data/useUnits.ts';
import { temperatureText } from '../../../words/unitText.ts';

const ROWS = [
  { name: 'Soil', low: 'soilLowC', high: 'soilHighC' },
  { name: 'Air', low: 'airLowC', high: 'airHighC' },
] as const;

/** Temperature limits of a plot's soil and of the air about it. Empty means none. What contradicts its neighbour is not kept. */
export function WarmthFields({ plot }: { plot: Plot }) {
  const { commit } = useGarden();
  const { unit } = useShownUnit('°C');
  const keep = (key: keyof Warmth, value: number | null) =>
    void commit(`temperature limits of ${plot.name}`, (garden) => ({
      garden: setPlot(garden, plot.id, { warmth: { ...plot.warmth, [key]: value } }),
    }));
  return (
    <section aria-label="Temperature limits" className="mt-4 border-t border-rule pt-3">
      <h2>Temperature limits</h2>
      <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
        For the lamp and the alerts; empty means none. A low limit must lie below its high one. Air near the
        ground freezes when the forecast still says {temperatureText(3, 0)}.
      </p>
      <table className="mt-2 max-w-[460px] [&_td]:align-middle">
        <thead>
          <tr>
            <th>Of</th>
            <th className="text-right">Too cold below, {unit}</th>
            <th className="text-right">Too hot above, {unit}</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map((row) => (
            <tr key={row.name}>
              <td>{row.name}</td>
              <td className="text-right">
                <CellNumber
                  label={`${row.name} is too cold below, ${unit}`}
                  unit="°C"
                  value={plot.warmth[row.low]}
                  least={-40}
                  most={(plot.warmth[row.high] ?? 81) - 1}
                  decimals={1}
                  onKeep={(value) => keep(row.low, value)}
                />
              </td>
              <td className="text-right">
                <CellNumber
                  label={`${row.name} is too hot above, ${unit}`}
                  unit="°C"
                  value={plot.warmth[row.high]}
                  least={(plot.warmth[row.low] ?? -41) + 1}
                  most={80}
                  decimals={1}
                  onKeep={(value) => keep(row.high, value)}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
