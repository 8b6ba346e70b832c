import { LineNumber } from '../LineNumber.tsx';
import { FIELD_ROW, type FieldsOf } from './programForm.ts';
import { VolumeField } from './VolumeField.tsx';

export function PulseSoakFields({ line, program }: FieldsOf<'pulse-soak'>) {
  return (
    <div className={FIELD_ROW}>
      <VolumeField line={line} valueMl={program.pulseMl} change={(pulseMl) => ({ ...program, pulseMl })} />
      <LineNumber
        line={line}
        field="soak"
        label="Let it soak for"
        unit="min"
        value={program.soakS}
        per={60}
        least={1}
        most={1440}
        whole={false}
        decimals={0}
        change={(soakS) => ({ program: { ...program, soakS } })}
      />
      <LineNumber
        line={line}
        field="pulses"
        label="Doses in a round"
        unit="at most"
        value={program.mostPulses}
        least={1}
        most={20}
        change={(mostPulses) => ({ program: { ...program, mostPulses } })}
      />
      <LineNumber
        line={line}
        field="rest"
        label="Then rest"
        unit="h"
        value={program.restS}
        per={3600}
        least={0.1}
        most={168}
        whole={false}
        change={(restS) => ({ program: { ...program, restS } })}
      />
    </div>
  );
}
