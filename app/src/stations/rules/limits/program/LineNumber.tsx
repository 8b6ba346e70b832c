import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import type { SaidField } from '../../../../words/programText.ts';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { useLine, type LineChange } from './useLine.ts';

/** A number of a water line in the unit that people use; what it contradicts is said under it, and it is kept all the same. */
export function LineNumber({
  line,
  field,
  label,
  unit,
  value,
  per = 1,
  least,
  most,
  whole = true,
  decimals,
  said = field,
  change,
}: {
  line: WaterLine;
  /** As contradictions name it; null where none can. */
  field: LineField | null;
  /** As the program's sentence names it, where that is by another name. */
  said?: SaidField | null;
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
  const { problem, keep } = useLine(line);
  const held = (shown: number) => (per === 1 ? shown : Math.round(shown * per));
  return (
    <div data-said={said ?? undefined}>
      <NumberField
        label={label}
        unit={unit}
        value={value / per}
        least={least}
        most={most}
        whole={whole}
        {...(decimals === undefined ? {} : { decimals })}
        warn={(shown) => (field === null ? null : problem(field, change(held(shown))))}
        onKeep={(shown) => keep(label.toLowerCase(), change(held(shown)))}
      />
    </div>
  );
}
