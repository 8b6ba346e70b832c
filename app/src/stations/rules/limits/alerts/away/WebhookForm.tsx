import { useState } from 'react';
import type { WaysGiven, WaysShown } from '@plain-trowel/core/protocol/telling';
import { Field } from '../../../../../ui/Field.tsx';
import { FormEnd, SecretField } from './FormParts.tsx';

type Webhook = NonNullable<WaysGiven['webhook']>;

/** An address that takes alerts as facts, for a program of one's own. */
export function WebhookForm({
  webhook,
  onKeep,
  onCancel,
}: {
  webhook: WaysShown['webhook'];
  /** @returns what is wrong; null when it was kept */
  onKeep: (webhook: Webhook) => Promise<string | null>;
  onCancel: () => void;
}) {
  const [url, setUrl] = useState(webhook?.url ?? '');
  const [secret, setSecret] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async () =>
    setProblem(await onKeep({ url: url.trim(), ...(secret === '' ? {} : { secret }) }));
  return (
    <form
      className="mt-3 flex max-w-[620px] flex-col items-start gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field label="Address" hint="It gets a POST request with JSON for every alert." className="w-full">
        {(props) => (
          <input
            {...props}
            type="url"
            autoComplete="off"
            spellCheck={false}
            placeholder="https://"
            value={url}
            onChange={(event) => setUrl(event.target.value)}
          />
        )}
      </Field>
      <SecretField
        label="Secret of both"
        hint={
          webhook?.hasSecret
            ? 'Kept at the gateway. Type it again only if it or the address has changed.'
            : 'By it the receiver can tell that a request is from here: docs/GATEWAY.md says how.'
        }
        className="w-full"
        value={secret}
        onType={setSecret}
      />
      <FormEnd problem={problem} onCancel={onCancel} />
    </form>
  );
}
