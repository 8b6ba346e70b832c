import { removeContact } from '@plain-trowel/core/garden/edits/contacts';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Contact } from '@plain-trowel/core/garden/document/contactSchema';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { NameCell } from '../../../../ui/NameCell.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { contactSentence, contactState } from '../../../../words/contactText.ts';
import { Standing } from '../../Standing.tsx';
import { ContactGuards } from './ContactGuards.tsx';
import { LightFields } from './LightFields.tsx';
import { PermitFields } from './PermitFields.tsx';
import { useContact } from './useContact.ts';

/** One output: what it will do in a sentence, what it does now, then what to change. */
export function ContactPanel({ parts, contact }: { parts: PlotParts; contact: Contact }) {
  const { garden, commit } = useGarden();
  const { standing, keep } = useContact(contact);
  const { rule } = contact;
  return (
    <section aria-label={contact.name} data-owner={contact.id} className="mb-6 border-b border-rule pb-4">
      <NameCell
        className="field w-[300px] max-w-full font-semibold"
        label={`Name of ${contact.name}`}
        value={contact.name}
        onKeep={(name) => keep('name', { name })}
      />
      <p className="mt-2 max-w-[68ch] text-[17px]">{contactSentence(contact, parts.plot, parts.fit)}</p>
      <Standing
        lead={`${contact.name} stays at rest until ${standing.length === 1 ? 'this is' : 'these are'} solved.`}
        all={standing}
      />
      <Now contact={contact} />
      {rule.kind === 'permit' ? (
        <PermitFields contact={contact} rule={rule} />
      ) : (
        <LightFields contact={contact} rule={rule} />
      )}
      <ContactGuards contact={contact} />
      <div className="mt-4 flex flex-wrap items-end gap-x-5 gap-y-2">
        {garden.boards.length > 1 && (
          <Select
            label="On the board"
            className="w-[240px]"
            groups={[{ name: '', options: garden.boards.map((one) => ({ value: one.id, label: one.name })) }]}
            value={contact.boardId}
            onChange={(boardId) => keep('board', { boardId })}
          />
        )}
        <Button
          onClick={() =>
            void commit(
              `remove ${contact.name}`,
              (before) => ({ garden: removeContact(before, contact.id) }),
              `${contact.name} was removed.`,
            )
          }
        >
          Remove this output
        </Button>
      </div>
    </section>
  );
}

/** What it does now and why, and the switch that lets it decide. */
function Now({ contact }: { contact: Contact }) {
  const { garden } = useGarden();
  const { keep } = useContact(contact);
  const answer = useLive(({ contactAnswers }) => contactAnswers[contact.id]);
  const source = useLive(({ source: from }) => from);
  return (
    <div className="mt-3 flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
      <div className="min-w-0" aria-live="polite">
        <p>
          <span className="text-soft">Now</span>{' '}
          {answer
            ? contactState(contact.rule.kind, answer, garden.timeZone)
            : source
              ? 'not heard yet'
              : 'nothing is connected, so nothing is decided'}
          .
        </p>
        {answer && answer.dayS >= 60 && (
          <p className="text-[14.5px] text-soft">
            {contact.rule.kind === 'light' ? 'Lit' : 'Let the timer'} for {formatDuration(answer.dayS)} in the
            last 24 to 25 hours.
          </p>
        )}
        {source && !source.can.decides && (
          <p className="max-w-[62ch] text-[14px] text-soft">
            This is what the rules would answer. Nothing is switched from this page: a real output is switched
            by its board’s own program.
          </p>
        )}
      </div>
      <Button
        className="shrink-0"
        look={contact.automatic ? 'plain' : 'primary'}
        onClick={() => keep('deciding', { automatic: !contact.automatic })}
      >
        {contact.automatic ? 'Put it at rest' : 'Let it decide by itself'}
      </Button>
    </div>
  );
}
