import { Scroll } from '../../../ui/Scroll.tsx';
import { CABLE_SIZES_MM2, cableOhm } from '@plain-trowel/core/electrics/cable';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { changeCable } from '@plain-trowel/core/wiring/edit';
import { COLOUR_TAGS, type Cable, type ColourTag } from '@plain-trowel/core/wiring/netlist';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { ColourFlag } from '../../../ui/ColourFlag.tsx';
import type { usePlan } from '../usePlan.ts';
import { endName } from './ends.ts';

/** Every cable with its label, tag, length and cross-section: what is measured here decides drops, fuses and pull-ups. */
export function CableTable({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const { wiring, circuit } = plan;
  const change = (cable: Cable, what: Partial<Cable>) =>
    void plan.changeWiring(`cable ${cable.label}`, (held) => changeCable(held, cable.id, what));
  if (wiring.cables.length === 0)
    return (
      <p>
        Each cable will be listed here with its length and cross-section. Wire something first: the planner
        gives every part that sits away from the box a cable.
      </p>
    );
  return (
    <>
      <p className="mb-2 max-w-[70ch] text-[14px] text-soft">
        Measure along the way the cable goes. Before anything is buried both ends get a label and a colour
        tag: print them under Paper.
      </p>
      <Scroll label="Cables">
        <table>
          <thead>
            <tr>
              <th>Cable</th>
              <th>Tag</th>
              <th className="text-right">Length m</th>
              <th className="text-right">mm²</th>
              <th className="text-right">Both wires</th>
              <th>Wires in it</th>
            </tr>
          </thead>
          <tbody>
            {wiring.cables.map((cable) => (
              <tr key={cable.id}>
                <td>
                  <input
                    aria-label={`Label of cable ${cable.label}`}
                    key={cable.label}
                    className="field min-h-[30px]! w-[130px] py-0.5!"
                    defaultValue={cable.label}
                    maxLength={60}
                    onBlur={(event) => {
                      const typed = event.target.value.trim();
                      if (typed !== '' && typed !== cable.label) change(cable, { label: typed });
                    }}
                  />
                </td>
                <td className="whitespace-nowrap">
                  <span className="inline-flex items-center gap-1.5">
                    <ColourFlag colour={cable.colour} />
                    <select
                      aria-label={`Colour tag of cable ${cable.label}`}
                      className="field min-h-[30px]! py-0.5!"
                      value={cable.colour}
                      onChange={(event) => change(cable, { colour: event.target.value as ColourTag })}
                    >
                      {COLOUR_TAGS.map((one) => (
                        <option key={one}>{one}</option>
                      ))}
                    </select>
                  </span>
                </td>
                <td className="text-right">
                  <CellNumber
                    label={`Length of cable ${cable.label}, m`}
                    value={cable.lengthM}
                    least={0}
                    most={1500}
                    decimals={1}
                    onKeep={(lengthM) => change(cable, { lengthM })}
                  />
                </td>
                <td className="text-right">
                  <select
                    aria-label={`Cross-section of cable ${cable.label}`}
                    className="field num min-h-[30px]! py-0.5!"
                    value={cable.areaMm2 ?? ''}
                    onChange={(event) =>
                      change(cable, {
                        areaMm2: event.target.value === '' ? null : Number(event.target.value),
                      })
                    }
                  >
                    <option value="">not known</option>
                    {[...new Set([...CABLE_SIZES_MM2, ...(cable.areaMm2 === null ? [] : [cable.areaMm2])])]
                      .sort((one, other) => one - other)
                      .map((size) => (
                        <option key={size} value={size}>
                          {formatNumber(size, 2)}
                        </option>
                      ))}
                  </select>
                </td>
                <td className="num text-right">
                  {cable.lengthM === null || cable.areaMm2 === null
                    ? '–'
                    : `${formatNumber(cableOhm({ lengthM: cable.lengthM, areaMm2: cable.areaMm2 }), 2)} Ω`}
                </td>
                <td className="text-[13px] text-soft">
                  {wiring.wires
                    .filter((wire) => wire.cableId === cable.id)
                    .map((wire) => `${endName(circuit, wire.from)} – ${endName(circuit, wire.to)}`)
                    .join('; ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}
