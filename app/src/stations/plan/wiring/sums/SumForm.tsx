import { useState } from 'react';
import type { Facts } from '@plain-trowel/core/catalogue/facts';
import { E_SERIES_NAMES, type ESeries } from '@plain-trowel/core/electrics/eSeries';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { solveSum, type Sum, type SumValues } from './sums.ts';

/** One sum: the answer first, then what it was asked with; its working lies on the slip. `onUse` puts the answer into the part it was opened from. */
export function SumForm({
  sum,
  start = {},
  onUse,
}: {
  sum: Sum;
  start?: SumValues;
  onUse?: (facts: Facts) => void;
}) {
  const [values, setValues] = useState<SumValues>(start);
  const [series, setSeries] = useState<ESeries>('E12');
  const found = solveSum(sum, values, series);
  const use = found.ok ? found.use : null;
  return (
    <div>
      <div aria-live="polite" className="mb-3 min-h-[64px]">
        {found.ok ? (
          <>
            <p className="text-[21px]">
              <WorkedNumber id={`sum ${sum.id}`} worked={found.worked} lead className="font-semibold" />
            </p>
            {found.lines.map((line) => (
              <p key={line}>{line}</p>
            ))}
          </>
        ) : (
          <p className="border-l-2 border-handle pl-3">{found.says}</p>
        )}
      </div>
      <div className="grid grid-cols-2 gap-x-5 gap-y-3 md:grid-cols-3">
        {sum.fields.map((field) => (
          <NumberField
            key={field.key}
            label={field.label}
            unit={field.unit}
            value={values[field.key] ?? field.value}
            least={field.least}
            most={field.most}
            whole={field.decimals === 0}
            decimals={field.decimals}
            onKeep={(value) => setValues((held) => ({ ...held, [field.key]: value }))}
          />
        ))}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        {sum.series && (
          <Choice
            legend="Values to choose from"
            showLegend
            options={E_SERIES_NAMES.map((value) => ({ value, label: value }))}
            value={series}
            onChange={setSeries}
          />
        )}
        {onUse && use && (
          <Button look="primary" onClick={() => onUse(use)}>
            Use it here
          </Button>
        )}
      </div>
    </div>
  );
}
