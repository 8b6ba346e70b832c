import { meaningOf, mgPerLFromMgPerKg, needsMoisture } from '@plain-trowel/core/bus/indication';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useState } from 'react';
import { useGarden } from '../../../../data/gardenContext.ts';
import type { BusSnapshot } from '../../../../links/busDesk.ts';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { MEANING_WORDS } from '../../../../words/busText.ts';
import { clockTime } from '@plain-trowel/core/quantity/timeText';

const decimalsOf = (scale: number) => (Math.abs(scale) >= 1 ? 0 : Math.abs(scale) >= 0.1 ? 1 : 2);

/** What a probe said last: moisture and temperature as measured, salt, acid and nutrients as indications. */
export function BusValues({ state }: { state: BusSnapshot }) {
  const { garden } = useGarden();
  const [density, setDensity] = useState(1.2);
  const moisture = state.values.find((one) => one.field.quantity === 'moisture')?.value ?? null;
  const perKg = state.values.some((one) => one.field.unit === 'mg/kg');
  if (state.values.length === 0) return null;
  return (
    <section aria-label="Values" className="mt-3">
      <h2 className="label">
        Read at {clockTime(state.valuesAtMs ?? 0, garden.timeZone)}
        {state.simulated && ', stand-in'}
      </h2>
      <table>
        <thead>
          <tr>
            <th>Quantity</th>
            <th className="text-right">Value</th>
            {perKg && <th className="text-right">per litre of soil</th>}
            <th className="pl-4">What it is</th>
          </tr>
        </thead>
        <tbody>
          {state.values.map(({ field, value }) => {
            const meaning = meaningOf(field.quantity, moisture);
            const isVoid = meaning === 'too-dry';
            const needed = needsMoisture(field.quantity);
            const unit = field.quantity === 'moisture' ? '% factory' : field.unit;
            return (
              <tr key={field.name} className={isVoid ? 'text-soft line-through decoration-rule' : ''}>
                <td>{field.name}</td>
                <td className="num text-right text-[17px]">
                  {formatNumber(value, decimalsOf(field.scale))} <span className="text-[13px]">{unit}</span>
                </td>
                {perKg && (
                  <td className="num text-right">
                    {field.unit === 'mg/kg' ? `${formatNumber(mgPerLFromMgPerKg(value, density))} mg/l` : ''}
                  </td>
                )}
                <td className="pl-4 text-[14px]">
                  {MEANING_WORDS[meaning]}
                  {needed !== null && ` (needs ${formatNumber(needed)} % moisture)`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {perKg && (
        <div className="mt-2 w-[220px]">
          <NumberField
            label="Bulk density of the soil"
            unit="kg/l"
            value={density}
            least={0.1}
            most={2}
            whole={false}
            decimals={2}
            onKeep={setDensity}
          />
        </div>
      )}
    </section>
  );
}
