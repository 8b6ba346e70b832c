import type { SavedProgram } from '@plain-trowel/core/control/programs/programs';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { LineNumber } from '../LineNumber.tsx';

const MOST_ML = 1_000_000;

/** A volume of a program, in ml. */
export function VolumeField({
  line,
  label = 'Dose',
  valueMl,
  change,
}: {
  readonly line: WaterLine;
  readonly label?: string;
  readonly valueMl: number;
  readonly change: (valueMl: number) => SavedProgram;
}) {
  return (
    <LineNumber
      line={line}
      field="dose"
      label={label}
      unit="ml"
      value={valueMl}
      least={1}
      most={MOST_ML}
      change={(ml) => ({ program: change(ml) })}
    />
  );
}
