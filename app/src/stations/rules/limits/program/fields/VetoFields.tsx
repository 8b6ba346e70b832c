import { Check } from '../../../../../ui/Check.tsx';
import { SlotsField } from '../SlotsField.tsx';
import { useLine } from '../useLine.ts';
import { FIELD_ROW, type FieldsOf } from './programForm.ts';
import { VolumeField } from './VolumeField.tsx';

export function VetoFields({ line, program }: FieldsOf<'veto'>) {
  const { keep } = useLine(line);
  return (
    <>
      <SlotsField line={line} program={program} />
      <div className={FIELD_ROW}>
        <VolumeField line={line} valueMl={program.doseMl} change={(doseMl) => ({ ...program, doseMl })} />
      </div>
      <div data-said="interrupts">
        <Check
          className="mt-2"
          checked={program.interrupts}
          onChange={(interrupts) => keep('veto', { program: { ...program, interrupts } })}
        >
          The probe also ends a dose under way
        </Check>
      </div>
    </>
  );
}
