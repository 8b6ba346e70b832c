import { FIELD_ROW, type FieldsOf } from './programForm.ts';
import { VolumeField } from './VolumeField.tsx';

export function UntilWetFields({ line, program }: FieldsOf<'until-wet'>) {
  return (
    <div className={FIELD_ROW}>
      <VolumeField
        line={line}
        label="At most in one go"
        valueMl={program.capMl}
        change={(capMl) => ({ ...program, capMl })}
      />
    </div>
  );
}
