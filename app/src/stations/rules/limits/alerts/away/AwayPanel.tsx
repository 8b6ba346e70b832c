import { useState } from 'react';
import type { Telling, Way, WaysGiven } from '@plain-trowel/core/protocol/telling';
import { useGarden } from '../../../../../data/gardenContext.ts';
import { gateway } from '../../../../../links/gatewayClient.ts';
import { Button } from '../../../../../ui/Button.tsx';
import { Check } from '../../../../../ui/Check.tsx';
import { TimeField } from '../../../../../ui/TimeField.tsx';
import { gatewayIssueText } from '../../../../../words/networkText.ts';
import { awayHeadline, givenOf, mailLine, waysIssue, webhookLine } from '../../../../../words/tellingText.ts';
import { LetterList } from './LetterList.tsx';
import { MailForm } from './MailForm.tsx';
import { useTelling } from './useTelling.ts';
import { WebhookForm } from './WebhookForm.tsx';

/** How alerts reach a person while no page is open: by mail, by a signed request, and by a note each day. */
export function AwayPanel() {
  const { garden } = useGarden();
  const { asked, lookAgain } = useTelling();
  if (asked === null) return null;
  return (
    <section aria-label="While no page is open" className="mt-4 border-t border-rule pt-3">
      <h2>How they are told while no page is open</h2>
      {asked.ok ? (
        <Away gardenId={garden.id} telling={asked.value} onChanged={() => void lookAgain()} />
      ) : (
        <p className="mt-1 max-w-[65ch] text-[14px] text-soft">
          {asked.issue.kind === 'no-gateway'
            ? 'Only a gateway on a machine that stays on can do that, and this page does not come from one: run npm start there and open the page from it.'
            : asked.issue.kind === 'passphrase'
              ? 'The gateway asks for its passphrase: enter it on Bench, Readout, boards over the network.'
              : gatewayIssueText(asked.issue)}
        </p>
      )}
    </section>
  );
}

type Open = Way | null;

function Away({
  gardenId,
  telling,
  onChanged,
}: {
  gardenId: string;
  telling: Telling;
  onChanged: () => void;
}) {
  const { ways } = telling;
  const [open, setOpen] = useState<Open>(null);
  const [said, setSaid] = useState<string | null>(null);
  const set = async (change: Partial<WaysGiven>): Promise<string | null> => {
    const given = { ...givenOf(ways), ...change };
    const issue = waysIssue(given);
    if (issue !== null) return issue;
    const done = await gateway.setWays(given);
    onChanged();
    if (done.ok) setOpen(null);
    return done.ok ? null : gatewayIssueText(done.issue);
  };
  const tell = async (change: Partial<WaysGiven>) => setSaid(await set(change));
  const test = async (way: Way) => {
    setSaid('Sending …');
    const done = await gateway.tryWay(way);
    setSaid(
      !done.ok
        ? gatewayIssueText(done.issue)
        : done.value.sent
          ? `The test was taken by ${way === 'mail' ? 'the mail server' : 'the receiver'}. Look whether it has arrived.`
          : `The test could not be sent: ${done.value.why ?? 'nobody says why'}.`,
    );
    onChanged();
  };
  const rows: readonly {
    readonly way: Way;
    readonly name: string;
    readonly line: string;
    readonly isSet: boolean;
  }[] = [
    { way: 'mail', name: 'Mail', line: mailLine(ways), isSet: ways.mail !== null },
    { way: 'webhook', name: 'Signed web request', line: webhookLine(ways), isSet: ways.webhook !== null },
  ];
  return (
    <>
      <p className="mt-1 max-w-[65ch]">{awayHeadline(telling, gardenId)}</p>
      <ul className="mt-2 border-t border-rule">
        {rows.map(({ way, name, line, isSet }) => (
          <li key={way} className="border-b border-rule py-2">
            <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
              <span className="min-w-0 flex-1 basis-[34ch]">
                <b className="font-semibold">{name}</b>
                <span className="block text-[14px] wrap-anywhere text-soft">{line}</span>
              </span>
              {isSet && (
                <Button onClick={() => void test(way)}>
                  Send a test<span className="sr-only"> by {name.toLowerCase()}</span>
                </Button>
              )}
              <Button onClick={() => setOpen(open === way ? null : way)}>
                {isSet ? 'Change …' : 'Set up …'}
                <span className="sr-only">: {name}</span>
              </Button>
              {isSet && (
                <Button look="quiet" onClick={() => void tell({ [way]: null })}>
                  Switch off<span className="sr-only"> {name}</span>
                </Button>
              )}
            </div>
            {open === 'mail' && way === 'mail' && (
              <MailForm mail={ways.mail} onKeep={(mail) => set({ mail })} onCancel={() => setOpen(null)} />
            )}
            {open === 'webhook' && way === 'webhook' && (
              <WebhookForm
                webhook={ways.webhook}
                onKeep={(webhook) => set({ webhook })}
                onCancel={() => setOpen(null)}
              />
            )}
          </li>
        ))}
        <li className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-2">
          <Check
            checked={ways.noteAtMinute !== null}
            onChange={(on) => void tell({ noteAtMinute: on ? 480 : null })}
          >
            <b className="font-semibold">A note each day</b>
          </Check>
          {ways.noteAtMinute !== null && (
            <span className="flex items-center gap-2">
              at
              <TimeField
                label="The daily note is written at"
                minute={ways.noteAtMinute}
                onKeep={(noteAtMinute) => void tell({ noteAtMinute })}
              />
            </span>
          )}
          <span className="basis-full text-[14px] text-soft">
            What needs you, and how every plot, line and board stands. If it does not come, something is down:
            then look.
          </span>
        </li>
      </ul>
      {said !== null && (
        <p role="status" className="mt-2 max-w-[65ch] border-l-[3px] border-handle pl-3">
          {said}
        </p>
      )}
      <LetterList letters={telling.letters} onChanged={onChanged} />
    </>
  );
}
