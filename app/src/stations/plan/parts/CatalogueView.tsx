import { MOST_ENTRIES } from '@plain-trowel/core/catalogue/catalogueFile';
import { AddButton } from '../../../ui/AddButton.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { useRef, useState } from 'react';
import { readCatalogueFile, writeCatalogueFile } from '@plain-trowel/core/catalogue/catalogueFile';
import { FACTS, type FactKey } from '@plain-trowel/core/catalogue/facts';
import { ROLES, type Entry, type Role } from '@plain-trowel/core/catalogue/schema';
import { importEntries, removeEntry, setEntry } from '@plain-trowel/core/garden/edits/plan';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { download, fileNameOf } from '../../../data/download.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { FileInput } from '../../../ui/FileInput.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { catalogueFileText } from '../../../words/catalogueText.ts';
import type { usePlan } from '../usePlan.ts';
import { EntryDialog } from './EntryDialog.tsx';

type PlanTools = ReturnType<typeof usePlan>;
const MOST_BYTES = 5e6;

/** Every part this garden knows, with what speaks for and against it and its figures; to be edited, added to, exported and imported. */
export function CatalogueView({ plan }: { plan: PlanTools }) {
  const [role, setRole] = useState<Role>('probe');
  const [editing, setEditing] = useState<Entry | null>(null);
  const entries = [...plan.catalogue.values()].filter((entry) => entry.role === role);
  const own = new Set(plan.garden.catalogue.map((entry) => entry.id));
  const roles = ROLES.filter((one) => [...plan.catalogue.values()].some((entry) => entry.role === one));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
        <Field label="Kind of part" className="w-[200px]">
          {(props) => (
            <select {...props} value={role} onChange={(event) => setRole(event.target.value as Role)}>
              {roles.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          )}
        </Field>
        <Files plan={plan} />
      </div>
      <Scroll label="Catalogue entries">
        <table>
          <thead>
            <tr>
              <th>Entry</th>
              <th>Good</th>
              <th>Bad</th>
              <th>Figures</th>
              <th>
                <span className="sr-only">To do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {entries.map((entry) => (
              <tr key={entry.id}>
                <td className="font-medium">
                  {entry.name}
                  <span className="block text-[12.5px] font-normal text-soft">
                    {entry.cost}
                    {own.has(entry.id) && ', your own'}
                  </span>
                </td>
                <td>{entry.good}</td>
                <td>{entry.bad}</td>
                <td className="text-[13px]">{figures(entry)}</td>
                <td className="text-right whitespace-nowrap">
                  <Button
                    look="quiet"
                    className="min-h-0! py-0! text-[14px]!"
                    onClick={() => setEditing(entry)}
                    aria-label={`Edit ${entry.name}`}
                  >
                    edit
                  </Button>
                  {own.has(entry.id) && (
                    <Button
                      look="quiet"
                      className="ml-3 min-h-0! py-0! text-[14px]!"
                      aria-label={`Remove your ${entry.name}`}
                      onClick={() =>
                        void plan.change(
                          `own entry ${entry.name}`,
                          (garden) => removeEntry(garden, entry.id),
                          `Your ${entry.name} was removed.`,
                        )
                      }
                    >
                      remove
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      <AddButton
        count={plan.garden.catalogue.length}
        most={MOST_ENTRIES}
        what="own parts"
        className="mt-4"
        onClick={() => setEditing(fresh(role, entries[0], plan.catalogue))}
      >
        New {role}
      </AddButton>
      {editing && (
        <EntryDialog
          entry={editing}
          onClose={() => setEditing(null)}
          onKeep={(entry) => {
            void plan
              .change(
                `entry ${entry.name}`,
                (garden) => setEntry(garden, entry),
                `${entry.name} is in the catalogue of this garden.`,
              )
              .then((saved) => saved && setEditing(null));
          }}
        />
      )}
    </>
  );
}

/** The figures people choose by. */
const SHOWN: readonly FactKey[] = [
  'activeMa',
  'sleepMa',
  'warmUpS',
  'poweredYears',
  'logicV',
  'adcBits',
  'pinMa',
  'ratedV',
  'ohm',
  'capacityMah',
  'gateFullOnV',
  'switchedMa',
  'unitLoad',
];
function figures(entry: Entry): string {
  const told = SHOWN.flatMap((key) => {
    const value = entry.facts[key];
    return value == null
      ? []
      : [`${FACTS[key].name} ${formatNumber(value, value % 1 === 0 ? 0 : 2)} ${FACTS[key].unit}`];
  });
  return told.slice(0, 4).join('; ') || 'none known';
}

/** A new entry starts as a copy of a like one, so that its terminals are there. */
function fresh(role: Role, like: Entry | undefined, catalogue: PlanTools['catalogue']): Entry {
  let n = 1;
  while (catalogue.has(`own-${n}`)) n += 1;
  return like
    ? { ...like, id: `own-${n}`, name: `${like.name} (mine)`, source: 'my own' }
    : {
        id: `own-${n}`,
        role,
        name: `my ${role}`,
        good: '',
        bad: '',
        terminals: [],
        facts: {},
        addresses: [],
        cost: 'cheap',
        source: 'my own',
      };
}

function Files({ plan }: { plan: PlanTools }) {
  const file = useRef<HTMLInputElement>(null);
  const takeIn = async (chosen: File) => {
    if (chosen.size > MOST_BYTES) {
      showToast({
        tone: 'problem',
        text: `${chosen.name} is larger than 5 MB and was not read. A catalogue is far smaller.`,
      });
      return;
    }
    const read = readCatalogueFile(await chosen.text());
    if (!read.ok) {
      showToast({ tone: 'problem', text: catalogueFileText(read.issue, chosen.name) });
      return;
    }
    const before = plan.garden.catalogue.length;
    const after = importEntries(plan.garden, read.value).catalogue.length;
    await plan.change(
      'catalogue imported',
      (garden) => importEntries(garden, read.value),
      `${read.value.length} entries read from ${chosen.name}; ${Math.max(0, after - before)} are new.`,
    );
  };
  return (
    <div className="flex gap-2">
      <FileInput
        ref={file}
        label="Catalogue file"
        accept=".json,application/json"
        onFile={(chosen) => void takeIn(chosen)}
      />
      <Button onClick={() => file.current?.click()}>Import</Button>
      <Button
        onClick={() =>
          download(
            `${fileNameOf(plan.garden.name)}.catalogue.json`,
            writeCatalogueFile([...plan.catalogue.values()]),
            'application/json',
          )
        }
      >
        Export all
      </Button>
    </div>
  );
}
