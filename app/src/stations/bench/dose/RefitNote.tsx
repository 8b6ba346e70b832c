import { refitReasons, type RefitReason } from '@plain-trowel/core/garden/edits/trials';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';

/** What of the pump's circumstances has a name and a unit. */
export const RIG_WORDS = {
  tubeM: { name: 'tube', unit: 'm', decimals: 1 },
  liftCm: { name: 'lift', unit: 'cm', decimals: 0 },
  tankPercent: { name: 'tank level', unit: '% full', decimals: 0 },
  supplyV: { name: 'supply', unit: 'V', decimals: 1 },
} as const satisfies Readonly<Record<RefitReason['what'], unknown>>;

/** Says why the trials do not hold any more: what was so when they were made, and is not now. */
export function RefitNote({ line }: { line: WaterLine }) {
  const reasons = refitReasons(line);
  if (reasons.length === 0) return null;
  return (
    <p role="status" className="mt-2 max-w-[68ch] border-l-[3px] border-chaff pl-3">
      <b className="font-semibold">Measure again.</b>{' '}
      {reasons.map(({ what, trial, now }) => {
        const { name, unit, decimals } = RIG_WORDS[what];
        return `The ${name} was ${formatNumber(trial, decimals)} ${unit} and is ${formatNumber(now, decimals)} ${unit}. `;
      })}
      Until then a dose may be more or less than it says.
    </p>
  );
}
