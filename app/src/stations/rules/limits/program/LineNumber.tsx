import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { useLine, type LineChange } from './useLine.ts';

/** A number of a water line in the unit that people use; what it contradicts is said under it and not kept. */
export function LineNumber({
  line,
  label,
  unit,
  value,
  per = 1,
  least,
  most,
  whole = true,
  decimals,
  change,
}: {
  line: WaterLine;
  label: string;
  unit: string;
  /** As the garden holds it. */
  value: number;
  /** How many of the garden's units are one of the shown. */
  per?: number;
  least: number;
  most: number;
  whole?: boolean;
  decimals?: number;
  change: (value: number) => LineChange;
}) {
  const { check, keep } = useLine(line);
  const held = (shown: number) => (per === 1 ? shown : Math.round(shown * per));
  return (
    <NumberField
      label={label}
      unit={unit}
      value={value / per}
      least={least}
      most={most}
      whole={whole}
      {...(decimals === undefined ? {} : { decimals })}
      check={(shown) => check(change(held(shown)))}
      onKeep={(shown) => keep(label.toLowerCase(), change(held(shown)))}
    />
  );
}
