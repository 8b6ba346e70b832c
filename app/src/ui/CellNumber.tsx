import { readNumber } from '@plain-trowel/core/signal/numberText';
import { useTyped } from './useTyped.ts';
import { useShownUnit } from '../data/useUnits.ts';

/** A number in a table cell: kept on Enter or when left; emptied, it is unknown again. What cannot be kept stays, marked, until it can. */
export function CellNumber({
  label,
  unit: metric = '',
  apart = false,
  value: metricValue,
  least: metricLeast,
  most: metricMost,
  decimals,
  onKeep,
}: {
  label: string;
  /** °C, l or cm: shown in the unit that the person has chosen. */
  unit?: string;
  /** A difference of temperatures. */
  apart?: boolean;
  value: number | null;
  least: number;
  most: number;
  decimals: number;
  onKeep: (value: number | null) => void;
}) {
  const { show, store } = useShownUnit(metric, apart);
  const [value, least, most] = [
    metricValue === null ? null : show(metricValue),
    show(metricLeast),
    show(metricMost),
  ];
  const { typed, type, drop, handOver } = useTyped();
  const read = typed === null || typed.trim() === '' ? null : readNumber(typed.trim().replace(',', '.'));
  const fits =
    read?.kind === 'number' &&
    read.value >= least &&
    read.value <= most &&
    (decimals > 0 || Number.isInteger(read.value));
  const wrong = typed !== null && typed.trim() !== '' && !fits;
  const keep = () => {
    if (typed === null || wrong) return;
    handOver();
    const next = read?.kind === 'number' ? read.value : null;
    if (next !== value) onKeep(next === null ? null : store(next));
  };
  return (
    <input
      aria-label={label}
      aria-invalid={wrong}
      title={
        wrong
          ? `From ${Number(least.toFixed(1))} to ${Number(most.toFixed(1))}${decimals === 0 ? ', whole' : ''}`
          : undefined
      }
      className="field num min-h-[30px]! w-[76px] px-1.5! py-0.5! text-right"
      inputMode="decimal"
      placeholder="–"
      value={typed ?? (value === null ? '' : String(Number(value.toFixed(decimals))))}
      onChange={(event) => type(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') drop();
      }}
    />
  );
}
