import { Scroll } from '../../../ui/Scroll.tsx';
import { comparePowering, probeLives } from '@plain-trowel/core/power/comparePowering';
import { habitsOf } from '@plain-trowel/core/power/planBattery';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { partsWith } from '@plain-trowel/core/wiring/look';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import type { usePlan } from '../usePlan.ts';

/** Both schools side by side: stable under constant power, or long-lived by being powered only to be read. */
export function PoweringTable({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const supply = habitsOf(plan.circuit, plan.plan.supply);
  const ways = comparePowering(plan.wiring, plan.catalogue, supply);
  const lives = probeLives(partsWith(plan.circuit, 'probe'), supply.everyS);
  if (lives.length === 0) return null;
  const name = (perReading: boolean) => (perReading ? 'powered only to be read' : 'always powered');
  return (
    <section className="mt-6">
      <h2 className="border-t border-ink pt-3">Probes: always powered, or only to be read?</h2>
      <p className="mb-2 max-w-[70ch] text-[14px] text-soft">
        Makers disagree. Constant power gives the steadiest readings; switching slows corrosion and saves the
        battery, but each reading must wait for the warm-up. Which one a probe follows is set with its part
        under Wiring.
      </p>
      <Scroll label="Always powered, or only to be read">
        <table>
          <thead>
            <tr>
              <th>Compared</th>
              {ways.map((way) => (
                <th key={name(way.perReading)} className="text-right">
                  {name(way.perReading)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>Average current</td>
              {ways.map((way) => (
                <td key={name(way.perReading)} className="num text-right">
                  {formatNumber(way.averageMa, 2)} mA
                </td>
              ))}
            </tr>
            <tr>
              <td>Battery alone lasts</td>
              {ways.map((way) => (
                <td key={name(way.perReading)} className="text-right">
                  <WorkedNumber id={`battery ${name(way.perReading)}`} worked={way.battery} />
                </td>
              ))}
            </tr>
            {lives.map((one) => (
              <tr key={one.entryId}>
                <td>Life of a {one.name}</td>
                <td className="text-right">
                  <WorkedNumber id={`${one.entryId} always`} worked={one.always} />
                </td>
                <td className="text-right">
                  <WorkedNumber id={`${one.entryId} timed`} worked={one.perReading} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </section>
  );
}
