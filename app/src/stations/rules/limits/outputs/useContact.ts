import { contactContradictions } from '@plain-trowel/core/garden/bind/contacts';
import { setContact } from '@plain-trowel/core/garden/edits/contacts';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import type { Contact } from '@plain-trowel/core/garden/document/contactSchema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { contradictionText, fieldName } from '../../../../words/contradictionText.ts';

export type ContactChange = Partial<Omit<Contact, 'id'>>;

/** Changes to a contact. What contradicts is kept, and the contact is at rest until it is solved; `problem` says what stands at a field. */
export function useContact(contact: Contact) {
  const { garden, commit } = useGarden();
  const standing = contactContradictions(garden, contact);
  const problem = (field: LineField): string | null => {
    const own = standing.find((one) => one.at === field);
    if (own) return contradictionText(own);
    const other = standing.find((one) => one.against === field);
    return other ? `Stands against ${fieldName(other.at)}.` : null;
  };
  const keep = (label: string, change: ContactChange) =>
    void commit(`${label} of ${contact.name}`, (before) => ({
      garden: setContact(before, contact.id, change),
    }));
  return { standing, problem, keep };
}
