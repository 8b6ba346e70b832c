import { formatNumber } from '@plain-trowel/core/quantity/format';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { Field } from './Field.tsx';
import { useKeeping, useTyped } from './useTyped.ts';
import { useShownUnit } from '../data/useUnits.ts';

/** A number with its unit, which for °C, l and cm is the one that the person has chosen. It is kept on Enter or when left, and only when it is sound; Escape puts the kept one back. */
export function NumberField({
  label,
  unit: metric,
  value: metricValue,
  least: metricLeast,
  most: metricMost,
  whole: isWhole,
  decimals,
  check,
  warn,
  onKeep,
}: {
  label: string;
  unit: string;
  value: number;
  least: number;
  most: number;
  whole: boolean;
  decimals?: number;
  /** A sentence when the number does not fit to its neighbours, else null. */
  check?: (value: number) => string | null;
  /** A sentence that stands under a number which is kept all the same, else null; asked of what is typed, and of what is kept. */
  warn?: (value: number) => string | null;
  onKeep: (value: number) => void;
}) {
  const { unit, show, store, moreDecimals } = useShownUnit(metric);
  const isTurned = unit !== metric;
  const [value, least, most] = [show(metricValue), show(metricLeast), show(metricMost)];
  const whole = isWhole && !isTurned;
  const { typed, type, drop, handOver } = useTyped();
  const read = typed === null ? null : readNumber(typed.replace(',', '.'));
  const problem = read && problemOf();

  function problemOf(): string | null {
    if (read?.kind !== 'number') return 'Type a number.';
    if (read.value < least || read.value > most)
      return `From ${formatNumber(least, least % 1 === 0 ? 0 : 1)} to ${formatNumber(most)} ${unit}.`;
    if (whole && !Number.isInteger(read.value)) return 'Type a whole number.';
    return check?.(store(read.value)) ?? null;
  }
  const keep = useKeeping(typed, read?.kind === 'number' && problem === null, () => {
    handOver();
    if (read?.kind === 'number' && read.value !== value) onKeep(store(read.value));
  });
  const warning = problem ?? warn?.(read?.kind === 'number' ? store(read.value) : metricValue) ?? null;
  return (
    <Field label={label} unit={unit} error={warning ?? undefined}>
      {(props) => (
        <input
          {...props}
          className="field num w-full text-right"
          inputMode="decimal"
          value={typed ?? value.toFixed((decimals ?? (isWhole ? 0 : 1)) + moreDecimals)}
          onChange={(event) => type(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
            if (event.key === 'Escape') drop();
          }}
        />
      )}
    </Field>
  );
}
