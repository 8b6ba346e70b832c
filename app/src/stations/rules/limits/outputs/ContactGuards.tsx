import type { Contact } from '@plain-trowel/core/garden/document/contactSchema';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import { Check } from '../../../../ui/Check.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { useContact, type ContactChange } from './useContact.ts';

/** How long it may be on, how long it must be off, and how old a reading may be. */
export function ContactGuards({ contact }: { contact: Contact }) {
  const { problem, keep } = useContact(contact);
  const { rule, mostOnMin, dayMaxMin, leastOffMin, staleAfterS } = contact;
  const isPermit = rule.kind === 'permit';
  return (
    <section aria-label={`Guards of ${contact.name}`} className="mt-4 border-t border-rule pt-3">
      <h2>Guards, in the board itself</h2>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        {isPermit
          ? 'At boot and on any error it is at rest. A limit on how long it may let the timer water ends a permission that the probe would never end, as where no water reaches it.'
          : 'At boot and on any error it is dark. A light that switches often wears out its plug, and plants need a night.'}
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
        <Most
          contact={contact}
          label={isPermit ? 'Lets through at a stretch, at most' : 'Lit at a stretch, at most'}
          minutes={mostOnMin}
          usual={isPermit ? 4320 : 960}
          most={168}
          said="mostOn"
          warn={problem('mostOn')}
          change={(minutes) => ({ mostOnMin: minutes })}
        />
        <Most
          contact={contact}
          label={isPermit ? 'Lets through in a day, at most' : 'Lit in a day, at most'}
          minutes={dayMaxMin}
          usual={isPermit ? 720 : 960}
          most={24}
          said="dayMost"
          warn={problem('dayMost')}
          change={(minutes) => ({ dayMaxMin: minutes })}
        />
        <span className="w-[170px]">
          <NumberField
            label="Then off for, at least"
            unit="min"
            value={leastOffMin}
            least={1}
            most={1440}
            whole
            onKeep={(minutes) => keep('time off', { leastOffMin: minutes })}
          />
        </span>
        {isPermit && (
          <span data-said="stale" className="w-[170px]">
            <NumberField
              label="Reading is stale after"
              unit="s"
              value={staleAfterS}
              least={5}
              most={86_400}
              whole
              warn={() => problem('stale')}
              onKeep={(seconds) => keep('stale reading', { staleAfterS: seconds })}
            />
          </span>
        )}
      </div>
    </section>
  );
}

/** A limit in hours that may be left out. */
function Most({
  contact,
  label,
  minutes,
  usual,
  most,
  said,
  warn,
  change,
}: {
  readonly contact: Contact;
  readonly label: string;
  readonly minutes: number | null;
  /** What it begins with, min. */
  readonly usual: number;
  /** The longest, h. */
  readonly most: number;
  /** As contradictions name it. */
  readonly said: LineField;
  readonly warn: string | null;
  readonly change: (minutes: number | null) => ContactChange;
}) {
  const { keep } = useContact(contact);
  return (
    <span data-said={said} className="flex flex-wrap items-end gap-3">
      {contact.rule.kind === 'permit' && (
        <Check
          checked={minutes !== null}
          onChange={(on) => keep(label.toLowerCase(), change(on ? usual : null))}
        >
          {minutes === null ? label : 'Limit'}
        </Check>
      )}
      {minutes !== null && (
        <span className="w-[210px]">
          <NumberField
            label={label}
            unit="h"
            value={minutes / 60}
            least={0.1}
            most={most}
            whole={false}
            warn={() => warn}
            onKeep={(hours) => keep(label.toLowerCase(), change(Math.round(hours * 60)))}
          />
        </span>
      )}
    </span>
  );
}
