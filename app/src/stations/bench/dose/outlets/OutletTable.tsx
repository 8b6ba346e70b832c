import { MOST } from '@plain-trowel/core/quantity/bounds';
import type { Evenness } from '@plain-trowel/core/dosing/outlets';
import { addOutlet, removeOutlet, setOutlet } from '@plain-trowel/core/garden/edits/reservoirs';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { CellNumber } from '../../../../ui/CellNumber.tsx';
import { NameCell } from '../../../../ui/NameCell.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';

/** Every outlet with where it leads and what it gave into its cup. */
export function OutletTable({ line, even }: { line: WaterLine; even: Evenness | null }) {
  const { garden, commit } = useGarden();
  const measured = line.outlets.filter((one) => one.cupMl !== null);
  const add = () =>
    void commit(`outlet of ${line.name}`, (before) => ({
      garden: addOutlet(
        before,
        line.id,
        { name: `Outlet ${line.outlets.length + 1}`, plotId: line.plotId, cupMl: null },
        Math.random,
      ),
    }));
  return (
    <section aria-label="Outlets" className="mt-3">
      {line.outlets.length > 0 && (
        <Scroll label="Outlets">
          <table className="min-w-[560px] [&_td]:align-middle">
            <thead>
              <tr>
                <th>Outlet</th>
                <th>Leads to</th>
                <th className="text-right">In its cup, ml</th>
                <th className="text-right">Share, % of all</th>
                <th className="pl-4">Remove</th>
              </tr>
            </thead>
            <tbody>
              {line.outlets.map((outlet) => {
                const at = measured.indexOf(outlet);
                return (
                  <tr key={outlet.id}>
                    <td>
                      <NameCell
                        label="Name of the outlet"
                        value={outlet.name}
                        onKeep={(name) =>
                          void commit(`name of an outlet`, (before) => ({
                            garden: setOutlet(before, line.id, outlet.id, { name }),
                          }))
                        }
                      />
                    </td>
                    <td>
                      <select
                        aria-label={`${outlet.name} leads to`}
                        className="field min-h-[32px]! py-0.5!"
                        value={outlet.plotId ?? ''}
                        onChange={(event) => {
                          const plotId = event.target.value === '' ? null : event.target.value;
                          void commit(`${outlet.name} leads elsewhere`, (before) => ({
                            garden: setOutlet(before, line.id, outlet.id, { plotId }),
                          }));
                        }}
                      >
                        <option value="">no plot of this garden</option>
                        {garden.plots.map((plot) => (
                          <option key={plot.id} value={plot.id}>
                            {plot.name}
                          </option>
                        ))}
                      </select>
                    </td>
                    <td className="text-right">
                      <CellNumber
                        label={`${outlet.name}: in its cup, ml`}
                        value={outlet.cupMl}
                        least={0}
                        most={1e6}
                        decimals={1}
                        onKeep={(cupMl) =>
                          void commit(`cup of ${outlet.name}`, (before) => ({
                            garden: setOutlet(before, line.id, outlet.id, { cupMl }),
                          }))
                        }
                      />
                    </td>
                    <td className="num text-right">
                      {at >= 0 && even ? formatNumber(even.sharesPercent[at] ?? 0, 1) : '–'}
                    </td>
                    <td className="pl-4">
                      <button
                        type="button"
                        className="press underline underline-offset-4"
                        onClick={() =>
                          void commit(
                            `remove ${outlet.name}`,
                            (before) => ({ garden: removeOutlet(before, line.id, outlet.id) }),
                            `${outlet.name} was removed.`,
                          )
                        }
                      >
                        Remove<span className="sr-only"> {outlet.name}</span>
                      </button>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Scroll>
      )}
      <AddButton
        count={line.outlets.length}
        most={MOST.outlets}
        what="outlets"
        className="mt-3"
        look={line.outlets.length === 0 ? 'primary' : 'plain'}
        onClick={add}
      >
        Add an outlet
      </AddButton>
    </section>
  );
}
