import { useState } from 'react';
import type { WaysGiven, WaysShown } from '@plain-trowel/core/protocol/telling';
import { Field } from '../../../../../ui/Field.tsx';
import { FormEnd, SecretField } from './FormParts.tsx';
import { Select } from '../../../../../ui/Select.tsx';

type Mail = NonNullable<WaysGiven['mail']>;

const SECURITY = [
  { value: 'tls', label: 'from the first byte (TLS, often port 465)' },
  { value: 'starttls', label: 'after the greeting (STARTTLS, often port 587)' },
  { value: 'none', label: 'not at all' },
] as const;
const AT_FIRST: Mail = { host: '', port: 465, security: 'tls', user: '', from: '', to: '' };

/** A mail server that takes letters of this gateway. */
export function MailForm({
  mail,
  onKeep,
  onCancel,
}: {
  mail: WaysShown['mail'];
  /** @returns what is wrong; null when it was kept */
  onKeep: (mail: Mail) => Promise<string | null>;
  onCancel: () => void;
}) {
  const { hasPassword, ...kept } = mail ?? { ...AT_FIRST, hasPassword: false };
  const [typed, setTyped] = useState<Mail>(kept);
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const type = (change: Partial<Mail>) => setTyped((before) => ({ ...before, ...change }));
  const keep = async () => setProblem(await onKeep({ ...typed, ...(password === '' ? {} : { password }) }));
  const text = (
    label: string,
    field: 'host' | 'user' | 'from' | 'to',
    more: { readonly hint?: string; readonly type?: string } = {},
  ) => (
    <Field label={label} hint={more.hint} className="w-[280px] max-w-full">
      {(props) => (
        <input
          {...props}
          type={more.type ?? 'text'}
          autoComplete="off"
          spellCheck={false}
          value={typed[field]}
          onChange={(event) => type({ [field]: event.target.value.trim() })}
        />
      )}
    </Field>
  );
  return (
    <form
      className="mt-3 flex max-w-[620px] flex-wrap items-start gap-x-5 gap-y-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      {text('Mail server', 'host', { hint: 'Its name, as your mail provider gives it for sending (SMTP).' })}
      <Field label="Port" className="w-[90px]">
        {(props) => (
          <input
            {...props}
            className="field num w-full text-right"
            inputMode="numeric"
            value={Number.isNaN(typed.port) || typed.port === 0 ? '' : typed.port}
            onChange={(event) => type({ port: Number(event.target.value.replace(/\D/g, '')) })}
          />
        )}
      </Field>
      <Select
        label="Encrypted"
        className="w-[350px] max-w-full"
        value={typed.security}
        groups={[{ name: '', options: SECURITY }]}
        onChange={(security) => type({ security })}
      />
      {text('User', 'user', { hint: 'Empty, if the server asks for none.' })}
      <SecretField
        label="Password"
        hint={
          hasPassword
            ? 'Kept at the gateway. Type it again only if it, the server or the user has changed.'
            : 'One made for this purpose, if your provider offers that. It lies on the gateway’s disk, and is not shown again.'
        }
        className="w-[280px] max-w-full"
        value={password}
        onType={setPassword}
      />
      {text('From', 'from', { type: 'email' })}
      {text('To', 'to', { type: 'email' })}
      {typed.security === 'none' && typed.user !== '' && (
        <p className="basis-full border-l-[3px] border-handle pl-3 text-[14px]">
          Without encryption the password can be read by whoever listens on the way. Only do that for a server
          on this machine.
        </p>
      )}
      <FormEnd problem={problem} onCancel={onCancel} />
    </form>
  );
}
