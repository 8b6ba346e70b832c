import { useMemo, useState } from 'react';
import { remediesOf, mend, examineGarden, type Remedy } from '@plain-trowel/core/garden/document/mend';
import type { Fault } from '@plain-trowel/core/garden/document/faults';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { download } from '../../data/download.ts';
import { Button } from '../../ui/Button.tsx';
import { faultText } from '../../words/gardenFaultText.ts';
import { remedyText } from './remedyText.ts';
import { ValueField } from './ValueField.tsx';

/** How many faults are shown at once; the others follow as these are mended. */
const SHOWN = 30;

/**
 * A document that does not open, field by field: what stands there, what may stand there, and ways to mend it. Nothing is written before the whole opens.
 */
export function MendView({
  doc: given,
  fileName,
  onMended,
}: {
  doc: unknown;
  /** For saving it as a file. */
  fileName: string;
  onMended: (garden: Garden) => Promise<boolean>;
}) {
  const [steps, setSteps] = useState<readonly unknown[]>([given]);
  const [busy, setBusy] = useState(false);
  const doc = steps.at(-1);
  const examined = useMemo(() => examineGarden(doc), [doc]);
  const save = () => download(fileName, JSON.stringify(doc, null, 2), 'application/json');
  const saveButton = <Button onClick={save}>Save it as a file, as it stands</Button>;
  if (!examined.ok) return <div className="flex flex-wrap gap-3">{saveButton}</div>;
  const { faults, garden } = examined.value;
  const apply = (remedy: Remedy) => setSteps((before) => [...before, mend(examined.value.doc, remedy)]);
  const keep = async () => {
    if (!garden) return;
    setBusy(true);
    if (!(await onMended(garden))) setBusy(false);
  };
  return (
    <section aria-label="Mend it here" className="w-full">
      <h2>
        {faults.length === 0
          ? 'Everything fits now'
          : `${faults.length} ${faults.length === 1 ? 'field does' : 'fields do'} not fit`}
      </h2>
      <ul className="mt-2 border-t border-ink">
        {faults.slice(0, SHOWN).map((fault) => (
          <FaultRow
            key={`${fault.field} ${fault.rule.kind}`}
            doc={examined.value.doc}
            fault={fault}
            onMend={apply}
          />
        ))}
      </ul>
      {faults.length > SHOWN && <p className="mt-1 text-soft">and {faults.length - SHOWN} more</p>}
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="primary" disabled={!garden || busy} onClick={() => void keep()}>
          Keep the corrected garden and open it
        </Button>
        <Button disabled={steps.length < 2} onClick={() => setSteps((before) => before.slice(0, -1))}>
          Undo the last correction
        </Button>
        {saveButton}
      </div>
    </section>
  );
}

function FaultRow({ doc, fault, onMend }: { doc: unknown; fault: Fault; onMend: (remedy: Remedy) => void }) {
  const remedies = remediesOf(doc, fault);
  return (
    <li className="border-b border-rule py-2.5">
      <p className="font-semibold">{faultText(fault)}</p>
      <p className="text-[13.5px] wrap-anywhere text-soft">
        <span className="font-mono">{fault.field}</span>: {valueText(fault.value)}
      </p>
      <div className="mt-1.5 flex flex-wrap items-end gap-3">
        <ValueField fault={fault} onSet={(value) => onMend({ kind: 'set', path: fault.path, value })} />
        {remedies.map((remedy) => (
          <Button key={`${remedy.kind} ${remedy.path.join('.')}`} onClick={() => onMend(remedy)}>
            {remedyText(remedy)}
          </Button>
        ))}
      </div>
    </li>
  );
}

/** What stands in a field, short. */
function valueText(value: unknown): string {
  if (value === undefined) return 'nothing stands there';
  if (Array.isArray(value)) return `a list of ${value.length}`;
  const text = JSON.stringify(value);
  return text.length > 120 ? `${text.slice(0, 120)} …` : text;
}
