import { leadersOf } from '@plain-trowel/core/garden/edits/newProgram';
import { useGarden } from '../../../../../data/gardenContext.ts';
import { Select } from '../../../../../ui/Select.tsx';
import { LineNumber } from '../LineNumber.tsx';
import { useLine } from '../useLine.ts';
import { FIELD_ROW, type FieldsOf } from './programForm.ts';

export function FollowerFields({ line, program }: FieldsOf<'follower'>) {
  const { garden } = useGarden();
  const { keep } = useLine(line);
  const leaders = leadersOf(garden, line).map((one) => ({ value: one.id, label: one.name }));
  return (
    <div className={FIELD_ROW}>
      <div data-said="leader">
        <Select
          label="Leader"
          groups={[{ name: '', options: leaders }]}
          value={program.leaderId}
          onChange={(leaderId) => keep('leader', { program: { ...program, leaderId } })}
        />
      </div>
      <LineNumber
        line={line}
        field={null}
        said="share"
        label="Runs for"
        unit="% of its time"
        value={program.sharePercent}
        least={10}
        most={300}
        change={(sharePercent) => ({ program: { ...program, sharePercent } })}
      />
      <LineNumber
        line={line}
        field={null}
        said="nth"
        label="Takes every n-th run"
        unit="n"
        value={program.everyNth}
        least={1}
        most={7}
        change={(everyNth) => ({ program: { ...program, everyNth } })}
      />
    </div>
  );
}
