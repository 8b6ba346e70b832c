import { useState } from 'react';
import { FACT_KEYS, FACTS, type FactKey } from '@plain-trowel/core/catalogue/facts';
import { COST_CLASSES, entrySchema, ROLES, type Entry, type Role } from '@plain-trowel/core/catalogue/schema';
import { fieldName, plainMessage } from '@plain-trowel/core/quantity/fieldName';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Field } from '../../../ui/Field.tsx';
import { i2cTexts } from '../../../words/i2cText.ts';
import { TerminalTable } from './TerminalTable.tsx';

/** One entry of the catalogue as a form: words, figures, terminals, addresses. Kept only when the schema takes it. */
export function EntryDialog({
  entry,
  onClose,
  onKeep,
}: {
  entry: Entry;
  onClose: () => void;
  onKeep: (entry: Entry) => void;
}) {
  const [draft, setDraft] = useState(entry);
  const [addresses, setAddresses] = useState(entry.addresses.slice(0, 40).join(' '));
  const [problem, setProblem] = useState<string | null>(null);
  const set = (change: Partial<Entry>) => setDraft((held) => ({ ...held, ...change }));
  const keep = () => {
    const touched = addresses.trim() !== entry.addresses.slice(0, 40).join(' ');
    const numbers =
      addresses.trim() === ''
        ? []
        : addresses
            .trim()
            .split(/[\s,]+/)
            .map(Number);
    const checked = entrySchema.safeParse({ ...draft, addresses: touched ? numbers : entry.addresses });
    if (checked.success) onKeep(checked.data);
    else {
      const [first] = checked.error.issues;
      setProblem(
        first ? `${fieldName(first.path)}: ${plainMessage(first.message)}` : 'This entry cannot be kept.',
      );
    }
  };
  const text = (key: 'name' | 'good' | 'bad' | 'source', label: string) => (
    <Field label={label} className={key === 'name' ? '' : 'sm:col-span-2'}>
      {(props) => (
        <input
          {...props}
          value={draft[key]}
          maxLength={key === 'name' ? 80 : 400}
          onChange={(event) => set({ [key]: event.target.value })}
        />
      )}
    </Field>
  );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={entry.name}
      description="Describe the part by its traits, not by its maker’s name. A figure left empty is unknown, and the checks will say so."
    >
      <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">
        {text('name', 'Name, by its traits')}
        <div className="grid grid-cols-2 gap-3">
          <Field label="What it is">
            {(props) => (
              <select
                {...props}
                value={draft.role}
                onChange={(event) => set({ role: event.target.value as Role })}
              >
                {ROLES.map((role) => (
                  <option key={role}>{role}</option>
                ))}
              </select>
            )}
          </Field>
          <Field label="What it costs">
            {(props) => (
              <select
                {...props}
                value={draft.cost}
                onChange={(event) => set({ cost: event.target.value as Entry['cost'] })}
              >
                {COST_CLASSES.map((cost) => (
                  <option key={cost}>{cost}</option>
                ))}
              </select>
            )}
          </Field>
        </div>
        {text('good', 'Speaks for it')}
        {text('bad', 'Speaks against it')}
        {text('source', 'Where its figures come from')}
        <Field
          label="Bus addresses it can have, in decimal"
          hint="Empty when it has none."
          className="sm:col-span-2"
        >
          {(props) => (
            <input
              {...props}
              className="field num w-full"
              value={addresses}
              onChange={(event) => setAddresses(event.target.value)}
            />
          )}
        </Field>
      </div>
      <FactFields facts={draft.facts} onChange={(facts) => set({ facts })} />
      <OverI2c entry={draft} />
      <TerminalTable terminals={draft.terminals} onChange={(terminals) => set({ terminals })} />
      {problem !== null && (
        <p role="alert" className="mt-4 border-l-2 border-handle pl-3">
          {problem}. Mend it, then keep the entry.
        </p>
      )}
      <div className="mt-5 flex gap-2">
        <Button look="primary" onClick={keep}>
          Keep entry
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}

/** What the board's program says to it. */
function OverI2c({ entry }: { entry: Entry }) {
  if (!entry.terminals.some(({ type }) => type === 'i2c') || ['display', 'expander'].includes(entry.role))
    return null;
  return (
    <section aria-label="Asked over I2C">
      <h3 className="mt-5 mb-1 text-[15px] font-semibold">How a board’s program asks it over I2C</h3>
      {entry.i2c ? (
        <>
          <ul className="text-[14px]">
            {i2cTexts(entry.i2c).map((text) => (
              <li key={text} className="border-b border-rule py-1">
                {text}
              </li>
            ))}
          </ul>
          <p className="mt-1 text-[14px] text-soft">
            Common for the kind; compare it with your part’s sheet. Bytes are written in hexadecimal.
          </p>
        </>
      ) : (
        <p className="text-[14px] text-soft">
          Nobody has said, so no program is written for it. Keep the entry, export the catalogue, give the
          entry an “i2c” in that file, and import it again.
        </p>
      )}
    </section>
  );
}

function FactFields({
  facts,
  onChange,
}: {
  facts: Entry['facts'];
  onChange: (facts: Entry['facts']) => void;
}) {
  const shown = FACT_KEYS.filter((key) => key in facts);
  const rest = FACT_KEYS.filter((key) => !(key in facts));
  return (
    <>
      <h3 className="mt-5 mb-1 text-[15px] font-semibold">Figures</h3>
      <div className="grid gap-x-6 sm:grid-cols-2">
        {shown.map((key) => (
          <div
            key={key}
            className="flex items-center justify-between gap-2 border-b border-rule py-1 text-[14px]"
          >
            <span>{FACTS[key].name}</span>
            <span className="flex items-center gap-1.5 whitespace-nowrap">
              <CellNumber
                label={FACTS[key].name}
                value={facts[key] ?? null}
                least={FACTS[key].least}
                most={FACTS[key].most}
                decimals={FACTS[key].decimals}
                onKeep={(value) => onChange({ ...facts, [key]: value })}
              />
              <span className="w-10 text-[13px] text-soft">{FACTS[key].unit}</span>
            </span>
          </div>
        ))}
      </div>
      <select
        aria-label="Add a figure"
        className="field mt-2"
        value=""
        onChange={(event) => {
          if (event.target.value !== '') onChange({ ...facts, [event.target.value as FactKey]: null });
        }}
      >
        <option value="">Add a figure …</option>
        {rest.map((key) => (
          <option key={key} value={key}>
            {FACTS[key].name}
          </option>
        ))}
      </select>
    </>
  );
}
