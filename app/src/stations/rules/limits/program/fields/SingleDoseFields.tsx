import { LineNumber } from '../LineNumber.tsx';
import { FIELD_ROW, type FieldsOf } from './programForm.ts';
import { VolumeField } from './VolumeField.tsx';

export function SingleDoseFields({ line, program }: FieldsOf<'single-dose'>) {
  return (
    <div className={FIELD_ROW}>
      <VolumeField line={line} valueMl={program.doseMl} change={(doseMl) => ({ ...program, doseMl })} />
      <LineNumber
        line={line}
        field="interval"
        label="Not again within"
        unit="h"
        value={program.intervalS}
        per={3600}
        least={0.1}
        most={168}
        whole={false}
        change={(intervalS) => ({ program: { ...program, intervalS } })}
      />
    </div>
  );
}
