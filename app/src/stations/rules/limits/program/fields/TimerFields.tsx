import { SlotsField } from '../SlotsField.tsx';
import { FIELD_ROW, type FieldsOf } from './programForm.ts';
import { VolumeField } from './VolumeField.tsx';

export function TimerFields({ line, program }: FieldsOf<'timer'>) {
  return (
    <>
      <SlotsField line={line} program={program} />
      <div className={FIELD_ROW}>
        <VolumeField line={line} valueMl={program.doseMl} change={(doseMl) => ({ ...program, doseMl })} />
      </div>
    </>
  );
}
