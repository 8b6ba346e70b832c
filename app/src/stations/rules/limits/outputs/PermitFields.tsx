import type { Contact, ContactRule } from '@plain-trowel/core/garden/document/contactSchema';
import { Choice } from '../../../../ui/Choice.tsx';
import { ConditionList } from '../program/ConditionList.tsx';
import { useContact } from './useContact.ts';

/** On which side a permit contact fails, and what must be so besides. */
export function PermitFields({
  contact,
  rule,
}: {
  contact: Contact;
  rule: Extract<ContactRule, { kind: 'permit' }>;
}) {
  const { problem, keep } = useContact(contact);
  return (
    <>
      <section aria-label={`Wiring of ${contact.name}`} className="mt-4 border-t border-rule pt-3">
        <h2>Without current, and where nobody can tell</h2>
        <div className="mt-1.5">
          <Choice
            legend={`${contact.name} at rest`}
            options={[
              { value: 'forbids', label: 'It forbids (open at rest)' },
              { value: 'permits', label: 'It lets through (closed at rest)' },
            ]}
            value={rule.atRest}
            onChange={(atRest) => keep('side at rest', { rule: { ...rule, atRest } })}
          />
        </div>
        <p className="mt-1.5 max-w-[68ch] text-[14px] text-soft">
          {rule.atRest === 'forbids'
            ? 'A dead board, a probe that fails or a loose wire leave the plants dry: nothing floods. Wire the contact that is open at rest.'
            : 'A dead board, a probe that fails or a loose wire leave the timer as it was before: no plant dries out, but nothing of this guards against too much water. Wire the contact that is closed at rest.'}{' '}
          It switches the low-voltage wire of the valve alone. A timer or a pump that hangs on the mains is
          left to a licensed electrician and your local code.
        </p>
      </section>
      <section aria-label={`Conditions of ${contact.name}`} className="mt-4 border-t border-rule pt-3">
        <h2>Lets through only when</h2>
        <ConditionList about={contact} problem={problem} keep={keep} />
      </section>
    </>
  );
}
