import { setPlot } from '@plain-trowel/core/garden/edits/plots';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import type { usePlan } from '../usePlan.ts';

/** How far each plot is from the board, as the cable goes: what its cable is laid out with, and what the choice of a probe goes by. */
export function Distances({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const { plots } = plan.garden;
  if (plots.length === 0) return null;
  return (
    <section className="mt-6">
      <h3 className="font-semibold">Way to each plot</h3>
      <p className="mb-2 max-w-[60ch] text-[13.5px] text-soft">
        From the board as the cable goes, up and down the legs of the bench too. Empty counts as the longest
        cable above.
      </p>
      <Scroll label="Way of the cable to each plot">
        <table className="max-w-[460px]">
          <thead>
            <tr>
              <th>Plot</th>
              <th className="text-right">Cable, one way (m)</th>
            </tr>
          </thead>
          <tbody>
            {plots.map((plot) => (
              <tr key={plot.id}>
                <td>{plot.name}</td>
                <td className="text-right">
                  <CellNumber
                    label={`Cable to ${plot.name} in metres`}
                    value={plot.cableM}
                    least={0}
                    most={1000}
                    decimals={1}
                    onKeep={(cableM) =>
                      void plan.change(`way to ${plot.name}`, (garden) =>
                        setPlot(garden, plot.id, { cableM }),
                      )
                    }
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </section>
  );
}
