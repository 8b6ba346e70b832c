import { MOST } from '@plain-trowel/core/quantity/bounds';
import { addContact } from '@plain-trowel/core/garden/edits/contacts';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { ContactRule } from '@plain-trowel/core/garden/document/contactSchema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { CONTACT_WORDS } from '../../../../words/contactText.ts';
import { ContactPanel } from './ContactPanel.tsx';

const KINDS = ['permit', 'light'] as const;

/** Outputs of a plot that hold a state instead of giving a dose: a permit contact beside somebody else's timer, a grow light. */
export function OutputsView({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const own = garden.contacts.filter((one) => one.plotId === parts.plot.id);
  const add = (kind: ContactRule['kind']) =>
    void commit(
      `a ${CONTACT_WORDS[kind].name.toLowerCase()} for ${parts.plot.name}`,
      (before) => ({ garden: addContact(before, parts.plot.id, kind, Math.random) }),
      `A ${CONTACT_WORDS[kind].name.toLowerCase()} was added. It is at rest until you let it decide.`,
    );
  return (
    <>
      {own.map((contact) => (
        <ContactPanel key={contact.id} parts={parts} contact={contact} />
      ))}
      <section aria-label="Add an output" className={own.length > 0 ? 'mt-6 border-t border-rule pt-3' : ''}>
        <h2>{own.length > 0 ? 'Another output' : `${parts.plot.name} has no other output yet`}</h2>
        {garden.boards.length === 0 ? (
          <p className="mt-1 max-w-[68ch]">
            An output hangs on a board, and this garden has none. Add one with the plot’s probe on the Readout
            sheet.
          </p>
        ) : (
          <ul className="mt-2 grid gap-x-8 gap-y-3 sm:grid-cols-2">
            {KINDS.map((kind) => (
              <li key={kind}>
                <p className="max-w-[48ch] text-[14.5px]">
                  <b className="font-semibold">{CONTACT_WORDS[kind].name}.</b> {CONTACT_WORDS[kind].when}
                </p>
                <div className="mt-1.5">
                  <AddButton
                    count={garden.contacts.length}
                    most={MOST.contacts}
                    what="outputs"
                    onClick={() => add(kind)}
                  >
                    Add a {CONTACT_WORDS[kind].name.toLowerCase()}
                  </AddButton>
                </div>
              </li>
            ))}
          </ul>
        )}
      </section>
    </>
  );
}
